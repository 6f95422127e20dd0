/** A time of a bottle's chain is put right with a reason; what stood there is kept. */
import { useState, type ReactElement } from "react";

import type { LabSample } from "../../api/types";
import { exactNow } from "./timers";
import { spoken, say } from "../../app/language";

type Field = LabSample["corrected"][number]["field"];
const NAMES: [Field, string][] = spoken([
  ["drawn_at", "drawn"],
  ["handed_at", "handed over"],
  ["received_at", "received"],
  ["reported_at", "reported"],
]);
const WHY_AT_LEAST = 3;

/** What a local date and time field wants. */
function forField(iso: string): string {
  return exactNow(new Date(iso)).slice(0, 16);
}

const shown = (iso: string | null | undefined): string =>
  iso ? forField(iso).replace("T", " ") : "nothing";

function PutRight({
  bottle,
  onPut,
  onClose,
}: {
  bottle: LabSample;
  onPut: (b: LabSample) => Promise<unknown>;
  onClose: () => void;
}): ReactElement {
  const [field, setField] = useState<Field>("drawn_at");
  const [time, setTime] = useState(forField(bottle.drawn_at));
  const [because, setBecause] = useState("");
  const put = (): void => {
    const was = bottle[field] ?? null;
    void onPut({
      ...bottle,
      [field]: exactNow(new Date(time)),
      corrected: [...bottle.corrected, { field, was, because: because.trim() }],
    }).then(onClose, () => undefined);
  };
  return (
    <form
      className="grid grid-cols-[repeat(auto-fill,minmax(170px,1fr))] gap-3 items-end py-2"
      onSubmit={(e) => {
        e.preventDefault();
        put();
      }}
    >
      <label className="field">
        <span>{say("Which time")}</span>
        <select
          className="input"
          value={field}
          onChange={(e) => {
            const f = e.target.value as Field;
            setField(f);
            setTime(forField(bottle[f] ?? bottle.drawn_at));
          }}
        >
          {NAMES.filter(([f]) => bottle[f]).map(([f, name]) => (
            <option key={f} value={f}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label className="field">
        <span>{say("It was")}</span>
        <input
          className="input"
          type="datetime-local"
          required
          value={time}
          onChange={(e) => setTime(e.target.value)}
        />
      </label>
      <label className="field">
        <span>{say("Because")}</span>
        <input
          className="input"
          maxLength={200}
          value={because}
          onChange={(e) => setBecause(e.target.value)}
        />
      </label>
      <button
        className="key"
        disabled={because.trim().length < WHY_AT_LEAST || Number.isNaN(Date.parse(time))}
      >
        {say("Put it right")}
      </button>
    </form>
  );
}

export function BottleTimes({
  bottle,
  onPut,
}: {
  bottle: LabSample;
  onPut: (b: LabSample) => Promise<unknown>;
}): ReactElement {
  const [open, setOpen] = useState(false);
  const name = (f: Field): string => NAMES.find(([k]) => k === f)?.[1] ?? f;
  return (
    <div>
      {bottle.corrected.map((c, i) => (
        <p key={i} className="text-s text-ink-2">
          {say("{field}: {was} stood there, put right because {because}", {
            field: name(c.field),
            was: shown(c.was),
            because: c.because,
          })}
        </p>
      ))}
      <button className="key bare" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? say("Leave the times") : say("A time is wrong")}
      </button>
      {open && <PutRight bottle={bottle} onPut={onPut} onClose={() => setOpen(false)} />}
    </div>
  );
}
