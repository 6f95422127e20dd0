/** The sheets of a line in the order of the work, and the one that is looked at beside them. */
import type { ReactElement, ReactNode } from "react";

import type { Sheet } from "./hooks";
import { spoken, say } from "../../app/language";

const GROUPS: [Sheet["purpose"], string][] = spoken([
  ["fit", "Fit and start"],
  ["disinfect", "Disinfect"],
  ["change", "Change"],
  ["season", "Seasons"],
]);

interface Props {
  sheets: Sheet[];
  picked: string;
  /** What stands under a sheet's name, e.g. how much of it is done. */
  note: (s: Sheet) => string;
  onPick: (key: string) => void;
}

function SheetList({ sheets, picked, note, onPick }: Props): ReactElement {
  return (
    <nav aria-label={say("Sheets")} className="grid gap-1 content-start">
      {GROUPS.map(([purpose, title]) => {
        const those = sheets.filter((s) => s.purpose === purpose);
        if (those.length === 0) return null;
        return (
          <div key={purpose}>
            <h2 className="text-m font-semibold text-ink-2 pt-2">{title}</h2>
            {those.map((s) => (
              <button
                key={s.key}
                className={`sheet-key ${s.key === picked ? "bg-yuzu-pale font-semibold" : ""}`}
                aria-pressed={s.key === picked}
                onClick={() => onPick(s.key)}
              >
                {s.title}
                <span className="block text-m text-ink-2 font-normal">{note(s)}</span>
              </button>
            ))}
          </div>
        );
      })}
    </nav>
  );
}

export function SheetPicker({ children, ...of }: Props & { children: ReactNode }): ReactElement {
  return (
    <div className="grid grid-cols-[250px_1fr] max-[900px]:grid-cols-1 gap-8 print:block">
      <div className="max-[900px]:hidden print:hidden">
        <SheetList {...of} />
      </div>
      <label className="field hidden max-[900px]:grid print:hidden">
        <span>{say("Sheet")}</span>
        <select className="input" value={of.picked} onChange={(e) => of.onPick(e.target.value)}>
          {of.sheets.map((s) => (
            <option key={s.key} value={s.key}>
              {s.title}, {of.note(s)}
            </option>
          ))}
        </select>
      </label>
      <div>{children}</div>
    </div>
  );
}
