/** Water to the drain in a year: in baths, and by what sends it there. */
import type { ReactElement } from "react";

import type { ComparedOption } from "../../api/types";
import { money, each, num, volume } from "../../app/show";
import { Opens } from "../../ui/Slip";
import { Tubs } from "./pictures";
import { spoken, say } from "../../app/language";

type Wasted = NonNullable<ComparedOption["waste"]>;

const WASTE_WORDS: Record<string, string> = spoken({
  membrane: "membrane",
  regeneration: "regenerating resin",
  backwash: "backwash",
  distiller: "distiller",
});

const paidFor = (w: Wasted, currency: string): string => {
  if (!w.priced) return say("not priced: ask for the water bill");
  return Number(w.cost_year) > 0 ? money(w.cost_year, currency, true) : "nothing";
};

function WasteSlip({
  w,
  units,
  currency,
}: {
  w: Wasted;
  units: string;
  currency: string;
}): ReactElement {
  const parts = Object.entries(w.by_kind).map(([kind, gal]) => ({ kind, gal }));
  return (
    <div className="sum">
      {parts.map((p) => (
        <div key={p.kind} className="contents">
          <span>{WASTE_WORDS[p.kind] ?? p.kind}</span>
          <span className="v">{volume(p.gal, units)}</span>
          <span className="u" />
        </div>
      ))}
      {w.per_gallon_tap !== null && w.tap_gal_year > 0 && (
        <>
          <span>{say("a {units} at the drinking tap", { units: each(units) })}</span>
          <span className="v">
            {num(w.per_gallon_tap, 1)} {units === "us" ? "gal" : "L"}
          </span>
          <span className="u" />
        </>
      )}
      {w.per_gallon_house !== null && w.house_gal_year > 0 && (
        <>
          <span>{say("a {units} of the house’s use", { units: each(units) })}</span>
          <span className="v">
            {num(w.per_gallon_house, 2)} {units === "us" ? "gal" : "L"}
          </span>
          <span className="u" />
        </>
      )}
      <span>{say("largest at once")}</span>
      <span className="v">{volume(w.largest_gal, units)}</span>
      <span className="u" />
      <span>{say("in a week")}</span>
      <span className="v">{volume(w.week_gal, units)}</span>
      <span className="u" />
      <span>{say("share of the house’s use")}</span>
      <span className="v">
        {w.share_of_use === null ? say("not known") : `${num(w.share_of_use * 100, 1)} %`}
      </span>
      <span className="u" />
      <span>{say("brine")}</span>
      <span className="v">{w.brine ? "yes" : "no"}</span>
      <span className="u" />
      <span>{say("water and sewer paid for it")}</span>
      <span className="v">{paidFor(w, currency)}</span>
      <span className="u" />
    </div>
  );
}

export function Waste({
  o,
  units,
  currency,
}: {
  o: ComparedOption;
  units: string;
  currency: string;
}): ReactElement {
  const w = o.waste;
  if (!w || w.total_gal_year === 0)
    return <b className="text-b">{w?.unknown ? say("not known") : say("nothing to drain")}</b>;
  const parts = Object.entries(w.by_kind).map(([kind, gal]) => ({ kind, gal }));
  return (
    <div>
      <div className="flex justify-between gap-2 items-baseline">
        <b className="text-b">{say("{bathtubs} baths", { bathtubs: num(w.bathtubs) })}</b>
        <Opens
          title={say("Wastewater in a year")}
          className="text-s"
          slip={<WasteSlip w={w} units={units} currency={currency} />}
        >
          {volume(w.total_gal_year, units)}
        </Opens>
      </div>
      <div className="mt-2">
        <Tubs gallons={parts} units={units} />
      </div>
    </div>
  );
}
