/** The rows of the comparison: what was found, then what tells the options apart. */
import type { CSSProperties, ReactElement, ReactNode } from "react";

import type { Comparison } from "../../api/hooks";
import type { Row } from "../../api/types";
import { midSentence } from "../../app/names";
import { num, volume } from "../../app/show";
import { StateMark } from "../../ui/marks";
import { CellView } from "./CellView";
import { tubSize } from "./pictures";
import { Chores, Needs } from "./upkeep";
import { Waste } from "./Waste";
import { say } from "../../app/language";

export interface Shared {
  a: Comparison;
  grid: CSSProperties;
  units: string;
  currency: string;
}

function Line({
  title,
  note,
  grid,
  children,
  id,
}: {
  title: ReactNode;
  note: ReactNode;
  grid: CSSProperties;
  children: ReactNode;
  id?: string;
}): ReactElement {
  return (
    <div className="grid py-2 border-b border-rule" style={grid} data-row={id}>
      <div>
        {title}
        <span className="text-s text-ink-2 leading-tight block">{note}</span>
      </div>
      {children}
    </div>
  );
}

const Name = ({ children }: { children: ReactNode }): ReactElement => (
  <b className="font-d text-[17px] leading-tight block">{children}</b>
);

function FoundRow({ r, a, grid }: { r: Row; a: Comparison; grid: CSSProperties }): ReactElement {
  const said = [r.complaints.length > 0 ? midSentence(r.name) : "", r.target_words];
  const title =
    r.complaints.length > 0 ? (
      r.complaints.map((q) => <Name key={q}>“{q}”</Name>)
    ) : (
      <Name>{r.name}</Name>
    );
  return (
    <Line id={r.analyte} title={title} note={said.filter(Boolean).join(", ")} grid={grid}>
      {a.options.map((o) => {
        const c = r.cells.find((x) => x.option === o.id);
        return c ? (
          <CellView key={o.id} row={r} cell={c} today={r.cells[0]} o={o} />
        ) : (
          <span key={o.id} className="text-s text-ink-3">
            –
          </span>
        );
      })}
    </Line>
  );
}

const untested = (r: Row): boolean => r.cells.every((c) => c.change === "not_tested");

/** What was not tested folds into one line: nothing is proposed for it. */
function Untested({ rows, grid }: { rows: Row[]; grid: CSSProperties }): ReactElement | null {
  if (rows.length === 0) return null;
  return (
    <div className="grid py-2 border-b border-rule" style={grid} data-row="untested">
      <Name>{say("Not tested")}</Name>
      <p className="flex gap-2 items-start" style={{ gridColumn: "2 / -1" }}>
        <StateMark kind="unk" size={18} />
        <span>
          {say("{x}: nothing is proposed for {x2} before a test.", {
            x: rows.map((r) => r.name).join(", "),
            x2: rows.length === 1 ? "it" : "them",
          })}
        </span>
      </p>
    </div>
  );
}

function Parts({ a, grid }: Shared): ReactElement {
  return (
    <Line title={<Name>{say("Parts")}</Name>} note={say("that fall due")} grid={grid}>
      {a.options.map((o, i) => (
        <span key={o.id} className="text-s leading-snug">
          {i === 0 && <span className="text-b text-ink-2">{say("none")}</span>}
          {i > 0 &&
            (o.single_source.length > 0
              ? say("one maker only: {x}", { x: o.single_source.join(", ") })
              : say("common, several makers"))}
        </span>
      ))}
    </Line>
  );
}

function Leaves({ a, grid }: Shared): ReactElement {
  return (
    <Line title={<Name>{say("It leaves")}</Name>} note={say("as they are")} grid={grid}>
      {a.options.map((o) => (
        <ul key={o.id} className="text-s leading-snug">
          {o.left.map((l) => (
            <li key={l} className="mb-1">
              {l}
            </li>
          ))}
          {o.left.length === 0 && (
            <li className="text-ink-2">
              {o.stops ? say("cannot work as it stands") : say("nothing that was found")}
            </li>
          )}
        </ul>
      ))}
    </Line>
  );
}

function Facts({ a, grid }: Shared): ReactElement {
  return (
    <>
      {a.facts.map((f) => (
        <Line key={f.id} id={f.id} title={<Name>{f.name}</Name>} note={f.note} grid={grid}>
          {a.options.map((o) => (
            <ul key={o.id} className="text-s leading-snug">
              {(f.values[o.id] ?? "").split("; ").map((w) => (
                <li key={w} className="mb-1">
                  {w || <span className="text-ink-3">–</span>}
                </li>
              ))}
            </ul>
          ))}
        </Line>
      ))}
    </>
  );
}

const BATH_GAL = 40;

export function Rows(shared: Shared): ReactElement {
  const { a, grid, units, currency } = shared;
  const biggest = Math.max(0, ...a.options.map((o) => o.waste?.total_gal_year ?? 0));
  const baths = num(tubSize(biggest) / BATH_GAL);
  const tub = say("one tub = {baths} baths of {BATH_GAL}, a year", {
    baths,
    BATH_GAL: volume(BATH_GAL, units),
  });
  return (
    <div
      className="flex-1 min-h-0 overflow-y-auto scroll"
      tabIndex={0}
      role="group"
      aria-label={say("What each option does")}
    >
      {a.rows
        .filter((r) => !untested(r))
        .map((r) => (
          <FoundRow key={r.analyte} r={r} a={a} grid={grid} />
        ))}
      <Untested rows={a.rows.filter(untested)} grid={grid} />
      <Line title={<Name>{say("Wastewater")}</Name>} note={tub} grid={grid}>
        {a.options.map((o) => (
          <Waste key={o.id} o={o} units={units} currency={currency} />
        ))}
      </Line>
      <Line title={<Name>{say("Upkeep")}</Name>} note={say("one year, by month")} grid={grid}>
        {a.options.map((o) => (
          <Chores key={o.id} o={o} />
        ))}
      </Line>
      <Line
        title={<Name>{say("Needs here")}</Name>}
        note={say("of this home and water")}
        grid={grid}
      >
        {a.options.map((o) => (
          <Needs key={o.id} o={o} />
        ))}
      </Line>
      <Leaves {...shared} />
      <Facts {...shared} />
      <Parts {...shared} />
    </div>
  );
}
