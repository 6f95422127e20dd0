/** Sections of a proposal as it is read, each from the snapshot alone. */
import { type ReactElement } from "react";

import { listed } from "../../app/names";
import type { Offer, OfferedOption } from "../../api/types";
import { money, num, often } from "../../app/show";
import { dayLong, dayShort } from "../../app/when";
import { Glass } from "../../glass/Glass";
import { look, type Look } from "../../glass/look";
import { Emergency } from "../../ui/Emergency";
import { StateMark } from "../../ui/marks";
import { Costs, ToPay } from "./OfferMoney";
import { say } from "../../app/language";

interface Of {
  offer: Offer;
}
interface Chosen {
  offer: Offer;
  chosen: OfferedOption | undefined;
}

export const rawOf = (o: Offer): Look => look(o.raw, { ferric: o.ferric_raw, scale: o.scale_60 });

export function OfferHead({ offer, chosen }: Chosen): ReactElement {
  return (
    <header className="grid wide:grid-cols-[1fr_auto] gap-6 items-end">
      <div>
        <p className="text-ink-2">
          {say("{firm} · proposal {number}, revision {revision} · {created_at}", {
            firm: offer.firm,
            number: offer.number,
            revision: offer.revision,
            created_at: dayLong(offer.created_at),
          })}
        </p>
        <h1 className="text-[40px] max-[700px]:text-[30px]">
          {offer.recommended === "today" && offer.nothing_needed
            ? say("Nothing needed")
            : chosen?.name}
        </h1>
        <p className="text-l">
          {say("For {name} ({source})", {
            name: listed(offer.customer.name, offer.home, offer.place),
            source: offer.source,
          })}
        </p>
      </div>
      <Glass look={rawOf(offer)} h={168} label={say("Your water today")} />
    </header>
  );
}

/** What concerns health, and what to do until the laboratory has answered: ahead of everything. */
export function HealthFirst({ offer }: Of): ReactElement | null {
  if (offer.health.length === 0) return null;
  return (
    <section aria-labelledby="health-first" className="border-[2.5px] border-zest bg-slip p-4">
      <h2 id="health-first">{say("Health first")}</h2>
      <Emergency said={offer.tonight} />
      <ul className="list-disc pl-6 text-l">
        {offer.health.map((t) => (
          <li key={t}>{t}</li>
        ))}
        {offer.tonight.slice(1).map((t) => (
          <li key={t}>
            <b>{t}</b>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The letter that a proposal begins with, signed by whoever wrote it. */
export function Letter({ offer }: Of): ReactElement {
  return (
    <section aria-label={say("Letter")} className="max-w-[720px]">
      {offer.reasons.split("\n\n").map((p, i) => (
        <p key={i} className="text-l mb-3">
          {p}
        </p>
      ))}
      <p className="text-l">{listed(offer.consultant, offer.firm)}</p>
    </section>
  );
}

export function Tonight({ offer }: Of): ReactElement | null {
  if (offer.tonight.length === 0 || offer.health.length > 0) return null;
  return (
    <section className="border-[2.5px] border-zest p-4">
      <h2>{say("Until the laboratory and the authority have answered")}</h2>
      <Emergency said={offer.tonight} />
      <ul className="list-disc pl-6">
        {offer.tonight.slice(1).map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ul>
    </section>
  );
}

/** What comes before anything is bought: what costs nothing, then what costs little. */
export function FirstSteps({ offer }: Of): ReactElement | null {
  if (offer.first.length === 0) return null;
  return (
    <section>
      <h2 className="mb-2">{say("First steps: they cost little or nothing")}</h2>
      <ul className="list-disc pl-6 max-w-[820px]">
        {offer.first.map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ul>
    </section>
  );
}

function PaymentPlan({ offer }: Of): ReactElement | null {
  const { plan } = offer;
  if (!plan) return null;
  const cents = (sum: string | number): string => money(sum, offer.currency, true);
  const each = cents(plan.monthly);
  return (
    <p className="mt-3">
      <b>{say("Payment plan:")}</b> {cents(plan.down)} {say("down, then")} {plan.months}{" "}
      {say("times")} {each}; {cents(plan.total_paid)} {say("paid in all,")} {plan.apr}{" "}
      {say("% a year nominal (APR)")}
      {plan.apr_effective != null &&
        say(", {apr_effective} % effective", { apr_effective: plan.apr_effective })}
      .
    </p>
  );
}

function Assumed({ offer }: Of): ReactElement | null {
  if (offer.assumptions.length === 0) return null;
  return (
    <div className="mt-3">
      <b>{say("Assumed:")}</b>
      <ul className="list-disc pl-6">
        {offer.assumptions.map((x) => (
          <li key={x.id}>
            {x.sentence} {x.on ? "" : say("(switched off)")}
          </li>
        ))}
      </ul>
    </div>
  );
}

export function AllItCosts({ offer }: Of): ReactElement {
  return (
    <section>
      <h2 className="mb-3">{say("Total cost")}</h2>
      <Costs offer={offer} />
      <ToPay offer={offer} />
      <PaymentPlan offer={offer} />
      <Assumed offer={offer} />
    </section>
  );
}

/** How often, in words: 3 times a year, yearly, every 2 years. */
export function YearsWork({ chosen }: { chosen: OfferedOption | undefined }): ReactElement | null {
  if (!chosen?.chores || chosen.chores.chores.length === 0) return null;
  return (
    <section>
      <h2 className="mb-2">{say("Upkeep in a year")}</h2>
      <ul className="text-m">
        {chosen.chores.chores.map((c) => (
          <li
            key={c.label}
            className="flex justify-between max-w-[620px] border-b border-rule py-1"
          >
            <span>
              {c.label}
              {c.own ? "" : say(" (the firm)")}
            </span>
            <span>
              {say("{times_year}, {minutes_year} min a year{x}", {
                times_year: often(c.times_year),
                minutes_year: num(c.minutes_year),
                x: c.bags ? `, ${say("{bags} bags", { bags: num(c.bags) })}` : "",
              })}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

export function PartsFrom({ offer }: Of): ReactElement | null {
  if (!offer.options.some((o) => o.stages.length > 0)) return null;
  return (
    <section>
      <h2 className="mb-2">{say("Parts")}</h2>
      <ul>
        {offer.options
          .filter((o) => o.stages.length > 0)
          .map((o) => (
            <li key={o.id}>
              <b>{o.letter}</b>{" "}
              {o.parts.length
                ? say("from one maker only: {x}", { x: o.parts.join(", ") })
                : say("common parts, sold by several makers")}
              .
            </li>
          ))}
      </ul>
    </section>
  );
}

export function OfferedReadings({ offer }: Of): ReactElement {
  return (
    <section>
      <h2 className="mb-2">{say("The readings")}</h2>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label={say("The readings")}>
        <table className="w-full text-m">
          <tbody>
            {offer.readings.map((r, i) => (
              <tr key={i} className="border-b border-rule">
                <td className="py-1">{r.analyte}</td>
                <td className="font-semibold">{r.shown}</td>
                <td className="text-ink-2">{r.span}</td>
                <td className="text-ink-2">{r.method}</td>
                <td className="text-ink-2">{r.sample}</td>
                <td className="text-ink-2 whitespace-nowrap">{dayShort(r.made_at)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

export function StaysUnknown({ offer, chosen }: Chosen): ReactElement {
  return (
    <section>
      <h2 className="mb-2">{say("Not tested")}</h2>
      <ul>
        {offer.unknown.map((u) => (
          <li key={u.analyte} className="flex gap-2">
            <StateMark kind="unk" size={18} />
            {u.name}: {u.test}
          </li>
        ))}
        {(chosen?.reasons?.unknown ?? [])
          .filter((x) => !x.includes("not tested"))
          .map((x) => (
            <li key={x} className="flex gap-2">
              <StateMark kind="unk" size={18} />
              {x}
            </li>
          ))}
        {offer.unknown.length === 0 && <li>{say("All that a visit looks for was tested.")}</li>}
      </ul>
    </section>
  );
}

export function WarrantyAndCancel({ offer, chosen }: Chosen): ReactElement {
  return (
    <section>
      <h2 className="mb-2">{say("Warranty and your right to cancel")}</h2>
      <ul className="list-disc pl-6">
        {(chosen?.warranty ?? []).map((w) => (
          <li key={w}>{w}</li>
        ))}
        <li>{offer.cancel_text}</li>
        <li>{offer.cooling_off}</li>
        <li>
          {say("Valid until {valid_until}.", {
            valid_until: dayLong(`${offer.valid_until}T12:00:00`),
          })}
        </li>
        {offer.priced_on && (
          <li>
            {say("Prices and taxes of {day}.", { day: dayLong(`${offer.priced_on}T12:00:00`) })}
          </li>
        )}
      </ul>
    </section>
  );
}
