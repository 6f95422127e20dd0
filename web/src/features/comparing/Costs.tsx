/** All that the options cost over the years, by use, with what is assumed. */
import type { ReactElement } from "react";

import { useChangeVisit, type Comparison, type Use } from "../../api/hooks";
import { sumOver } from "../../app/show";
import { atLeast, Missing } from "../../ui/Missing";
import { Opens } from "../../ui/Slip";
import { Trouble } from "../../ui/Trouble";
import { Seg } from "../../ui/fields";
import { useVisitContext } from "../visit/context";
import { letterOf } from "./Columns";
import { CostChart, crossingWords, type Curve } from "./Cost";
import { CostSlip } from "./CostSlip";
import { Legend } from "./Legend";
import { Rented } from "./Rented";
import { say } from "../../app/language";

export interface Chosen {
  years: number;
  setYears: (y: number) => void;
  use: Use;
  setUse: (u: Use) => void;
}

type Over = Comparison["over"][number]["options"];

const USES: { value: Use; name: string }[] = [
  { value: "low", name: "low" },
  { value: "expected", name: "expected" },
  { value: "high", name: "high" },
];
const YEARS = [5, 10, 15, 20].map((y) => ({ value: y, name: String(y) }));

function Choices({ years, setYears, use, setUse }: Chosen): ReactElement {
  return (
    <div className="flex flex-wrap justify-between gap-x-3">
      <div className="flex items-center justify-between gap-3 mb-1 wide:w-full">
        <h2>{say("Total cost over")}</h2>
        <Seg label={say("Years")} hideLabel value={years} choices={YEARS} onChange={setYears} />
      </div>
      <div className="flex items-center justify-between gap-3 mb-1 wide:w-full">
        <span className="text-m" aria-hidden="true">
          {say("Use of water")}
        </span>
        <Seg label={say("Use of water")} hideLabel value={use} choices={USES} onChange={setUse} />
      </div>
    </div>
  );
}

function Sums({
  a,
  over,
  years,
  currency,
}: {
  a: Comparison;
  over: Over;
  years: number;
  currency: string;
}): ReactElement {
  const { units } = useVisitContext();
  return (
    <div
      className="grid gap-x-3 gap-y-2 mt-1"
      style={{ gridTemplateColumns: "repeat(auto-fill, minmax(88px, 1fr))" }}
    >
      {a.options.map((o, i) => {
        const c = over[o.id];
        if (!c?.cost) return null;
        const name = letterOf(i) || say("Today");
        if (o.stops)
          return (
            <div key={o.id}>
              <span className="text-s text-ink-2">{name}</span>
              <br />
              <span className="text-s">{say("cannot work as it stands: not priced")}</span>
            </div>
          );
        return (
          <div key={o.id}>
            <span className="text-s text-ink-2">{name}</span>
            <br />
            <Opens
              title={say("{name}: all it costs", { name })}
              slip={<CostSlip cost={c.cost} currency={currency} units={units} />}
              className="font-d text-[19px]"
            >
              {atLeast(sumOver(c.cost.total, currency, years), c.cost.missing)}
            </Opens>
            <Missing what={c.cost.missing} />
            {c.use_band && c.use_band.low !== c.use_band.high && (
              <span className="block text-s text-ink-3 mt-1">
                {say("{low} to {high} by use", {
                  low: sumOver(c.use_band.low, currency, years),
                  high: sumOver(c.use_band.high, currency, years),
                })}
              </span>
            )}
          </div>
        );
      })}
    </div>
  );
}

function Assumed({ a }: { a: Comparison }): ReactElement {
  const { id, view } = useVisitContext();
  const change = useChangeVisit(id);
  const off = view.visit.assumptions_off;
  const turn = (x: { id: string; on: boolean }): void =>
    change.mutate({
      version: view.versions.visit ?? 1,
      assumptions_off: x.on ? [...off, x.id] : off.filter((y) => y !== x.id),
    });
  return (
    <>
      {a.assumptions.length > 0 && (
        <fieldset className="border-0 p-0 m-0 mt-3">
          <legend className="font-d font-[640] text-[17px]">{say("Assumed")}</legend>
          {a.assumptions.map((x) => (
            <label key={x.id} className="flex gap-3 items-center min-h-11 text-m">
              <input
                type="checkbox"
                className="w-6 h-6 accent-[var(--tick)]"
                checked={x.on}
                disabled={change.isPending}
                onChange={() => turn(x)}
              />
              {x.sentence}
            </label>
          ))}
        </fieldset>
      )}
      <Opens title={say("How this reads")} slip={<Legend />} className="text-m mt-3 inline-block">
        {say("What the signs mean")}
      </Opens>
      <Trouble error={change.error} />
    </>
  );
}

function curvesOf(a: Comparison, over: Over, recommended: string): Curve[] {
  return a.options.flatMap((o, i) => {
    const c = over[o.id];
    if (!c?.cost || o.stops) return [];
    return [
      {
        id: o.id,
        letter: letterOf(i),
        name: o.name,
        monthly: c.cost.monthly,
        cheaper: c.cheaper_than,
        recommended: recommended === o.id,
        band: c.use_band ?? null,
        open: c.cost.missing.length > 0,
      },
    ];
  });
}

export function Costs({ a, ...chosen }: { a: Comparison } & Chosen): ReactElement {
  const { view } = useVisitContext();
  const { years } = chosen;
  const currency = view.visit.settings.currency;
  const over = (a.over.find((x) => x.years === years) ?? a.over[0])?.options ?? {};
  const curves = curvesOf(a, over, view.visit.recommended ?? "");
  return (
    <div
      className={
        "min-h-0 max-wide:max-h-[384px] overflow-auto scroll pb-4 pt-2 mb-[72px] " +
        "max-wide:border-t-[1.5px] max-wide:border-ink"
      }
      tabIndex={0}
      role="group"
      aria-label={say("What it costs")}
    >
      <Choices {...chosen} />
      <div className="grid grid-cols-[380px_minmax(0,1fr)] gap-x-6 wide:block">
        <CostChart curves={curves} years={years} currency={currency} />
        <div>
          <Sums a={a} over={over} years={years} currency={currency} />
          {crossingWords(curves).map((s) => (
            <p key={s} className="font-semibold mt-2 leading-snug">
              {s}
            </p>
          ))}
          <Rented a={a} years={years} currency={currency} />
          <Assumed a={a} />
        </div>
      </div>
    </div>
  );
}
