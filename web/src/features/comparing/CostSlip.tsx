/** All that an option costs, line by line. */
import type { ReactElement } from "react";

import type { Lifetime } from "../../api/types";
import { GAL_PER_M3 } from "../../app/facts.generated";
import { each, GAL_L, money, priceEvery, timesOf } from "../../app/show";
import { CostStack } from "./pictures";
import { atLeast } from "../../ui/Missing";
import { say } from "../../app/language";

interface Props {
  cost: Lifetime;
  currency: string;
  units: string;
}

/** What water costs, each gallon or litre drunk, each 1,000 gal or m³ of the house. */
function ForEach({ cost, currency, units }: Props): ReactElement {
  const us = units === "us";
  const house = Number(cost.per_gallon_house ?? 0) * (us ? 1000 : GAL_PER_M3);
  return (
    <>
      {cost.per_gallon_tap !== null && (
        <>
          <span>{say("a {units} drunk", { units: each(units) })}</span>
          <span className="v">
            {money(Number(cost.per_gallon_tap) / (us ? 1 : GAL_L), currency, true)}
          </span>
          <span className="u" />
        </>
      )}
      {house > 0 && (
        <>
          <span>{say("a {x} of the house", { x: us ? "1,000 gal" : "m³" })}</span>
          <span className="v">{money(house, currency, true)}</span>
          <span className="u" />
        </>
      )}
    </>
  );
}

/** When a cost falls due and why; what nobody can price says what would. */
function whenOf(l: Lifetime["lines"][number], currency: string): string {
  if (l.missing !== "") return l.why;
  if (l.interval_months === null) return `${money(l.price, currency, true)} ${l.why}`;
  const each = priceEvery(l.price, l.interval_months, currency);
  return `${each}, ${timesOf(l.times)}; ${l.why}`;
}

export function CostSlip({ cost, currency, units }: Props): ReactElement {
  return (
    <>
      <CostStack kinds={cost.by_kind} shown={(n) => money(n, currency)} />
      <table className="w-full text-m">
        <thead className="sr-only">
          <tr>
            <th>{say("What")}</th>
            <th>{say("Total")}</th>
          </tr>
        </thead>
        <tbody>
          {cost.lines.map((l, i) => (
            <tr key={i} className="border-b border-rule align-top">
              <td className="py-1 pr-2">
                {l.label}
                <span className="block text-s text-ink-2">{whenOf(l, currency)}</span>
              </td>
              <td className="py-1 text-right font-semibold whitespace-nowrap">
                {l.missing === "" ? money(l.total, currency, true) : say("not priced")}
              </td>
            </tr>
          ))}
          <tr>
            <td className="pt-2 font-semibold">
              {say("Total cost, {years} years", { years: cost.years })}
            </td>
            <td className="pt-2 text-right num text-[19px]">
              {atLeast(money(cost.total, currency, true), cost.missing)}
            </td>
          </tr>
        </tbody>
      </table>
      <div className="sum mt-2">
        <span>{say("the first year")}</span>
        <span className="v">{money(cost.first_year, currency, true)}</span>
        <span className="u" />
        <span>{say("the worst later year")}</span>
        <span className="v">{money(cost.worst_year, currency, true)}</span>
        <span className="u" />
        <ForEach cost={cost} currency={currency} units={units} />
      </div>
      <p className="text-s text-ink-2 mt-2">
        {say(
          "Each price falls due at its interval, grown by the firm’s yearly rate, rounded to " +
            "the cent; what is left at the end has no value.",
        )}
      </p>
    </>
  );
}
