/** What is overdue or falls due within the week, and jobs of the day, for the page of the day. */
import { ChevronRight } from "lucide-react";
import type { ReactElement } from "react";
import { Link } from "react-router";

import { listed } from "../../app/names";
import { dayOf, fromToday, iso, today } from "./dates";
import { useDue, useJobs } from "./hooks";
import { byHome } from "./lists";
import { say } from "../../app/language";

const MOST = 3;

/** The last day of the week that is looked at. */
function inAWeek(): string {
  const d = dayOf(today());
  d.setDate(d.getDate() + 7);
  return iso(d);
}

interface Row {
  to: string;
  when: string;
  late: boolean;
  customer: string;
  where: string;
  what: string;
}

function useRows(): Row[] {
  const due = useDue(inAWeek());
  const jobs = useJobs();
  const fitting = (jobs.data ?? [])
    .filter((j) => j.state === "planned" && j.planned_on === today())
    .map((j) => ({
      to: `/jobs/${j.id}`,
      when: j.planned_at || "today",
      late: false,
      customer: j.customer,
      where: listed(j.home, j.place),
      what: say("To install: {line}", { line: j.line }),
    }));
  const parts = byHome(due.data?.lines ?? []).map((h) => ({
    to: `/jobs/${h.job}?part=care`,
    when: fromToday(h.lines[0]?.due_on ?? today()),
    late: h.lines.some((x) => x.state === "overdue"),
    customer: h.customer,
    where: listed(h.home, h.place),
    what: h.lines.map((x) => x.label).join(", "),
  }));
  return [...fitting, ...parts];
}

export function DueToday(): ReactElement | null {
  const rows = useRows();
  if (rows.length === 0) return null;
  const more = rows.length - MOST;
  return (
    <section aria-label={say("What is due")}>
      <h2 className="mt-4">{say("What is due")}</h2>
      <ul>
        {rows.slice(0, MOST).map((r) => (
          <li key={r.to} className="border-b border-rule">
            <Link
              to={r.to}
              className={
                "grid grid-cols-[136px_1fr_1fr_170px_24px] max-[900px]:grid-cols-[90px_1fr_24px] " +
                "gap-x-5 items-center min-h-[76px] py-3 text-ink no-underline " +
                "hover:bg-yuzu-pale px-2 -mx-2"
              }
            >
              <span
                className={
                  "num text-[19px] font-d whitespace-nowrap " + (r.late ? "text-zest-ink" : "")
                }
              >
                {r.when}
              </span>
              <span className="min-w-0">
                <b className="font-d text-l block">{r.customer}</b>
                <span className="text-m text-ink-2">{r.where}</span>
              </span>
              <span className="text-b col-span-2 max-[900px]:col-span-1 max-[900px]:col-start-2">
                {r.what}
              </span>
              <ChevronRight
                size={22}
                aria-hidden="true"
                className="max-[900px]:row-start-1 max-[900px]:col-start-3"
              />
            </Link>
          </li>
        ))}
      </ul>
      {more > 0 && (
        <Link className="key bare -ml-2 mt-1" to="/due">
          {more === 1 ? say("1 more is due") : say("{more} more are due", { more })}
        </Link>
      )}
    </section>
  );
}
