/** What falls due: homes by area, overdue first; jobs that wait; what to load. */
import { useMemo, useState, type ReactElement, type ReactNode } from "react";
import { Link, useSearchParams } from "react-router";

import { listed } from "../../app/names";
import { useMe } from "../../api/hooks";
import { Counter, Head } from "../../app/Shell";
import { Trouble, Waiting } from "../../ui/Trouble";
import { fromToday, iso, dayOf, said } from "./dates";
import { useDue, useJobs, type DueLine, type JobLine } from "./hooks";
import { AlsoWaiting } from "./AlsoWaiting";
import { FeedKey } from "./FeedKey";
import {
  byDay,
  byHome,
  choices,
  inDrivingOrder,
  narrowed,
  toLoad,
  type AtHome,
  type Narrowed,
} from "./lists";
import { PartToken } from "./PartToken";
import { weekday } from "../../app/when";
import { spoken, say } from "../../app/language";

function dueAre(homes: number): string {
  if (homes === 0) return say("Nothing is due");
  return homes === 1 ? say("1 home is due") : say("{homes} homes are due", { homes });
}

function weekOf(day: string): string {
  const d = dayOf(day);
  d.setDate(d.getDate() - ((d.getDay() + 6) % 7));
  return iso(d);
}

function HomeDue({ at }: { at: AtHome }): ReactElement {
  return (
    <li className="border-b border-rule">
      <Link
        to={`/jobs/${at.job}?part=care`}
        className={
          "grid grid-cols-[1fr_auto] gap-4 items-center min-h-[64px] py-2 text-ink no-underline " +
          "hover:bg-yuzu-pale px-2 -mx-2"
        }
      >
        <span className="min-w-0">
          <b className="font-d text-l block">{at.customer}</b>
          {byDay(at.lines).map((x) => (
            <span key={x.key} className="block text-m text-ink-2">
              <span className={x.state === "overdue" ? "font-semibold text-zest-ink" : ""}>
                {fromToday(x.due_on)}:
              </span>{" "}
              {x.label}
              {x.own && say("; by the household")}
            </span>
          ))}
        </span>
        <span className="flex gap-1">
          {at.lines.slice(0, 5).map((x) => (
            <PartToken key={x.key} kind={x.kind} label={x.label} />
          ))}
        </span>
      </Link>
    </li>
  );
}

/** What waits for somebody, most pressing first. */
const ORDER = spoken(["short", "to plan", "planned"]);
const STATES: Record<string, string> = spoken({
  "to plan": "no day yet",
  planned: "planned",
  short: "short of its promise",
  fitted: "fitted, tests or steps to come",
  "in care": "others fitted it",
});

function JobRow({ j }: { j: JobLine }): ReactElement {
  const when = j.planned_on ? `${said(j.planned_on)} ${j.planned_at}`.trim() : "";
  return (
    <li className="border-b border-rule">
      <Link
        to={`/jobs/${j.id}${j.state === "short" ? "?part=proof" : ""}`}
        className={
          "grid grid-cols-[1fr_auto] gap-4 items-center min-h-[60px] py-2 text-ink no-underline " +
          "hover:bg-yuzu-pale px-2 -mx-2"
        }
      >
        <span className="min-w-0">
          <b className="font-d text-l block">{j.customer}</b>
          <span className="text-m text-ink-2">{listed(j.line, j.place)}</span>
        </span>
        <span className="text-right text-m">
          <b className={`block ${j.state === "short" ? "text-zest-ink" : ""}`}>
            {STATES[j.state] ?? j.state}
          </b>
          <span className="text-ink-2">
            {j.state === "planned" ? `${when}, ${j.fitter || say("no fitter yet")}` : ""}
            {j.steps_done > 0 &&
              j.steps_done < j.steps &&
              say(" {steps_done} of {steps} steps", { steps_done: j.steps_done, steps: j.steps })}
          </span>
        </span>
      </Link>
    </li>
  );
}

function Later({ lines }: { lines: DueLine[] }): ReactElement {
  const weeks = new Map<string, DueLine[]>();
  for (const x of lines) weeks.set(weekOf(x.due_on), [...(weeks.get(weekOf(x.due_on)) ?? []), x]);
  return (
    <>
      {[...weeks].map(([week, every]) => (
        <div key={week} className="grid grid-cols-[104px_1fr_auto] gap-3 items-end pt-3">
          <span className="text-m">
            <b className="font-d text-l block leading-tight">{said(week)}</b>
            <span className="text-ink-2">{say("that week")}</span>
          </span>
          <span className="flex gap-1 border-b-[1.5px] border-ink pb-0.5 min-h-[38px]">
            {every.slice(0, 9).map((x) => (
              <PartToken key={x.job + x.key} kind={x.kind} label={x.label} />
            ))}
          </span>
          <b className="text-m">
            {byHome(every)
              .map((h) => h.customer.split(" ")[0])
              .join(", ")}
          </b>
        </div>
      ))}
    </>
  );
}

const ASKED = spoken([
  ["area", "place", "All areas", "Area"],
  ["part", "label", "All parts", "Part"],
  ["person", "person", "Everybody", "Person"],
] as const);

/** Area, part and person: each narrows the list, all of them together, in the address. */
function Narrow({
  lines,
  to,
  onNarrow,
}: {
  lines: DueLine[];
  to: Narrowed;
  onNarrow: (to: Narrowed) => void;
}): ReactElement {
  return (
    <div className="flex gap-2 flex-wrap">
      {ASKED.map(([key, of, all, label]) => (
        <select
          key={key}
          className="input"
          style={{ minHeight: 46, width: 176 }}
          aria-label={label}
          value={to[key]}
          onChange={(e) => onNarrow({ ...to, [key]: e.target.value })}
        >
          <option value="">{all}</option>
          {choices(lines, of).map((x) => (
            <option key={x}>{x}</option>
          ))}
        </select>
      ))}
    </div>
  );
}

function Round({ lines, driven }: { lines: DueLine[]; driven: string[] }): ReactElement {
  const homes = byHome(lines);
  const places = inDrivingOrder([...new Set(homes.map((h) => h.place))], driven);
  if (homes.length === 0)
    return <p className="py-4 text-l">{say("Nothing is due in the next fortnight.")}</p>;
  return (
    <>
      {places.map((p) => (
        <div key={p}>
          <h2 className="text-m font-semibold text-ink-2 pt-3">{p || say("No area said")}</h2>
          <ul>
            {homes
              .filter((h) => h.place === p)
              .map((h) => (
                <HomeDue key={h.job} at={h} />
              ))}
          </ul>
        </div>
      ))}
    </>
  );
}

/** The days ahead that the list looks at. */
const AHEAD_DAYS = 365;

function ahead(): string {
  const d = new Date();
  d.setDate(d.getDate() + AHEAD_DAYS);
  return iso(d);
}

function Now({
  lines,
  driven,
  children,
}: {
  lines: DueLine[];
  driven: string[];
  children: ReactNode;
}): ReactElement {
  const homes = byHome(lines).length;
  return (
    <>
      <h1 className="pt-4">{dueAre(homes)}</h1>
      <p className="text-ink-2 text-l pb-2">
        {say("{x}, and the fortnight from here", { x: weekday(new Date()) })}
      </p>
      {children}
      <Round lines={lines} driven={driven} />
    </>
  );
}

function Jobs({ jobs }: { jobs: JobLine[] }): ReactElement {
  const [all, setAll] = useState(false);
  const waiting = ORDER.flatMap((state) => jobs.filter((j) => j.state === state));
  const untested = jobs.filter((j) => j.state === "fitted");
  return (
    <>
      <h2 className="pt-5">{say("Jobs that wait")}</h2>
      {waiting.length === 0 && <p className="py-2">{say("None.")}</p>}
      <ul>
        {[...waiting, ...(all ? untested : [])].map((j) => (
          <JobRow key={j.id} j={j} />
        ))}
      </ul>
      {untested.length > 0 && (
        <button className="key bare mt-1 -ml-2" aria-expanded={all} onClick={() => setAll(!all)}>
          {say("{length} fitted, with tests or steps to come", { length: untested.length })}
        </button>
      )}
    </>
  );
}

function Load({ lines }: { lines: DueLine[] }): ReactElement {
  const first = byHome(lines)[0];
  return (
    <Counter
      end={
        first && (
          <Link className="key go" style={{ minHeight: 48 }} to={`/jobs/${first.job}?part=care`}>
            {say("Open {x}", { x: first.customer.split(" ").at(-1) })}
          </Link>
        )
      }
    >
      <span className="text-m leading-tight shrink-0">
        <b className="block">{say("To load")}</b>
        {say("for what is due")}
      </span>
      {toLoad(lines).map((x) => (
        <span key={x.label} className="flex gap-2 items-center text-m shrink-0 leading-tight">
          <PartToken kind={x.kind} label={x.label} size={40} />
          <span className="max-w-[136px]">
            <b>{x.n}</b> {x.label}
          </span>
        </span>
      ))}
    </Counter>
  );
}

/** Lines by how soon they are wanted: now, and after the fortnight. */
function parted(lines: DueLine[]): [DueLine[], DueLine[]] {
  const soon = (x: DueLine): boolean => x.state === "overdue" || x.state === "due";
  return [lines.filter(soon), lines.filter((x) => !soon(x))];
}

function After({ later, more }: { later: DueLine[]; more: boolean }): ReactElement {
  return (
    <>
      {later.length > 0 && <h2 className="pt-6">{say("After the fortnight")}</h2>}
      <Later lines={later} />
      {more && (
        <p className="pt-3 text-m">
          {say("More falls due after {x}: it comes up as this is done.", {
            x: said(later.at(-1)?.due_on ?? iso(new Date())),
          })}
        </p>
      )}
    </>
  );
}

/** What the list is narrowed to, kept in the address. */
function useNarrowed(): [Narrowed, (to: Narrowed) => void] {
  const [params, setParams] = useSearchParams();
  const to = {
    area: params.get("area") ?? "",
    part: params.get("part") ?? "",
    person: params.get("person") ?? "",
  };
  const put = (next: Narrowed): void => {
    const asked = Object.entries(next).filter(([, v]) => v !== "");
    setParams(Object.fromEntries(asked), { replace: true });
  };
  return [to, put];
}

export function Due(): ReactElement {
  const me = useMe();
  const [to, setTo] = useNarrowed();
  const until = useMemo(ahead, []);
  const due = useDue(until);
  const jobs = useJobs();
  const every = due.data?.lines ?? [];
  const [now, later] = parted(narrowed(every, to));
  const here = (j: JobLine): boolean => to.area === "" || j.place === to.area;
  const all = to.area === "" && to.part === "" && to.person === "";
  return (
    <div className="screen work">
      <Head title={me.data?.firm ?? say("Due")} sub={me.data?.name}>
        <FeedKey />
        <Link className="key bare" to="/">
          {say("Visits")}
        </Link>
        <Link className="key bare" to="/homes">
          {say("Homes")}
        </Link>
      </Head>
      <main className="scroll px-8 pb-8">
        <div className="max-w-[1216px] mx-auto grid grid-cols-2 max-[900px]:grid-cols-1 gap-x-12">
          <section aria-label={say("Due now")}>
            {due.isPending && <Waiting what={say("Fetching what is due.")} />}
            <Trouble error={due.error} again={() => void due.refetch()} />
            {due.data && (
              <Now lines={now} driven={due.data.areas}>
                <Narrow lines={every} to={to} onNarrow={setTo} />
              </Now>
            )}
          </section>
          <section aria-label={say("Jobs and later")}>
            <Trouble error={jobs.error} again={() => void jobs.refetch()} />
            {jobs.data && <Jobs jobs={jobs.data.filter(here)} />}
            {all && <AlsoWaiting />}
            <After later={later} more={Boolean(due.data?.more)} />
          </section>
        </div>
      </main>
      <Load lines={now} />
    </div>
  );
}
