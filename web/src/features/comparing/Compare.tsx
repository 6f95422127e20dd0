/**
 * Compare: pictures first; each option's column stands on its glasses, everything above is about
 * it.
 */
import { useState, type ReactElement } from "react";
import { Link } from "react-router";

import { useChangeVisit, useComparison, type Comparison, type Use } from "../../api/hooks";
import { useNarrow } from "../../app/useNarrow";
import { Seg } from "../../ui/fields";
import { Trouble, Waiting } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { ColumnHead, letterOf, Stands } from "./Columns";
import { Costs, type Chosen } from "./Costs";
import { Rows } from "./Rows";
import { say } from "../../app/language";

/** Widths [px] of the names and of a column; from today and four options on both are narrower. */
const WIDE = { names: 148, column: 132 };
const TIGHT = { names: 132, column: 112 };
const PHONE = { names: 92, column: 96 };
const GAP = 12;

type Options = Comparison["options"];

/** On a phone one option stands beside today; this chooses which. */
function OneOf({
  options,
  value,
  onChange,
}: {
  options: Options;
  value: number;
  onChange: (i: number) => void;
}): ReactElement {
  return (
    <Seg
      label={say("Beside today")}
      value={value}
      choices={options.slice(1).map((_, n) => ({ value: n + 1, name: letterOf(n + 1) }))}
      onChange={onChange}
    />
  );
}

/** Options that are shown: all, or on a phone today and one. */
function useShown(a: Comparison, recommended: string | null): [Options, ReactElement | null] {
  const narrow = useNarrow();
  const first = a.options.findIndex((o) => o.id === recommended);
  const [at, setAt] = useState(Math.max(1, first));
  if (!narrow || a.options.length < 3) return [a.options, null];
  const i = Math.min(at, a.options.length - 1);
  const pair = a.options.filter((_, n) => n === 0 || n === i);
  return [pair, <OneOf key="one" options={a.options} value={i} onChange={setAt} />];
}

function Board({ a: all, ...chosen }: { a: Comparison } & Chosen): ReactElement {
  const { view, units } = useVisitContext();
  const [options, choice] = useShown(all, view.visit.recommended ?? null);
  const a = { ...all, options };
  const currency = view.visit.settings.currency;
  const sizes = options.length > 4 ? TIGHT : WIDE;
  const { names, column } = choice ? PHONE : sizes;
  const grid = {
    gridTemplateColumns: `${names}px repeat(${options.length}, minmax(${column}px, 1fr))`,
    columnGap: GAP,
  };
  return (
    <div
      className={
        "board scroll h-full grid grid-rows-[minmax(0,1fr)_auto] wide:grid-rows-1 " +
        "wide:grid-cols-[minmax(0,1fr)_400px] gap-x-8 min-h-0"
      }
    >
      <div className="min-h-0 h-full overflow-x-auto overflow-y-hidden scroll sideways">
        <div
          className="h-full flex flex-col relative"
          style={{ minWidth: names + options.length * (column + GAP) }}
        >
          {choice}
          <div className="grid py-2 border-b-[1.5px] border-ink" style={grid}>
            <span className="text-s text-ink-2 self-end">{say("found, today, after")}</span>
            {options.map((o) => (
              <ColumnHead
                key={o.id}
                o={o}
                i={all.options.indexOf(o)}
                currency={currency}
                recommended={view.visit.recommended === o.id}
              />
            ))}
          </div>
          <Rows a={a} grid={grid} units={units} currency={currency} />
          <Stands options={options} all={all.options} grid={grid} />
        </div>
      </div>
      <Costs a={all} {...chosen} />
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
        <h1>{say("Compare")}</h1>
        <p className="text-l mt-2">
          {say("There is nothing to compare before the raw water is tested.")}
        </p>
      </div>
    );
  return (
    <div className="absolute inset-0">
      <h1 className="sr-only">{say("Compare")}</h1>
      <div
        className="fixed left-0 right-0 bottom-0 h-[64px] bg-ledge border-t border-rule"
        aria-hidden="true"
      >
        <div className="absolute inset-x-0 bottom-0 h-[7px] bg-face border-t-2 border-ink" />
      </div>
      {all.isPending && <Waiting what={say("Working out every option.")} />}
      <Trouble error={all.error} again={() => void all.refetch()} />
      {all.data && <Board a={all.data} years={years} setYears={pick} use={use} setUse={setUse} />}
      <div className="fixed right-8 bottom-[8px] z-20 flex gap-3">
        <Link
          className="key"
          style={{ background: "var(--ink)", color: "var(--paper)" }}
          to={`/visits/${id}/offer`}
        >
          {say("Make the offer")}
        </Link>
      </div>
    </div>
  );
}
