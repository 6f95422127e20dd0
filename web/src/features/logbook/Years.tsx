/**
 * A home over the years: readings as small charts on one time, what changed, every visit a touch
 * away.
 */
import type { ReactElement } from "react";
import { Link, useParams } from "react-router";

import { Counter, Head } from "../../app/Shell";
import { FeedKey } from "../aftercare/FeedKey";
import { listed, SOURCE_NAMES } from "../../app/names";
import { useUnits, type Units } from "../../app/units";
import { Trouble, Waiting } from "../../ui/Trouble";
import { said } from "../aftercare/dates";
import { Chart } from "./Chart";
import { spanOf } from "./scale";
import { ANALYTE_NAMES, SHOWN } from "../../app/facts.generated";
import { AddNote, NoteLine } from "./Notes";
import { OneHome } from "./OneHome";
import { Owner } from "./Owner";
import { People } from "./People";
import { useYears, type HomeNote, type HomeYears, type Series } from "./hooks";
import { say } from "../../app/language";

function Key(): ReactElement {
  const dot = (fill: string, word: string): ReactElement => (
    <span className="flex gap-2 items-center">
      <svg width="14" height="14" aria-hidden="true">
        <circle cx="7" cy="7" r="5" fill={fill} stroke="var(--ink)" strokeWidth="1.6" />
      </svg>
      {word}
    </span>
  );
  return (
    <p className="flex gap-5 flex-wrap text-m text-ink-2 py-2">
      {dot("var(--paper)", "raw")}
      {dot("var(--water-3)", say("the house’s taps"))}
      {dot("var(--yuzu)", say("the drinking tap"))}
      <span>{say("bar: range")}</span>
      <span>{say("shaded: winter")}</span>
      <span>{say("dotted: a change")}</span>
      <span>{say("ring on the axis: a note")}</span>
    </p>
  );
}

/** A series of one reading, in words. */
function onceSaid(s: Series, units: Units): string {
  const p = s.points[0];
  const shown = SHOWN[s.analyte]?.[units] ?? { factor: 1, unit: "", decimals: 1 };
  const value = p?.below
    ? say("under {decimals}", { decimals: (p.below * shown.factor).toFixed(shown.decimals) })
    : ((p?.range?.best ?? 0) * shown.factor).toFixed(shown.decimals);
  const unit = shown.unit === "" ? "" : ` ${shown.unit}`;
  const day = said((p?.at ?? "").slice(0, 10));
  return `${ANALYTE_NAMES[s.analyte] ?? s.analyte} ${value}${unit} (${day})`;
}

type Line = { at: string; note: HomeNote } | { at: string; event: HomeYears["events"][number] };

/** What changed and what was noted, the latest first. */
function linesOf(home: HomeYears): Line[] {
  const lines: Line[] = [
    ...home.events.map((event) => ({ at: event.at, event })),
    ...home.notes.map((note) => ({ at: note.on, note })),
  ];
  return lines.sort((a, b) => b.at.localeCompare(a.at));
}

function Changes({ home }: { home: HomeYears }): ReactElement {
  return (
    <section aria-label={say("What changed")}>
      <h2 className="pt-4">{say("What changed, and why")}</h2>
      <AddNote home={home.id} />
      {home.events.length === 0 && <p>{say("Nothing was fitted by this firm.")}</p>}
      <ul>
        {linesOf(home).map((l) =>
          "note" in l ? (
            <NoteLine key={l.note.id} home={home.id} note={l.note} />
          ) : (
            <li key={l.event.at + l.event.what} className="border-b border-rule">
              <Link
                to={`/jobs/${l.event.job}?part=care`}
                className={
                  "grid grid-cols-[120px_1fr] gap-4 min-h-11 items-center text-ink no-underline " +
                  "hover:bg-yuzu-pale"
                }
              >
                <span className="num text-m">{said(l.event.at)}</span>
                <span className="text-b">{l.event.what}</span>
              </Link>
            </li>
          ),
        )}
      </ul>
    </section>
  );
}

export function Years(): ReactElement {
  const { id = "" } = useParams();
  const years = useYears(id);
  const units = useUnits() ?? "us";
  const h = years.data;
  if (!h)
    return (
      <div className="p-8">
        {years.isPending ? (
          <Waiting what={say("Looking back.")} />
        ) : (
          <Trouble error={years.error} again={() => void years.refetch()} />
        )}
      </div>
    );
  const span = spanOf(h);
  const valued = h.series.filter((s) => s.points.some((p) => p.range));
  const drawn = valued.filter((s) => s.points.length > 1);
  const once = valued.filter((s) => s.points.length === 1);
  return (
    <div className="screen work">
      <Head title={h.customer} sub={listed(h.home, h.place)}>
        <FeedKey home={id} />
        <Link className="key bare" to="/homes">
          {say("Homes")}
        </Link>
      </Head>
      <main className="scroll px-8 pb-8">
        <div className="max-w-[1150px] mx-auto pt-2">
          <h1>{say("{home} over the years", { home: h.home })}</h1>
          <p className="text-m text-ink-2">
            {SOURCE_NAMES[h.source] ?? h.source};{" "}
            {h.visits.length === 1
              ? say("1 visit")
              : say("{length} visits", { length: h.visits.length })}
          </p>
          <OneHome home={h} />
          <People home={h} />
          <Owner home={h} />
          {drawn.length > 0 && <Key />}
          <div className="grid grid-cols-3 max-[900px]:grid-cols-2 gap-x-8 gap-y-4">
            {drawn.map((s) => (
              <Chart key={s.analyte} series={s} home={h} span={span} />
            ))}
          </div>
          {once.length > 0 && (
            <p className="text-m pt-3">
              <b>{say("Read once:")}</b> {once.map((s) => onceSaid(s, units)).join("; ")}.
            </p>
          )}
          <Changes home={h} />
        </div>
      </main>
      <Counter
        end={
          h.jobs[0] && (
            <Link
              className="key go"
              style={{ minHeight: 48 }}
              to={`/jobs/${h.jobs[0].id}?part=care`}
            >
              {say("Open its care")}
            </Link>
          )
        }
      >
        {h.visits.map(([v, at]) => (
          <Link key={v} className="key" to={`/visits/${v}`}>
            {said(at.slice(0, 10))}
          </Link>
        ))}
      </Counter>
    </div>
  );
}
