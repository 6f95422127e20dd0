/**
 * One sheet of work: its steps along a peel, ticked with who and when; tools and caution beside.
 */
import { Check as CheckIcon, TriangleAlert } from "lucide-react";
import { useEffect, useState, type ReactElement, type ReactNode } from "react";

import { iso, said, today } from "./dates";
import type { Doing, JobView, Sheet } from "./hooks";
import { clock } from "../../app/when";
import { Pictures } from "../pictures/Pictures";
import { clock as countdown } from "../testing/timers";
import { say } from "../../app/language";

type Tick = JobView["job"]["ticks"][number];

export const tickOf = (job: JobView, sheet: string, step: number): Tick | undefined =>
  job.job.ticks.find((t) => t.sheet === sheet && t.step === step);

export const stepsDone = (job: JobView, s: Sheet): number =>
  s.steps.filter((_, n) => tickOf(job, s.key, n)).length;

/** The first step of a sheet that is neither done nor left out. */
export const nextStep = (job: JobView, s: Sheet): number =>
  s.steps.findIndex((_, n) => !tickOf(job, s.key, n));

function initials(name: string): string {
  return name
    .split(/\s+/)
    .map((w) => w[0] ?? "")
    .join("");
}

const waited = (minutes: number): string =>
  minutes >= 60 ? `${minutes / 60} h` : say("{minutes} min", { minutes });

/** A clock that runs down from minutes; it rings in words, not in sound. */
function Clock({ minutes }: { minutes: number }): ReactElement {
  const [end, setEnd] = useState<number | null>(null);
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    if (end === null) return undefined;
    const t = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(t);
  }, [end]);
  if (end === null)
    return (
      <button
        className="key"
        onClick={() => {
          setNow(Date.now());
          setEnd(Date.now() + minutes * 60_000);
        }}
      >
        {say("Start {minutes}", { minutes: waited(minutes) })}
      </button>
    );
  const left = Math.max(0, Math.round((end - now) / 1000));
  const shown = countdown(left * 1000);
  return (
    <span className="flex gap-3 items-center">
      <span className="num font-d text-[28px]" role="timer">
        {left > 0 ? shown : say("time is up")}
      </span>
      <button className="key bare" onClick={() => setEnd(null)}>
        {say("Stop")}
      </button>
    </span>
  );
}

/** When a step was ticked and by whom: the time, and the day unless it is today. */
function tickedAt(t: Tick): string {
  const at = new Date(t.at);
  const day = iso(at) === today() ? "" : `${said(iso(at))}, `;
  return `${day}${clock(at)} ${initials(t.by)}`;
}

function Mark({ n, tick, now }: { n: number; tick: Tick | undefined; now: boolean }): ReactElement {
  const open = now ? "var(--ink)" : "var(--paper)";
  const fill = tick ? "var(--leaf)" : open;
  return (
    <span
      className={
        "grid place-items-center w-8 h-8 rounded-full border-[1.5px] border-ink font-d " +
        "font-bold text-m z-10"
      }
      style={{ background: fill, color: tick || now ? "var(--paper)" : "var(--ink)" }}
      aria-hidden="true"
    >
      {tick ? <CheckIcon size={18} strokeWidth={3} /> : n + 1}
    </span>
  );
}

/** A step that is not done here, with the reason. */
function LeaveOut({ onKeep }: { onKeep: (why: string) => void }): ReactElement {
  const [open, setOpen] = useState(false);
  const [why, setWhy] = useState("");
  if (!open)
    return (
      <button className="key bare print:hidden" onClick={() => setOpen(true)}>
        {say("Leave it out")}
      </button>
    );
  return (
    <form
      className="flex gap-2 items-end"
      onSubmit={(e) => {
        e.preventDefault();
        onKeep(why);
      }}
    >
      <label className="field w-[200px]">
        <span>{say("Left out, because")}</span>
        <input
          className="input"
          required
          minLength={3}
          value={why}
          onChange={(e) => setWhy(e.target.value)}
        />
      </label>
      <button className="key">{say("Keep")}</button>
    </form>
  );
}

function StepRow({
  job,
  sheet,
  n,
  now,
  onDo,
}: {
  job: JobView;
  sheet: Sheet;
  n: number;
  now: boolean;
  onDo: (d: Doing) => void;
}): ReactElement | null {
  const step = sheet.steps[n];
  const tick = tickOf(job, sheet.key, n);
  if (!step) return null;
  const ticked = (done: boolean, why: string): void =>
    onDo({ what: "tick", body: { sheet: sheet.key, step: n, done, left_out: why } });
  return (
    <li className="grid grid-cols-[32px_1fr_auto] gap-4 items-center relative">
      <Mark n={n} tick={tick} now={now} />
      <button
        className={`step-key ${now ? "now" : ""} ${tick ? "text-ink-2" : ""}`}
        aria-pressed={tick !== undefined}
        onClick={() => ticked(!tick, "")}
      >
        {step.text}
        {tick?.left_out ? (
          <span className="block text-m text-zest-ink">
            {say("left out: {left_out}", { left_out: tick.left_out })}
          </span>
        ) : null}
      </button>
      <span className="flex gap-3 items-center text-m text-ink-2 num">
        {tick && tickedAt(tick)}
        {!tick && now && step.wait_min > 0 && <Clock minutes={step.wait_min} />}
        {(tick ?? now) && <Pictures visit={job.visit} about="step" of={`${sheet.key}/${n}`} />}
        {!tick && now && <LeaveOut onKeep={(why) => ticked(true, why)} />}
      </span>
    </li>
  );
}

/** What every sheet shows: what is taken along, the caution, its lines along a peel, its source. */
function SheetFrame({
  sheet,
  done,
  level = 1,
  children,
}: {
  sheet: Sheet;
  done: string;
  level?: 1 | 3;
  children: ReactNode;
}): ReactElement {
  return (
    <section aria-label={sheet.title}>
      {level === 1 ? <h1>{sheet.title}</h1> : <h3 className="text-[20px]">{sheet.title}</h3>}
      <p className="text-m text-ink-2 pb-2">
        {say("{done}Take along: {x}.", { done, x: sheet.tools.join(", ") })}
      </p>
      <p className="flex gap-3 items-start max-w-[640px] py-2 text-b">
        <TriangleAlert size={24} className="shrink-0 text-zest-ink" aria-hidden="true" />
        <span>{sheet.caution}</span>
      </p>
      <ol
        className={
          "relative before:absolute before:left-[15px] before:top-6 before:bottom-6 " +
          "before:w-[3px] before:bg-yuzu"
        }
      >
        {children}
      </ol>
      <p className="text-s text-ink-2 pt-3">
        {say(
          "General practice ({source}, {year}). The item’s own manual and local code come first.",
          { source: sheet.source, year: sheet.year },
        )}
      </p>
    </section>
  );
}

export function SheetView({
  job,
  sheet,
  onDo,
}: {
  job: JobView;
  sheet: Sheet;
  onDo: (d: Doing) => void;
}): ReactElement {
  const now = nextStep(job, sheet);
  return (
    <SheetFrame
      sheet={sheet}
      done={say("{job} of {length} done. ", {
        job: stepsDone(job, sheet),
        length: sheet.steps.length,
      })}
    >
      {sheet.steps.map((_, n) => (
        <StepRow key={n} job={job} sheet={sheet} n={n} now={n === now} onDo={onDo} />
      ))}
    </SheetFrame>
  );
}

/** A sheet before there is a job: read and printed, not ticked. */
export function PlainSheet({ sheet, level = 1 }: { sheet: Sheet; level?: 1 | 3 }): ReactElement {
  return (
    <SheetFrame sheet={sheet} done="" level={level}>
      {sheet.steps.map((step, n) => (
        <li key={n} className="grid grid-cols-[32px_1fr] gap-4 items-center relative py-2">
          <Mark n={n} tick={undefined} now={false} />
          <span className="text-l">
            {step.text}
            {step.wait_min > 0 && (
              <span className="text-m text-ink-2"> ({waited(step.wait_min)})</span>
            )}
          </span>
        </li>
      ))}
    </SheetFrame>
  );
}
