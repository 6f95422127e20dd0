/** Compare: pictures first; each option's column stands on its glasses, everything above is about it. */
import { useState, type ReactElement } from "react";
import { Link } from "react-router";

import { useChangeVisit, useComparison, type Comparison, type Use } from "../../api/hooks";
import { Trouble, Waiting } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { ColumnHead, Stands } from "./Columns";
import { Costs, type Chosen } from "./Costs";
import { Rows } from "./Rows";

/** Widths [px] of the names and of a column; from today and four options on both are narrower. */
const WIDE = { names: 148, column: 132 };
const TIGHT = { names: 132, column: 112 };
const GAP = 12;

function Board({ a, ...chosen }: { a: Comparison } & Chosen): ReactElement {
  const { view, units } = useVisitContext();
  const currency = view.visit.settings.currency;
  const { names, column } = a.options.length > 4 ? TIGHT : WIDE;
  const grid = {
    gridTemplateColumns: `${names}px repeat(${a.options.length}, minmax(${column}px, 1fr))`,
    columnGap: GAP,
  };
  return (
    <div className="h-full grid grid-rows-[minmax(0,1fr)_auto] wide:grid-rows-1 wide:grid-cols-[minmax(0,1fr)_400px] gap-x-8 min-h-0">
      <div className="min-h-0 h-full overflow-x-auto overflow-y-hidden scroll sideways">
        <div
          className="h-full flex flex-col relative"
          style={{ minWidth: names + a.options.length * (column + GAP) }}
        >
          <div className="grid py-2 border-b-[1.5px] border-ink" style={grid}>
            <span className="text-s text-ink-2 self-end">found, today, after</span>
            {a.options.map((o, i) => (
              <ColumnHead
                key={o.id}
                o={o}
                i={i}
                currency={currency}
                recommended={view.visit.recommended === o.id}
              />
            ))}
          </div>
          <Rows a={a} grid={grid} units={units} currency={currency} />
          <Stands options={a.options} grid={grid} />
        </div>
      </div>
      <Costs a={a} {...chosen} />
    </div>
  );
}

export function Compare(): ReactElement {
  const { id, view } = useVisitContext();
  const [use, setUse] = useState<Use>("expected");
  const all = useComparison(id, use);
  const change = useChangeVisit(id);
  const [years, setYears] = useState(view.visit.horizon);
  const pick = (y: number): void => {
    setYears(y);
    change.mutate({ version: view.versions.visit ?? 1, horizon: y });
  };
  if (!view.assessment.raw)
    return (
      <div className="p-2">
        <h1>Compare</h1>
        <p className="text-l mt-2">There is nothing to compare before the raw water is tested.</p>
      </div>
    );
  return (
    <div className="absolute inset-0">
      <div
        className="fixed left-0 right-0 bottom-0 h-[64px] bg-ledge border-t border-rule"
        aria-hidden="true"
      >
        <div className="absolute inset-x-0 bottom-0 h-[7px] bg-face border-t-2 border-ink" />
      </div>
      {all.isPending && <Waiting what="Working out every option." />}
      <Trouble error={all.error} again={() => void all.refetch()} />
      {all.data && <Board a={all.data} years={years} setYears={pick} use={use} setUse={setUse} />}
      <div className="fixed right-8 bottom-[8px] z-20 flex gap-3">
        <Link
          className="key"
          style={{ background: "var(--ink)", color: "var(--paper)" }}
          to={`/visits/${id}/offer`}
        >
          Make the offer
        </Link>
      </div>
    </div>
  );
}
