/** Before: the customer, the home, the complaint. Every field is saved when it is left. */
import { type ReactElement } from "react";
import { Link } from "react-router";

import { useChangeHome, useChangeVisit, type Told } from "../../api/hooks";
import { Trouble } from "../../ui/Trouble";
import { PersonalData } from "./PersonalData";
import { useVisitContext } from "../visit/context";
import { useAhead } from "../visit/useAhead";
import { Complaints } from "./Complaints";
import { HomeForm } from "./HomeForm";
import { PlanIt } from "./PlanIt";
import { VisitAgain } from "./VisitAgain";
import { weekdayAndYear } from "../../app/when";
import { say } from "../../app/language";

/** A record with those fields of another that differ from any of what was there before. */
function put<T extends object>(on: T, next: T, before: T[]): T {
  const names = Object.keys(next) as (keyof T)[];
  const differ = names.filter((n) => before.some((b) => b[n] !== next[n]));
  return { ...on, ...Object.fromEntries(differ.map((n) => [n, next[n]])) };
}

/** What is kept here with what was typed, be it typed now or still on its way. */
const changed = (on: Told, next: Told, before: Told[]): Told => ({
  customer: put(
    on.customer,
    next.customer,
    before.map((b) => b.customer),
  ),
  home: put(
    on.home,
    next.home,
    before.map((b) => b.home),
  ),
});

export function Before(): ReactElement {
  const { id, view } = useVisitContext();
  const change = useChangeVisit(id);
  const changeHome = useChangeHome(id);
  // what is being saved shows at once; the server's answer replaces it
  const ahead = useAhead<Told>(() => view.versions.home ?? 1);
  const stored = { customer: view.visit.customer, home: view.visit.home };
  const shown = ahead.value ?? stored;
  const save = (next: Told): void => {
    ahead.goes(next);
    changeHome
      .mutateAsync({
        version: view.versions.home ?? 1,
        ...stored,
        edit: (told) => changed(told, next, [stored, shown]),
      })
      .then((saved) => ahead.arrived(next, saved.version), ahead.failed);
  };
  const saving = changeHome.isPending || change.isPending;
  return (
    <div className="max-w-[980px] pr-4 pt-1 pb-8">
      <div className="flex items-baseline justify-between gap-4 mb-4">
        <h1>{say("Before the test")}</h1>
        <span role="status" className="text-s text-ink-2">
          {saving ? "saving" : say("every field is saved when you leave it")}
        </span>
      </div>
      <Trouble
        error={changeHome.error ?? change.error}
        {...(ahead.value && changeHome.isError ? { again: () => save(shown) } : {})}
      />
      <PlanIt />
      <Complaints
        list={view.visit.complaints}
        onChange={(complaints) => change.mutate({ version: view.versions.visit ?? 1, complaints })}
      />
      <HomeForm
        customer={shown.customer}
        home={shown.home}
        onCustomer={(customer) => save({ ...shown, customer })}
        onHome={(home) => save({ ...shown, home })}
      />
      <Link className="key go" to={`/visits/${id}/test`}>
        {say("Test the water")}
      </Link>
      <section className="mt-8" aria-label={say("Visits to this home")}>
        <h2 className="mb-1">{say("Visits to this home")}</h2>
        {view.others.length === 0 && (
          <p className="text-m text-ink-2 mb-2">
            {say(
              "This is the only one. At the next, today’s readings are held against the new ones.",
            )}
          </p>
        )}
        <ul className="mb-3">
          {view.others.map((o) => (
            <li key={o.id} className="border-b border-rule">
              <Link className="flex items-center min-h-12 text-ink" to={`/visits/${o.id}`}>
                {weekdayAndYear(o.started_at)}
              </Link>
            </li>
          ))}
        </ul>
        <VisitAgain visit={id} />
      </section>
      <PersonalData />
    </div>
  );
}
