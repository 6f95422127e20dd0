/** The same tests behind the fitted line: by any kit of the firm, or from a laboratory's report. */
import { useState, type ReactElement, type ReactNode } from "react";

import type { Instrument } from "../../api/types";
import { SHOWN } from "../../app/facts.generated";
import { newId } from "../../app/names";
import { num } from "../../app/show";
import { EMPTY, LabFields, labResult, type Typed } from "../testing/LabFields";
import type { Doing, JobView, ProofBody } from "./hooks";
import { NAMES, placeOf } from "./names";
import { spoken, say } from "../../app/language";

type Promise_ = JobView["job"]["promises"][number];
type Seen = ProofBody["reading"]["observation"];

const DIALLED = ["meter", "drops", "display"];
const STEPPED = ["strip", "comparator"];
const MEASURES: readonly string[] = [...DIALLED, ...STEPPED, "laboratory"];

function typedIn(kit: Instrument, value: number): Seen | null {
  switch (kit.kind) {
    case "meter":
      return {
        method: "meter",
        displays: [value],
        multiplier: 1,
        temperature_c: null,
        zero: null,
        rinsed: true,
        steady: true,
      };
    case "drops":
      return { method: "drops", drops: Math.round(value), dilution: 1 };
    case "display":
      return { method: "display", value, dilution: 1, blanked: true };
    default:
      return null;
  }
}

/** A step of a kit, or between two: every other place in the list is a gap. */
const stepped = (at: number): Seen => ({
  method: "pad",
  pad: Math.floor(at / 2),
  between: at % 2 === 1,
  dilution: 1,
});

function stepsOf(kit: Instrument, unit: string): string[] {
  return kit.steps.flatMap((s, i) => {
    const next = kit.steps[i + 1];
    const here = `${num(s, 2)} ${unit}`.trim();
    return next === undefined
      ? [here]
      : [here, say("between {s} and {next}", { s: num(s, 2), next: num(next, 2) })];
  });
}

const unitOf = (kit: Instrument, analyte: string): string =>
  kit.unit || SHOWN[analyte]?.us?.unit || "";

const ASKS: Record<string, string> = spoken({
  meter: "On the display",
  drops: "Drops",
  display: "Shown",
});

/** What is asked of a kit, with its unit. */
function askedOf(kit: Instrument, analyte: string): string {
  const words = ASKS[kit.kind] ?? say("Color of the step");
  return kit.kind === "drops" ? words : `${words} [${unitOf(kit, analyte)}]`;
}

const LATER_DAYS = 3;
/** Whether a reading of today is behind the flush or one of the second test, days later. */
function phaseOn(fitted: string): ProofBody["phase"] {
  const days = (Date.now() - new Date(fitted).getTime()) / 86_400_000;
  return days >= LATER_DAYS ? "later" : "flushed";
}

/** A reading as it is kept: made now, with a kit, of what is promised. */
function readingOf(p: Promise_, kit: Instrument, seen: Seen, fitted: string): ProofBody {
  const reading = {
    id: newId(),
    analyte: p.analyte,
    instrument: kit,
    observation: seen,
    made_at: new Date().toISOString(),
  } as ProofBody["reading"];
  return { where: p.where, phase: phaseOn(fitted), reading };
}

function Labelled({ label, children }: { label: string; children: ReactNode }): ReactElement {
  return (
    <label className="field">
      <span>{label}</span>
      {children}
    </label>
  );
}

function Pick({
  label,
  value,
  options,
  onPick,
}: {
  label: string;
  value: string;
  options: [string, string][];
  onPick: (value: string) => void;
}): ReactElement {
  return (
    <Labelled label={label}>
      <select className="input" value={value} onChange={(e) => onPick(e.target.value)}>
        {options.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </Labelled>
  );
}

interface Entry {
  kit: Instrument;
  analyte: string;
  value: string;
  lab: Typed;
  onValue: (value: string) => void;
  onLab: (part: Partial<Typed>) => void;
}

/** What is seen: a number, a step of colours, or what a report says. */
function Shows({ kit, analyte, value, lab, onValue, onLab }: Entry): ReactElement {
  if (kit.kind === "laboratory") return <LabFields t={lab} put={onLab} />;
  const label = askedOf(kit, analyte);
  if (STEPPED.includes(kit.kind))
    return (
      <Labelled label={label}>
        <select className="input" required value={value} onChange={(e) => onValue(e.target.value)}>
          <option value="">{say("choose")}</option>
          {stepsOf(kit, unitOf(kit, analyte)).map((words, at) => (
            <option key={words} value={String(at)}>
              {words}
            </option>
          ))}
        </select>
      </Labelled>
    );
  return (
    <Labelled label={label}>
      <input
        className="input"
        type="number"
        step="any"
        min={0}
        required
        value={value}
        onChange={(e) => onValue(e.target.value)}
      />
    </Labelled>
  );
}

type Entered = Pick<Entry, "kit" | "value" | "lab">;

function seenOf({ kit, value, lab }: Entered): Seen | null {
  if (kit.kind === "laboratory") return labResult(lab);
  if (value === "") return null;
  return STEPPED.includes(kit.kind) ? stepped(Number(value)) : typedIn(kit, Number(value));
}

export function Measure({
  left,
  kits,
  fitted,
  onDo,
}: {
  left: Promise_[];
  kits: Instrument[];
  fitted: string;
  onDo: (d: Doing) => void;
}): ReactElement | null {
  const usable = kits.filter((k) => MEASURES.includes(k.kind));
  const can = left.filter((p) => usable.some((k) => k.analyte === p.analyte));
  const [picked, setPicked] = useState(0);
  const [kitId, setKitId] = useState("");
  const [value, setValue] = useState("");
  const [typed, setTyped] = useState<Typed>(EMPTY);
  const p = can[picked] ?? can[0];
  if (!p) return null;
  const fit = usable.filter((k) => k.analyte === p.analyte);
  const kit = fit.find((k) => k.id === kitId) ?? fit[0];
  if (!kit) return null;
  const lab = { ...typed, analyte: p.analyte };
  const keep = (): void => {
    const seen = seenOf({ kit, value, lab });
    if (!seen) return;
    onDo({ what: "proof", body: readingOf(p, kit, seen, fitted) });
    setValue("");
    setTyped((was) => ({ ...was, text: "" }));
  };
  return (
    <form
      className="flex gap-3 items-end flex-wrap py-3"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <Pick
        label={say("Measured after the system")}
        value={String(picked)}
        options={can.map((x, n) => [String(n), `${NAMES[x.analyte] ?? x.analyte}, ${placeOf(x)}`])}
        onPick={(n) => {
          setPicked(Number(n));
          setKitId("");
          setValue("");
          setTyped((was) => ({ ...EMPTY, laboratory: was.laboratory, report: was.report }));
        }}
      />
      <Pick
        label={say("With")}
        value={kit.id}
        options={fit.map((k) => [
          k.id,
          k.kind === "laboratory" ? say("a laboratory’s report") : k.name,
        ])}
        onPick={(id) => {
          setKitId(id);
          setValue("");
        }}
      />
      <Shows
        kit={kit}
        analyte={p.analyte}
        value={value}
        lab={lab}
        onValue={setValue}
        onLab={(part) => setTyped((was) => ({ ...was, ...part }))}
      />
      <button className="key">{say("Keep the reading")}</button>
    </form>
  );
}
