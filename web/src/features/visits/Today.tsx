/** Today's visits: who, where, why, and where it was left. */
import { ChevronRight } from "lucide-react";
import { useState, type ReactElement } from "react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";

import { api, data } from "../../api/client";
import { useMe, useVisits } from "../../api/hooks";
import type { Saved, VisitSummary } from "../../api/types";
import { upload } from "../../api/upload";
import { Head, Ledge } from "../../app/Shell";
import { listed, SOURCE_NAMES } from "../../app/names";
import { DueToday } from "../aftercare/DueToday";
import { More } from "./More";
import { FileKey } from "../../ui/FileKey";
import { Trouble, Waiting } from "../../ui/Trouble";
import { clock, weekday, weekdayShort } from "../../app/when";
import { say } from "../../app/language";

function day(iso: string): string {
  return new Date(iso).toDateString();
}

function stateOf(v: VisitSummary): string {
  if (v.closed) return say("closed");
  if (!v.made) return neverMade(v) ? say("never made: close it, or move it") : say("planned");
  if (v.proposals > 0) return say("proposal written");
  if (v.options > 0)
    return say("{options} system{x} designed", { options: v.options, x: v.options > 1 ? "s" : "" });
  if (v.readings > 0) return say("{readings} readings", { readings: v.readings });
  return "new";
}

const neverMade = (v: VisitSummary): boolean =>
  !v.made &&
  !v.closed &&
  new Date(v.started_at).toDateString() !== new Date().toDateString() &&
  new Date(v.started_at) < new Date();

function VisitRow({ v, dated }: { v: VisitSummary; dated: boolean }): ReactElement {
  const at = new Date(v.started_at);
  const time = dated ? weekdayShort(at) : clock(at);
  return (
    <li className="border-b border-rule">
      <Link
        to={`/visits/${v.id}`}
        className={
          "grid grid-cols-[136px_1fr_1fr_170px_24px] max-[900px]:grid-cols-[90px_1fr_24px] " +
          "gap-x-5 items-center min-h-[76px] py-3 text-ink no-underline hover:bg-yuzu-pale px-2 " +
          "-mx-2"
        }
      >
        <span className="num text-[21px] font-d whitespace-nowrap">{time}</span>
        <span className="min-w-0">
          <b className="font-d text-l block">{v.customer}</b>
          <span className="text-m text-ink-2">
            {listed(v.home, v.place, SOURCE_NAMES[v.source] ?? v.source)}
          </span>
        </span>
        <span className="text-b max-[900px]:col-start-2">
          {v.complaints.length > 0 ? (
            `“${v.complaints[0]}”`
          ) : (
            <span className="text-ink-3">{say("no complaint")}</span>
          )}
          {v.complaints.length > 1 && (
            <span className="text-ink-3">
              {say(" and {x} more", { x: v.complaints.length - 1 })}
            </span>
          )}
        </span>
        <span
          className={
            "text-m max-[900px]:col-start-2 " +
            (neverMade(v) ? "text-zest-ink font-semibold" : "text-ink-2")
          }
        >
          {stateOf(v)}
        </span>
        <ChevronRight
          aria-hidden="true"
          className="max-[900px]:row-start-1 max-[900px]:col-start-3"
        />
      </Link>
    </li>
  );
}

/** A visit that comes as a file; a manager says whose settings and limits hold. */
function FromFile({ manager }: { manager: boolean }): ReactElement {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [rules, setRules] = useState(false);
  const bring = useMutation({
    mutationFn: (f: File) =>
      upload<Saved>(`/api/visits/import?rules=${rules ? "file" : "firm"}`, f, "application/json"),
    onSuccess: (s) => {
      void client.invalidateQueries({ queryKey: ["visits"] });
      void navigate(`/visits/${s.id}`);
    },
  });
  return (
    <div className="grid gap-2 justify-items-end">
      <div className="flex gap-3 items-center">
        {manager && (
          <label className="flex gap-2 items-center min-h-11 text-m">
            <input
              type="checkbox"
              className="w-5 h-5"
              checked={rules}
              onChange={(e) => setRules(e.target.checked)}
            />
            {say("let the file’s settings and limits hold")}
          </label>
        )}
        <FileKey
          label={say("Visit file")}
          accept=".json,application/json"
          words={say("Open a visit file")}
          busy={bring.isPending}
          onFile={(f) => bring.mutate(f)}
        />
      </div>
      <Trouble error={bring.error} />
    </div>
  );
}

/** The day's visits, and those around it. */
function Lists({ visits }: { visits: VisitSummary[] }): ReactElement {
  const now = new Date().toDateString();
  const mine = visits.filter((v) => day(v.started_at) === now);
  const others = visits.filter((v) => day(v.started_at) !== now).reverse();
  return (
    <>
      {mine.length === 0 && (
        <p className="py-6 text-l">
          {say(
            "No visit today. Start one: a name, the source of the water and one complaint are " +
              "enough to begin.",
          )}
        </p>
      )}
      <ul>
        {mine.map((v) => (
          <VisitRow key={v.id} v={v} dated={false} />
        ))}
      </ul>
      <DueToday />
      {others.length > 0 && (
        <>
          <h2 className="mt-4">{say("Around it")}</h2>
          <ul>
            {others.map((v) => (
              <VisitRow key={v.id} v={v} dated />
            ))}
          </ul>
        </>
      )}
    </>
  );
}

export function Today(): ReactElement {
  const visits = useVisits();
  const me = useMe();
  const client = useQueryClient();
  const navigate = useNavigate();
  const leave = useMutation({
    mutationFn: () => data(api.DELETE("/api/session")),
    onSettled: () => {
      client.clear();
      void navigate("/sign-in");
    },
  });
  return (
    <div className="screen" style={{ gridTemplateRows: "64px minmax(0,1fr) 98px" }}>
      <Head title={me.data?.firm ?? say("Today")} sub={me.data?.name}>
        <Link className="key bare" to="/due">
          {say("What is due")}
        </Link>
        <Link className="key bare" to="/homes">
          {say("Homes")}
        </Link>
        <More manager={me.data?.role === "manager"} onLeave={() => leave.mutate()} />
      </Head>
      <main className="scroll px-8 pb-8">
        <div className="max-w-[1080px] mx-auto grid gap-4 pt-4">
          <div className="flex items-end justify-between gap-4 flex-wrap">
            <h1>{say("Today, {x}", { x: weekday(new Date()) })}</h1>
            <FromFile manager={me.data?.role === "manager"} />
          </div>
          {visits.isPending && <Waiting what={say("Fetching the day’s visits.")} />}
          <Trouble error={visits.error} again={() => void visits.refetch()} />
          {visits.data && <Lists visits={visits.data} />}
        </div>
      </main>
      <Ledge
        end={
          <Link className="key go" style={{ minHeight: 48 }} to="/visits/new">
            {say("Start a visit")}
          </Link>
        }
      />
    </div>
  );
}
