/** A laboratory's result, typed from its report. */
import { useState, type ReactElement } from "react";

import { useInstruments, useReference } from "../../api/hooks";
import type { Instrument } from "../../api/types";
import { Trouble } from "../../ui/Trouble";
import { EMPTY, LabFields, labResult, type Typed } from "./LabFields";
import { useKeep } from "./useKeep";
import { say } from "../../app/language";

function What({
  t,
  put,
  kits,
}: {
  t: Typed;
  put: (part: Partial<Typed>) => void;
  kits: Instrument[];
}): ReactElement {
  const names = useReference().data?.analytes ?? [];
  return (
    <label className="field">
      <span>{say("What")}</span>
      <select
        className="input"
        value={t.analyte}
        onChange={(e) => put({ analyte: e.target.value, unit: "", basis: "", qualifier: "=" })}
      >
        {names
          .filter((n) => kits.some((k) => k.analyte === n.id))
          .map((n) => (
            <option key={n.id} value={n.id}>
              {n.name}
            </option>
          ))}
      </select>
    </label>
  );
}

export function TypedResult(): ReactElement {
  const kits = (useInstruments().data ?? []).filter((k) => k.kind === "laboratory");
  const [t, setTyped] = useState(EMPTY);
  const { busy, error, save } = useKeep();
  const kit = kits.find((k) => k.analyte === t.analyte);
  const put = (part: Partial<Typed>): void => setTyped((was) => ({ ...was, ...part }));
  const keepIt = async (): Promise<void> => {
    if (kit && (await save(kit, labResult(t)))) put({ text: "" });
  };
  return (
    <form
      className="grid grid-cols-[repeat(auto-fill,minmax(158px,1fr))] gap-3 items-end"
      onSubmit={(e) => {
        e.preventDefault();
        void keepIt();
      }}
    >
      <What t={t} put={put} kits={kits} />
      <LabFields t={t} put={put} />
      <button className="key" disabled={busy || !kit}>
        {say("Keep it")}
      </button>
      <div className="col-span-full">
        <Trouble error={error} />
      </div>
    </form>
  );
}
