/** Monday morning: who is where, what was sold and is owed, what was forgotten. */
import { ChevronLeft, ChevronRight } from "lucide-react";
import type { ReactElement } from "react";
import { Link, useSearchParams } from "react-router";

import { say } from "../../app/language";
import { Head } from "../../app/Shell";
import { month, weekday } from "../../app/when";
import { Trouble, Waiting } from "../../ui/Trouble";
import { Board } from "./Board";
import { partOf, useMonday, type Monday } from "./hooks";
import { MonthMoney } from "./Money";
import { Numbers } from "./Numbers";
import { SignedShare } from "./SignedShare";

/** The first day of the month before or after one. */
const beside = (first: string, by: number): string => {
  const [year = 0, of = 1] = first.split("-").map(Number);
  return new Date(Date.UTC(year, of - 1 + by, 1)).toISOString().slice(0, 10);
};

function MonthKeys({ m, onDay }: { m: Monday; onDay: (day: string) => void }): ReactElement {
  const last = m.month >= m.today.slice(0, 8) + "01";
  return (
    <div className="flex items-center gap-1" role="group" aria-label={say("Month")}>
      <button
        className="grid place-items-center w-11 h-11"
        aria-label={say("The month before")}
        onClick={() => onDay(beside(m.month, -1))}
      >
        <ChevronLeft size={22} aria-hidden="true" />
      </button>
      <b className="font-d text-l min-w-[150px] text-center">{month(`${m.month}T12:00:00`)}</b>
      <button
        className="grid place-items-center w-11 h-11 disabled:opacity-30"
        aria-label={say("The month after")}
        disabled={last}
        onClick={() => onDay(beside(m.month, 1))}
      >
        <ChevronRight size={22} aria-hidden="true" />
      </button>
    </div>
  );
}

function Body({
  m,
  day,
  onDay,
}: {
  m: Monday;
  day: string;
  onDay: (d: string) => void;
}): ReactElement {
  return (
    <div className="max-w-[1180px] mx-auto pt-2">
      <div className="flex items-end justify-between gap-4 flex-wrap">
        <h1>{weekday(`${m.today}T12:00:00`)}</h1>
        <MonthKeys m={m} onDay={onDay} />
      </div>
      <div className="grid wide:grid-cols-2 gap-x-10 gap-y-6 pt-3">
        <div className="grid gap-6 content-start">
          <Board part={partOf(m, "today")} />
          <MonthMoney m={m} />
          <SignedShare m={m} />
        </div>
        <section aria-label={say("Behind each number")}>
          <h2>{say("What waits, and what was")}</h2>
          <Numbers m={m} day={day} />
        </section>
      </div>
    </div>
  );
}

export function MondayPage(): ReactElement {
  const [params, setParams] = useSearchParams();
  const day = params.get("day") ?? "";
  const monday = useMonday(day);
  return (
    <div className="screen plain">
      <Head title={say("Monday")} sub={say("for whoever runs the firm")}>
        <Link className="key bare" to="/due">
          {say("What is due")}
        </Link>
        <Link className="key bare" to="/track">
          {say("Track record")}
        </Link>
      </Head>
      <main className="scroll px-8 pb-12">
        {monday.isPending && <Waiting what={say("Counting.")} />}
        <Trouble error={monday.error} again={() => void monday.refetch()} />
        {monday.data && (
          <Body
            m={monday.data}
            day={day}
            onDay={(d) => setParams(d === "" ? {} : { day: d }, { replace: true })}
          />
        )}
      </main>
    </div>
  );
}
