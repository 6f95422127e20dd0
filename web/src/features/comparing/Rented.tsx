/** What an item comes to bought, rented, and rented to own; one touch takes it so. */
import type { ReactElement } from "react";

import { useEditOption, useRenting, type Comparison, type Renting } from "../../api/hooks";
import type { Option } from "../../api/types";
import { money, num, sumOver } from "../../app/show";
import { gone } from "../../ui/Stale";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { letterOf } from "./Columns";
import { spoken, say } from "../../app/language";

type Rentable = Renting["items"][number];
type Way = Rentable["ways"][number];
type Terms = Option["stages"][number]["terms"];

const NAMES: Record<Terms, string> = spoken({
  buy: "Bought",
  rental: "Rented",
  rent_to_own: "Rented to own",
});

/** What is paid when. */
function asked(w: Way, currency: string): string {
  if (w.terms === "buy") return say("{at_once} at once", { at_once: money(w.at_once, currency) });
  const once =
    Number(w.at_once) > 0
      ? say("{at_once} at once, ", { at_once: money(w.at_once, currency) })
      : "";
  const rent = say("{once}{per_month} a month", { once, per_month: money(w.per_month, currency) });
  if (w.terms === "rent_to_own")
    return say("{rent}, theirs after {months} payments", { rent, months: w.months });
  return say("{rent}, at least {months} months{x}", {
    rent,
    months: w.months,
    x: w.covers_parts ? ", parts and service in it" : "",
  });
}

/** The yearly rate of rent-to-own, and from when buying would have cost less. */
function beside(w: Way): string[] {
  const said = [];
  if (w.apr != null)
    said.push(
      say("{apr} % a year nominal, {apr_effective} % effective", {
        apr: num(Number(w.apr), 1),
        apr_effective: num(Number(w.apr_effective), 1),
      }),
    );
  if (w.no_rate)
    said.push(say("no yearly rate: {toLowerCase}", { toLowerCase: w.no_rate.toLowerCase() }));
  if (w.buying_cheaper_from != null)
    said.push(
      say("buying has cost less from month {buying_cheaper_from} on", {
        buying_cheaper_from: w.buying_cheaper_from,
      }),
    );
  return said;
}

function WayLine({
  w,
  years,
  currency,
  on,
  busy,
  onTake,
}: {
  w: Way;
  years: number;
  currency: string;
  on: boolean;
  busy: boolean;
  onTake: () => void;
}): ReactElement {
  return (
    <div className="grid grid-cols-[1fr_auto] gap-x-3 py-1 border-b border-rule items-start">
      <button
        role="radio"
        aria-checked={on}
        className="key bare text-left"
        style={{
          justifyContent: "flex-start",
          minHeight: 44,
          padding: "0 12px",
          justifySelf: "start",
          ...(on ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : {}),
        }}
        disabled={busy}
        onClick={onTake}
      >
        {NAMES[w.terms]}
      </button>
      <b className="num text-[17px] pt-2">{sumOver(w.total, currency, years)}</b>
      <span className="col-span-2 text-s text-ink-2">
        {[asked(w, currency), ...beside(w)].join("; ")}.
      </span>
    </div>
  );
}

interface Shown {
  option: string;
  letter: string;
  item: Rentable;
}

function shownOf(a: Comparison, renting: readonly Renting[]): Shown[] {
  return renting.flatMap((r) => {
    const letter = letterOf(a.options.findIndex((o) => o.id === r.option));
    return r.items.map((item) => ({ option: r.option, letter, item }));
  });
}

export function Rented({
  a,
  years,
  currency,
}: {
  a: Comparison;
  years: number;
  currency: string;
}): ReactElement | null {
  const { id, view } = useVisitContext();
  const change = useEditOption(id);
  const renting = useRenting(id, years);
  const shown = shownOf(a, renting.data ?? []);
  if (gone(renting)) return <Trouble error={renting.error} again={() => void renting.refetch()} />;
  if (shown.length === 0) return null;
  const take = (s: Shown, terms: Terms): void => {
    const option = view.visit.options.find((o) => o.id === s.option);
    if (!option) return;
    const edit = (o: Option): Option => ({
      ...o,
      stages: o.stages.map((c) => (c.item === s.item.code ? { ...c, terms } : c)),
    });
    change.mutate({ option, version: view.versions[option.id] ?? 1, edit });
  };
  return (
    <section className="mt-3" aria-labelledby="rented-title">
      <h3 id="rented-title" className="font-d font-[640] text-[17px]">
        {say("Bought or rented")}
      </h3>
      <p className="text-s text-ink-2">
        {say("The item alone over {years} years, with its salt, power, parts and service.", {
          years,
        })}
      </p>
      {shown.map((s) => (
        <div key={s.option + s.item.code} className="mt-1">
          <b className="text-m">
            {s.letter && `${s.letter}: `}
            {s.item.name}
          </b>
          <div
            role="radiogroup"
            aria-label={say("{name}: bought or rented", { name: s.item.name })}
          >
            {s.item.ways.map((w) => (
              <WayLine
                key={w.terms}
                w={w}
                years={years}
                currency={currency}
                on={s.item.chosen === w.terms}
                busy={change.isPending}
                onTake={() => take(s, w.terms)}
              />
            ))}
          </div>
        </div>
      ))}
      <Trouble error={change.error} />
    </section>
  );
}
