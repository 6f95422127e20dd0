/** What a proposal says of money and of water to the drain. */
import { useState, type ReactElement } from "react";

import type { Offer, OfferedOption } from "../../api/types";
import { money, num, priceEvery, volume, sumOver } from "../../app/show";
import { atLeast, Missing } from "../../ui/Missing";
import { Seg } from "../../ui/fields";
import { CostChart, crossingWords, type Curve } from "../comparing/Cost";
import { CostStack, Tubs } from "../comparing/pictures";
import { say } from "../../app/language";

export function Waste({ o, offer }: { o: OfferedOption; offer: Offer }): ReactElement {
  const w = o.waste;
  return (
    <div>
      <h3>{o.letter || say("Today")}</h3>
      {w && w.total_gal_year > 0 ? (
        <>
          <p>
            <b>{say("{bathtubs} baths a year", { bathtubs: num(w.bathtubs) })}</b>,{" "}
            {volume(w.total_gal_year, offer.units)}
          </p>
          {w.per_gallon_tap !== null && w.tap_gal_year > 0 && (
            <p className="text-s text-ink-2">
              {say("drinking tap: {per_gallon_tap} times what is drunk goes to the drain", {
                per_gallon_tap: num(w.per_gallon_tap, 1),
              })}
            </p>
          )}
          {w.house_gal_year > 0 && (
            <p className="text-s text-ink-2">
              {say("house: {house_gal_year} a year, {largest_gal} at most at once{x}", {
                house_gal_year: volume(w.house_gal_year, offer.units),
                largest_gal: volume(w.largest_gal, offer.units),
                x: w.brine ? `, ${say("brine")}` : "",
              })}
            </p>
          )}
          {!w.priced && (
            <p className="text-s text-ink-2">{say("not priced: ask for the water bill")}</p>
          )}
          {Number(w.cost_year) > 0 && (
            <p className="text-s text-ink-2">
              {say("{cost_year} a year for water and sewer", {
                cost_year: money(w.cost_year, offer.currency),
              })}
            </p>
          )}
          <div className="mt-2">
            <Tubs
              gallons={Object.entries(w.by_kind).map(([kind, gal]) => ({ kind, gal }))}
              units={offer.units}
            />
          </div>
        </>
      ) : (
        <p>{w?.unknown ? say("not known") : say("nothing to drain")}</p>
      )}
    </div>
  );
}

export function Costs({ offer }: { offer: Offer }): ReactElement {
  const [years, setYears] = useState(offer.horizon);
  const curves: Curve[] = offer.options.flatMap((o) => {
    const c = o.costs.find((x) => x.years === years);
    return c
      ? [
          {
            id: o.id,
            letter: o.letter,
            name: o.name,
            monthly: c.monthly,
            cheaper: c.cheaper_than,
            recommended: o.id === offer.recommended,
            open: c.missing.length > 0,
          },
        ]
      : [];
  });
  const chosen = offer.options
    .find((o) => o.id === offer.recommended)
    ?.costs.find((c) => c.years === years);
  return (
    <div className="grid wide:grid-cols-2 gap-8">
      <div>
        <Seg
          label={say("Over how many years")}
          hideLabel
          value={years}
          choices={[5, 10, 15, 20].map((y) => ({ value: y, name: say("{y} years", { y }) }))}
          onChange={setYears}
        />
        <CostChart curves={curves} years={years} currency={offer.currency} />
        {crossingWords(curves).map((s) => (
          <p key={s} className="font-semibold">
            {s}
          </p>
        ))}
      </div>
      {chosen && (
        <div>
          <p>
            <span className="num text-[44px]">
              {atLeast(sumOver(chosen.total, offer.currency, years), chosen.missing)}
            </span>
            <Missing what={chosen.missing} />
            <br />
            {say("total cost over")} {years} {say("years, as recommended")}
          </p>
          <CostStack kinds={chosen.by_kind} shown={(n) => money(n, offer.currency)} />
          <table className="w-full text-m mt-3">
            <tbody>
              {chosen.lines.map((l, i) => (
                <tr key={i} className="border-b border-rule align-top">
                  <td className="py-1 pr-3">
                    {l.label}
                    <span className="block text-s text-ink-2">
                      {l.interval_months === null
                        ? l.why
                        : `${priceEvery(l.price, l.interval_months, offer.currency)}; ${l.why}`}
                    </span>
                  </td>
                  <td className="text-right font-semibold py-1">
                    {l.missing === "" ? money(l.total, offer.currency, true) : say("not priced")}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="text-m mt-2">
            {say("First year {first_year}; worst later year {worst_year}.", {
              first_year: money(chosen.first_year, offer.currency),
              worst_year: money(chosen.worst_year, offer.currency),
            })}
          </p>
        </div>
      )}
    </div>
  );
}

/** The price line by line: discount, sales tax by kind, deposit. */
export function ToPay({ offer }: { offer: Offer }): ReactElement | null {
  if (offer.price.length === 0) return null;
  return (
    <div className="mt-5 max-w-[560px]">
      <h3 className="mb-1">{say("What you pay")}</h3>
      <table className="w-full text-m">
        <tbody>
          {offer.price.map((l) => (
            <tr
              key={l.kind + l.label}
              className={`border-b border-rule ${l.kind === "total" ? "font-semibold" : ""}`}
            >
              <td className="py-1">{l.label}</td>
              <td className="py-1 text-right">{money(l.amount, offer.currency, true)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
