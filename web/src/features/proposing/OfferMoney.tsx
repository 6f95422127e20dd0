/** What a proposal says of money and of water to the drain. */
import { useState, type ReactElement } from "react";

import type { Offer, OfferedOption } from "../../api/types";
import { money, num, priceEvery, volume, sumOver } from "../../app/show";
import { Seg } from "../../ui/fields";
import { CostChart, crossingWords, type Curve } from "../comparing/Cost";
import { CostStack, Tubs } from "../comparing/pictures";

export function Waste({ o, offer }: { o: OfferedOption; offer: Offer }): ReactElement {
  const w = o.waste;
  return (
    <div>
      <h3>{o.letter || "Today"}</h3>
      {w && w.total_gal_year > 0 ? (
        <>
          <p>
            <b>{num(w.bathtubs)} baths a year</b>, {volume(w.total_gal_year, offer.units)}
          </p>
          {w.per_gallon_tap !== null && w.tap_gal_year > 0 && (
            <p className="text-s text-ink-2">
              drinking tap: {num(w.per_gallon_tap, 1)} times what is drunk goes to the drain
            </p>
          )}
          {w.house_gal_year > 0 && (
            <p className="text-s text-ink-2">
              house: {volume(w.house_gal_year, offer.units)} a year,{" "}
              {volume(w.largest_gal, offer.units)} at most at once{w.brine ? ", brine" : ""}
            </p>
          )}
          {!w.priced && <p className="text-s text-ink-2">not priced: ask for the water bill</p>}
          {Number(w.cost_year) > 0 && (
            <p className="text-s text-ink-2">
              {money(w.cost_year, offer.currency)} a year for water and sewer
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
        <p>{w?.unknown ? "not known" : "nothing to drain"}</p>
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
          label="Over how many years"
          hideLabel
          value={years}
          choices={[5, 10, 15, 20].map((y) => ({ value: y, name: `${y} years` }))}
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
            <span className="num text-[44px]">{sumOver(chosen.total, offer.currency, years)}</span>
            <br />
            all in over {years} years, as recommended
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
                    {money(l.total, offer.currency, true)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="text-m mt-2">
            First year {money(chosen.first_year, offer.currency)}; worst later year{" "}
            {money(chosen.worst_year, offer.currency)}.
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
      <h3 className="mb-1">What is to be paid</h3>
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
