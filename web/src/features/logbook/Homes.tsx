/**
 * All homes of the firm: found by part of a name, a house or a place; filters stay in the address.
 */
import { useState, type ReactElement } from "react";
import { Link, useSearchParams } from "react-router";

import { useMe } from "../../api/hooks";
import { Counter, Head } from "../../app/Shell";
import { ANALYTE_NAMES, IN_PLACE, KIND_NAMES } from "../../app/facts.generated";
import { listed, SOURCE_NAMES } from "../../app/names";
import { Trouble, Waiting } from "../../ui/Trouble";
import { fromToday } from "../aftercare/dates";
import { OldNotes } from "./OldNotes";
import { filtersOf, useHomes, type Asked, type HomeLine, type HomePage } from "./hooks";
import { dayShort } from "../../app/when";
import { spoken, say } from "../../app/language";

function Row({ h }: { h: HomeLine }): ReactElement {
  const last = h.last_at ? dayShort(h.last_at) : "never";
  return (
    <li className="border-b border-rule">
      <Link
        to={`/homes/${h.id}`}
        className={
          "grid grid-cols-[1fr_170px_190px_170px] max-[900px]:grid-cols-[1fr_auto] gap-x-5 " +
          "items-center min-h-[64px] py-2 text-ink no-underline hover:bg-yuzu-pale px-2 -mx-2"
        }
      >
        <span className="min-w-0">
          <b className="font-d text-l block">{h.customer}</b>
          <span className="text-m text-ink-2">{listed(h.home, h.place)}</span>
        </span>
        <span className="text-m text-ink-2">{SOURCE_NAMES[h.source] ?? h.source}</span>
        <span className="text-m max-[900px]:hidden">
          {h.visits === 1 ? say("1 visit") : say("{visits} visits", { visits: h.visits })}
          <span className="block text-ink-2">{say("last {last}", { last })}</span>
        </span>
        <span className="text-m max-[900px]:hidden">
          {h.due_on ? (
            <>
              {say("next due")}
              <b className={`block ${h.state === "overdue" ? "text-zest-ink" : ""}`}>
                {fromToday(h.due_on)}
              </b>
            </>
          ) : (
            <span className="text-ink-2">{say("nothing in care")}</span>
          )}
        </span>
      </Link>
    </li>
  );
}

const areasOf = (page: HomePage | undefined): string[] => [
  ...new Set((page?.homes ?? []).map((h) => h.place)),
];

/** How many homes there are, as far as they are counted. */
function titleOf(page: HomePage | undefined): string {
  if (!page) return say("Homes");
  if (page.total > 1000) return say("More than 1,000 homes");
  return page.total === 1 ? say("1 home") : say("{total} homes", { total: page.total });
}

/** Within how many days something falls due, in words. */
const DUE = spoken({
  "0": "today or overdue",
  "14": "within a fortnight",
  "60": "within two months",
});

/** Equipment of whoever sold it, by its name. */
const THERE = Object.fromEntries(Object.entries(IN_PLACE).map(([kind, x]) => [kind, x.name]));

function Choice({
  label,
  value,
  of,
  onPick,
}: {
  label: string;
  value: string;
  of: Record<string, string>;
  onPick: (v: string) => void;
}): ReactElement {
  return (
    <label className="field">
      <span>{label}</span>
      <select className="input w-full" value={value} onChange={(e) => onPick(e.target.value)}>
        <option value="">{say("any")}</option>
        {Object.entries(of).map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

function Filters({
  asked,
  areas,
  onSet,
}: {
  asked: Asked;
  areas: string[];
  onSet: (key: string, value: string) => void;
}): ReactElement {
  // what is typed stays here: the address follows it
  const [text, setText] = useState(asked.find);
  return (
    <div className="grid grid-cols-6 max-[900px]:grid-cols-2 gap-3 items-end py-3">
      <label className="field col-span-full">
        <span>{say("Find by name, house or place")}</span>
        <input
          className="input"
          type="search"
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            onSet("find", e.target.value);
          }}
        />
      </label>
      <label className="field">
        <span>{say("Area")}</span>
        <input
          className="input w-full"
          list="areas"
          defaultValue={asked.place}
          onChange={(e) => onSet("area", e.target.value)}
        />
        <datalist id="areas">
          {areas.map((p) => (
            <option key={p} value={p} />
          ))}
        </datalist>
      </label>
      <Choice
        label={say("Source")}
        value={asked.source}
        of={SOURCE_NAMES}
        onPick={(v) => onSet("source", v)}
      />
      <Choice
        label={say("We fitted")}
        value={asked.fitted}
        of={KIND_NAMES}
        onPick={(v) => onSet("fitted", v)}
      />
      <Choice label={say("Due")} value={asked.due} of={DUE} onPick={(v) => onSet("due", v)} />
      <Choice
        label={say("Found there")}
        value={asked.found}
        of={ANALYTE_NAMES}
        onPick={(v) => onSet("found", v)}
      />
      <Choice
        label={say("Stands there")}
        value={asked.there}
        of={THERE}
        onPick={(v) => onSet("there", v)}
      />
    </div>
  );
}

function useAsked(): [Asked, (key: string, value: string) => void] {
  const [params, setParams] = useSearchParams();
  const of = (key: string): string => params.get(key) ?? "";
  const asked = {
    find: of("find"),
    place: of("area"),
    source: of("source"),
    fitted: of("fitted"),
    due: of("due"),
    found: of("found"),
    there: of("there"),
    after: of("after"),
  };
  const set = (key: string, value: string): void =>
    setParams(
      (was) => {
        const now = new URLSearchParams(was);
        now.delete("after");
        if (value) now.set(key, value);
        else now.delete(key);
        return now;
      },
      { replace: key !== "after" },
    );
  return [asked, set];
}

export function Homes(): ReactElement {
  const me = useMe();
  const [asked, set] = useAsked();
  const homes = useHomes(asked);
  const page = homes.data;
  return (
    <div className="screen work">
      <Head title={me.data?.firm ?? say("Homes")} sub={me.data?.name}>
        <Link className="key bare" to="/">
          {say("Visits")}
        </Link>
        <Link className="key bare" to="/due">
          {say("What is due")}
        </Link>
      </Head>
      <main className="scroll px-8 pb-8">
        <div className="max-w-[1080px] mx-auto pt-4">
          <h1>{titleOf(page)}</h1>
          <Filters asked={asked} areas={areasOf(page)} onSet={set} />
          {homes.isPending && <Waiting what={say("Looking.")} />}
          <Trouble error={homes.error} again={() => void homes.refetch()} />
          <ul>
            {page?.homes.map((h) => (
              <Row key={h.id} h={h} />
            ))}
          </ul>
          {page?.homes.length === 0 && (
            <p className="py-6 text-l">
              {say("No home holds all of this. Take a word or a filter away.")}
            </p>
          )}
        </div>
      </main>
      <Counter
        end={
          page?.more ? (
            <button className="key" onClick={() => set("after", page.more)}>
              {say("The next ones")}
            </button>
          ) : undefined
        }
      >
        <Link className="key bare" to="/track">
          {say("What we have learnt")}
        </Link>
        <a
          className="key bare"
          download
          href={`/api/homes/table.csv?${new URLSearchParams(
            Object.entries(filtersOf(asked)).map(([k, v]) => [k, String(v)]),
          ).toString()}`}
        >
          {say("As a table")}
        </a>
        {me.data?.role === "manager" && <OldNotes />}
      </Counter>
    </div>
  );
}
