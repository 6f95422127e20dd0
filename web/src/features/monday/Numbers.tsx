/** The numbers of a Monday: each with what it counts, the lines behind it, and a file of them. */
import { Download } from "lucide-react";
import type { ReactElement } from "react";
import { Link } from "react-router";

import { say, spoken } from "../../app/language";
import { money } from "../../app/show";
import { dayShort } from "../../app/when";
import { Fold } from "../../ui/Fold";
import { partOf, type Monday, type Part, type Row, type What } from "./hooks";

/** In the order in which they press. */
const NUMBERS: [What, string][] = spoken([
  ["bacteria", "homes with bacteria"],
  ["reports", "laboratory reports overdue"],
  ["questions", "questions by a link, not answered"],
  ["never_made", "visits planned and never made"],
  ["no_day", "jobs without a day"],
  ["expired", "proposals expired, nobody decided"],
  ["declined", "declined this month"],
  ["mended", "promises short at first, and mended"],
  ["rented", "things rented out"],
  ["owed", "payments due this month"],
  ["received", "payments received this month"],
  ["sold", "sold this month"],
  ["discounts", "discounts given this month"],
  ["decided", "decided this month"],
  ["today", "visits and jobs today"],
] as const);
const PRESSING = new Set<What>(["bacteria", "reports", "questions", "never_made", "no_day"]);
const MOST = 40;

const dated = (day: string | null): string => (day === null ? "" : dayShort(`${day}T12:00:00`));

function Line({ r }: { r: Row }): ReactElement {
  return (
    <li className="border-b border-rule">
      <Link
        to={r.path}
        className={
          "grid grid-cols-[1fr_auto] gap-3 items-center min-h-11 py-1 px-2 -mx-2 text-ink " +
          "no-underline hover:bg-yuzu-pale text-m"
        }
      >
        <span>
          <b>{r.whose}</b>
          {r.place !== "" && `, ${r.place}`}: {r.what}
          {r.person !== "" && <span className="text-ink-2"> · {r.person}</span>}
        </span>
        <span className="text-right num">
          {r.amount !== null && <b className="block">{money(r.amount, r.currency, true)}</b>}
          {dated(r.on)}
          {r.until !== null && say(" until {until}", { until: dated(r.until) })}
        </span>
      </Link>
    </li>
  );
}

function Behind({ part, words, day }: { part: Part; words: string; day: string }): ReactElement {
  const pressing = PRESSING.has(part.what) && part.many > 0;
  const query = day === "" ? "" : `?day=${day}`;
  return (
    <li className="border-b border-rule py-1 grid grid-cols-[64px_1fr_auto] items-start gap-x-3">
      <b
        className={
          "num font-d text-[28px] leading-[44px] text-right " + (pressing ? "text-zest-ink" : "")
        }
      >
        {part.many}
      </b>
      <div className="min-w-0">
        {part.many === 0 ? (
          <span className="flex items-center min-h-11 text-b text-ink-2">{words}</span>
        ) : (
          <Fold title={words}>
            <ul>
              {part.rows.slice(0, MOST).map((r, n) => (
                <Line key={`${r.path}${r.what}${n}`} r={r} />
              ))}
            </ul>
            {part.rows.length > MOST && (
              <p className="text-s">
                {say("{more} more are in the file.", { more: part.rows.length - MOST })}
              </p>
            )}
          </Fold>
        )}
      </div>
      <a
        className="grid place-items-center w-11 h-11 text-ink"
        href={`/api/monday/${part.what}.csv${query}`}
        download
        aria-label={say("{words}, as a CSV file", { words })}
        title={say("CSV file")}
      >
        <Download size={20} aria-hidden="true" />
      </a>
    </li>
  );
}

export function Numbers({ m, day }: { m: Monday; day: string }): ReactElement {
  const counted = NUMBERS.filter(([what]) => partOf(m, what).many > 0);
  const nothing = NUMBERS.filter(([what]) => partOf(m, what).many === 0);
  return (
    <ul>
      {[...counted, ...nothing].map(([what, words]) => (
        <Behind key={what} part={partOf(m, what)} words={words} day={day} />
      ))}
    </ul>
  );
}
