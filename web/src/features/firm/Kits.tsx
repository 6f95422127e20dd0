/** Kits and meters of the firm: what each shows, how well, and until when. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { useInstruments, useReference, type FirmView } from "../../api/hooks";
import type { Instrument } from "../../api/types";
import { fitness } from "../../app/fitness";
import { StateMark } from "../../ui/marks";
import { NumberField, Seg, TextField } from "../../ui/fields";
import { Trouble } from "../../ui/Trouble";
import { CheckIt } from "./CheckIt";
import { spoken, say } from "../../app/language";

const NEW_KIT: Instrument = {
  id: "",
  name: "",
  kind: "strip",
  analyte: "hardness",
  unit: "",
  accuracy_share: null,
  accuracy_of: null,
  accuracy_plus: 0,
  full_scale: null,
  resolution: 1,
  factor: null,
  drop_value: null,
  sample_ml: null,
  steps: [],
  detection_limit: null,
  reagent_expiry: null,
  last_check: null,
  check_every_days: null,
  wait_s: null,
  change_of_colour: "",
  simulated: false,
  note: "",
};
const KINDS = spoken([
  ["meter", "meter, repeats"],
  ["drops", "drops"],
  ["strip", "strip"],
  ["comparator", "comparator"],
  ["display", "one display"],
  ["bucket", "bucket"],
] as const);

interface Part {
  k: Instrument;
  set: (part: Partial<Instrument>) => void;
}

/** A kit's name is also its key: letters and digits of it. */
function keyOf(name: string): string {
  const letters = name.toLowerCase().replace(/[^a-z0-9]+/g, "-");
  return letters.slice(0, 40) || "kit";
}

/** What it is, and what it reads. */
function What({ k, set }: Part): ReactElement {
  const names = useReference().data?.analytes ?? [];
  return (
    <>
      <TextField
        label={say("Name")}
        value={k.name}
        required
        live
        onCommit={(name) => set({ name })}
      />
      <label className="field">
        <span>{say("Read as")}</span>
        <select
          className="input"
          value={k.kind}
          onChange={(e) => set({ kind: e.target.value as Instrument["kind"] })}
        >
          {KINDS.map(([v, n]) => (
            <option key={v} value={v}>
              {n}
            </option>
          ))}
        </select>
      </label>
      <label className="field">
        <span>{say("Reads")}</span>
        <select
          className="input"
          value={k.analyte}
          onChange={(e) => set({ analyte: e.target.value })}
        >
          {names.map((n) => (
            <option key={n.id} value={n.id}>
              {n.name}
            </option>
          ))}
        </select>
      </label>
      <TextField
        label={say("Unit of its steps")}
        value={k.unit}
        hint={say("empty: the analyte’s own")}
        onCommit={(unit) => set({ unit })}
      />
    </>
  );
}

/** How well a meter or a display reads. */
function Accuracy({ k, set }: Part): ReactElement {
  const meter = k.kind === "meter";
  return (
    <>
      {meter && (
        <NumberField
          label={say("Factor")}
          value={k.factor ?? null}
          onCommit={(factor) => set({ factor })}
        />
      )}
      <NumberField
        label={say("Accuracy, share")}
        unit="%"
        value={k.accuracy_share == null ? null : k.accuracy_share * 100}
        onCommit={(n) => set({ accuracy_share: n === null ? null : n / 100 })}
      />
      <Seg
        label={say("Share of")}
        value={k.accuracy_of ?? ""}
        choices={[
          { value: "reading", name: "reading" },
          { value: "full_scale", name: say("full scale") },
        ]}
        onChange={(accuracy_of) => set({ accuracy_of })}
      />
      {meter ? (
        <NumberField
          label={say("Full scale")}
          value={k.full_scale ?? null}
          onCommit={(full_scale) => set({ full_scale })}
        />
      ) : (
        <NumberField
          label={say("Accuracy, plus or minus")}
          value={k.accuracy_plus}
          onCommit={(n) => set({ accuracy_plus: n ?? 0 })}
        />
      )}
      <NumberField
        label={say("Smallest step")}
        value={k.resolution}
        onCommit={(n) => set({ resolution: n ?? 1 })}
      />
      {!meter && (
        <NumberField
          label={say("Cannot read under")}
          value={k.detection_limit ?? null}
          onCommit={(detection_limit) => set({ detection_limit })}
        />
      )}
    </>
  );
}

/** What its kind asks for. */
function HowItReads(p: Part): ReactElement | null {
  const { k, set } = p;
  switch (k.kind) {
    case "strip":
    case "comparator":
      return (
        <TextField
          label={say("Pads, in order")}
          value={k.steps.join(" ")}
          hint="0 25 50 120 180 250 425"
          onCommit={(t) =>
            set({
              steps: t
                .split(/[\s,;]+/)
                .filter(Boolean)
                .map(Number),
            })
          }
        />
      );
    case "drops":
      return (
        <NumberField
          label={say("One drop stands for")}
          value={k.drop_value ?? null}
          onCommit={(drop_value) => set({ drop_value })}
        />
      );
    case "meter":
    case "display":
      return <Accuracy {...p} />;
    default:
      return null;
  }
}

/** Until when it may be trusted, and how long it takes. */
function Trusted({ k, set }: Part): ReactElement {
  return (
    <>
      <label className="field">
        <span>{say("Reagent expires")}</span>
        <input
          className="input"
          type="date"
          value={k.reagent_expiry ?? ""}
          onChange={(e) => set({ reagent_expiry: e.target.value || null })}
        />
      </label>
      <label className="field">
        <span>{say("Last check")}</span>
        <input
          className="input"
          type="date"
          value={k.last_check ?? ""}
          onChange={(e) => set({ last_check: e.target.value || null })}
        />
      </label>
      <NumberField
        label={say("Check every")}
        unit="days"
        value={k.check_every_days ?? null}
        onCommit={(n) => set({ check_every_days: n === null ? null : Math.round(n) })}
      />
      <NumberField
        label={say("Wait before reading")}
        unit="s"
        value={k.wait_s ?? null}
        onCommit={(n) => set({ wait_s: n === null ? null : Math.round(n) })}
      />
    </>
  );
}

function KitForm({
  kit,
  version,
  fresh,
  onDone,
}: {
  kit: Instrument;
  version: number | undefined;
  fresh: boolean;
  onDone: () => void;
}): ReactElement {
  const [k, setK] = useState(kit);
  const client = useQueryClient();
  const set = (part: Partial<Instrument>): void => setK({ ...k, ...part });
  const save = useMutation({
    mutationFn: () => {
      const id = fresh ? keyOf(k.name) : k.id;
      return data(
        api.PUT("/api/instruments/{key}", {
          params: {
            path: { key: id },
            header: version === undefined ? {} : { "If-Match-Version": version },
          },
          body: { ...k, id },
        }),
      );
    },
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ["instruments"] });
      void client.invalidateQueries({ queryKey: ["firm"] });
      onDone();
    },
  });
  return (
    <form
      className="border-[1.5px] border-ink bg-slip p-4 grid gap-3 my-2"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <div className="grid grid-cols-[repeat(auto-fill,minmax(180px,1fr))] gap-3 items-start">
        <What k={k} set={set} />
        <HowItReads k={k} set={set} />
        <Trusted k={k} set={set} />
      </div>
      <Trouble error={save.error} />
      <div className="flex gap-2">
        <button
          className="key"
          style={{ background: "var(--ink)", color: "var(--paper)" }}
          disabled={save.isPending || !k.name.trim()}
        >
          {say("Keep this kit")}
        </button>
        <button type="button" className="key bare" onClick={onDone}>
          {say("Leave it")}
        </button>
      </div>
    </form>
  );
}

function aboutKit(k: Instrument): string {
  return [
    k.kind,
    k.steps.length > 0 && say("pads {x}", { x: k.steps.join(" ") }),
    k.drop_value != null &&
      say("{drop_value} {x} a drop", {
        drop_value: k.drop_value,
        x: k.unit.replace("CaCO3", "CaCO₃"),
      }),
    k.factor != null && say("factor {factor}", { factor: k.factor }),
    k.reagent_expiry != null &&
      say("expires {reagent_expiry}", { reagent_expiry: k.reagent_expiry }),
    k.last_check != null && say("checked {last_check}", { last_check: k.last_check }),
    k.simulated && "simulated",
  ]
    .filter(Boolean)
    .join(", ");
}

function KitRow({
  k,
  may,
  version,
  open,
  onOpen,
}: {
  k: Instrument;
  may: boolean;
  version: number | undefined;
  open: boolean;
  onOpen: (on: boolean) => void;
}): ReactElement {
  const state = fitness(k);
  const [checking, setChecking] = useState(false);
  return (
    <li className="border-b border-rule py-1">
      <div className="flex gap-3 items-center min-h-12">
        <StateMark kind={state === "fit" ? "done" : "no"} size={17} label={state} />
        <span className="flex-1">
          <b>{k.name}</b>
          <span className="text-ink-2 text-m"> {aboutKit(k)}</span>
          {state !== "fit" && <b className="text-m text-zest-ink"> {state}</b>}
        </span>
        <button
          className="key bare"
          style={{ minHeight: 44 }}
          aria-expanded={checking}
          onClick={() => setChecking(!checking)}
        >
          {say("Check it")}
        </button>
        {may && (
          <button className="key" style={{ minHeight: 44 }} onClick={() => onOpen(!open)}>
            {say("Change")}
          </button>
        )}
      </div>
      {checking && <CheckIt k={k} />}
      {open && <KitForm kit={k} version={version} fresh={false} onDone={() => onOpen(false)} />}
    </li>
  );
}

export function Kits({ firm, may }: { firm: FirmView; may: boolean }): ReactElement {
  const kits = (useInstruments().data ?? []).filter((k) => k.kind !== "laboratory");
  const [open, setOpen] = useState<string | null>(null);
  return (
    <section id="kits">
      <div className="flex justify-between items-center">
        <h2>{say("Kits and meters")}</h2>
        {may && (
          <button className="key" onClick={() => setOpen("new")}>
            {say("Add a kit")}
          </button>
        )}
      </div>
      {open === "new" && (
        <KitForm kit={NEW_KIT} version={undefined} fresh onDone={() => setOpen(null)} />
      )}
      <ul>
        {kits.map((k) => (
          <KitRow
            key={k.id}
            k={k}
            may={may}
            version={firm.kits[k.id]}
            open={open === k.id}
            onOpen={(on) => setOpen(on ? k.id : null)}
          />
        ))}
      </ul>
    </section>
  );
}
