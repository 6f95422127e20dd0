/**
 * Whether the line keeps its promise: predicted range against what was measured, with likely
 * causes.
 */
import { dayLong } from "../../app/when";
import { useState, type ReactElement } from "react";

import { useInstruments } from "../../api/hooks";
import { newId, listed } from "../../app/names";
import { StrikeKey } from "../../ui/StrikeKey";
import { said, today } from "./dates";
import type { Doing, FollowUp, JobView, Proved } from "./hooks";
import { Measure } from "./Measure";
import { NAMES, placeOf } from "./names";
import { ProvedBars, VERDICT } from "./ProvedBars";
import { spoken, say } from "../../app/language";

function Follow({
  job,
  p,
  onDo,
}: {
  job: JobView;
  p: Proved;
  onDo: (d: Doing) => void;
}): ReactElement {
  const [what, setWhat] = useState(p.causes[0]?.first ?? "");
  const [on, setOn] = useState(today());
  const open = job.job.follow_ups.find((f) => f.analyte === p.promise.analyte && f.closed === "");
  if (open) return <Close f={open} onDo={onDo} />;
  return (
    <form
      className="flex gap-3 items-end flex-wrap pt-2"
      onSubmit={(e) => {
        e.preventDefault();
        const body = { analyte: p.promise.analyte, what, on, closed: "" };
        onDo({ what: "follow", follow: newId(), body });
      }}
    >
      <label className="field flex-1 min-w-[220px]">
        <span>{say("What is tried first")}</span>
        <input className="input" required value={what} onChange={(e) => setWhat(e.target.value)} />
      </label>
      <label className="field">
        <span>{say("On")}</span>
        <input
          className="input"
          type="date"
          required
          value={on}
          onChange={(e) => setOn(e.target.value)}
        />
      </label>
      <button className="key">{say("Follow it up")}</button>
    </form>
  );
}

function Close({ f, onDo }: { f: FollowUp; onDo: (d: Doing) => void }): ReactElement {
  const [found, setFound] = useState("");
  const { id, ...kept } = f;
  return (
    <form
      className="flex gap-3 items-end flex-wrap pt-2"
      onSubmit={(e) => {
        e.preventDefault();
        onDo({ what: "follow", follow: id, body: { ...kept, closed: found } });
      }}
    >
      <p className="w-full text-b">
        <b>{say("Followed up, {on}:", { on: said(f.on) })}</b> {f.what}
      </p>
      <label className="field flex-1 min-w-[220px]">
        <span>{say("What was found")}</span>
        <input
          className="input"
          required
          value={found}
          onChange={(e) => setFound(e.target.value)}
        />
      </label>
      <button className="key">{say("Close it")}</button>
    </form>
  );
}

function ProvedRow({
  job,
  p,
  onDo,
}: {
  job: JobView;
  p: Proved;
  onDo: (d: Doing) => void;
}): ReactElement {
  return (
    <li className="border-b border-rule py-3">
      <div
        className={"grid grid-cols-[180px_1fr_170px] max-[900px]:grid-cols-1 gap-x-6 items-center"}
      >
        <p>
          <b className="font-d text-l block">{NAMES[p.promise.analyte] ?? p.promise.analyte}</b>
          <span className="text-m text-ink-2">
            {p.promise.where === "tap" ? say("at the drinking tap") : say("at the house’s taps")}
          </span>
        </p>
        <ProvedBars p={p} />
        <p className="text-m">
          <b className={`font-d text-l block ${p.verdict === "short" ? "text-zest-ink" : ""}`}>
            {VERDICT[p.verdict]}
          </b>
          {say("promised")} {p.promise.said || "nothing"}
          {say(", measured")} {p.said}
        </p>
      </div>
      {p.causes.length > 0 && (
        <ol
          className={
            "grid grid-cols-2 max-[900px]:grid-cols-1 gap-x-8 pt-2 list-decimal pl-5 text-m"
          }
        >
          {p.causes.map((c) => (
            <li key={c.id} className="py-0.5">
              <b>{c.cause}</b> {c.first}
            </li>
          ))}
        </ol>
      )}
      {p.verdict === "short" && <Follow job={job} p={p} onDo={onDo} />}
    </li>
  );
}

const WRONG = spoken(["Not flushed yet", "Wrong tap", "Mistyped", "Kit at fault"]);

type Row = JobView["job"]["proofs"][number] & { said: string };

function MadeRow({ row, onDo }: { row: Row; onDo: (d: Doing) => void }): ReactElement {
  const r = row.reading;
  return (
    <li className="flex gap-4 items-center border-b border-rule py-1 text-m">
      <span className={`flex-1 ${r.struck_at ? "line-through text-ink-2" : ""}`}>
        <b>{NAMES[r.analyte] ?? r.analyte}</b> {listed(row.said, placeOf(row))}
        {say(", by")} {r.instrument.name}, {dayLong(r.made_at)}
        {r.by ? `, ${r.by}` : ""}
      </span>
      {r.struck_at ? (
        <span className="text-zest-ink">
          {say("crossed out: {struck_because}", { struck_because: r.struck_because })}
        </span>
      ) : (
        <StrikeKey
          words={say("Take it back")}
          reasons={WRONG}
          busy={false}
          onStrike={(because) => onDo({ what: "strike", reading: r.id, because })}
        />
      )}
    </li>
  );
}

/** Every reading made behind the line, the latest first; one that went wrong is struck. */
function Made({ job, onDo }: { job: JobView; onDo: (d: Doing) => void }): ReactElement | null {
  const [open, setOpen] = useState(false);
  const rows = job.job.proofs
    .map((x, n) => ({ ...x, said: job.standing.values[n]?.words ?? "" }))
    .sort((a, b) => b.reading.made_at.localeCompare(a.reading.made_at));
  if (rows.length === 0) return null;
  return (
    <div className="py-2">
      <button className="key bare -ml-2" aria-expanded={open} onClick={() => setOpen(!open)}>
        {say("{x} behind it", {
          x: rows.length === 1 ? "The reading" : `All ${rows.length} readings`,
        })}
      </button>
      {open && (
        <ul>
          {rows.map((row) => (
            <MadeRow key={row.reading.id} row={row} onDo={onDo} />
          ))}
        </ul>
      )}
    </div>
  );
}

/** Whether a line keeps its promise, in a heading. */
function promiseOf(shorts: number, of: number): string {
  if (of === 0) return say("Nothing measured behind it yet");
  if (shorts === 0) return say("It keeps its promise so far");
  return shorts === 1
    ? say("1 of {of} falls short", { of })
    : say("{shorts} of {of} fall short", { shorts, of });
}

export function ProofView({ job, onDo }: { job: JobView; onDo: (d: Doing) => void }): ReactElement {
  const kits = useInstruments();
  const s = job.standing;
  const shorts = s.proved.filter((p) => p.verdict === "short").length;
  const title = promiseOf(shorts, s.proved.length);
  return (
    <section aria-label={say("Proof")}>
      <h1>{title}</h1>
      <p className="text-m text-ink-2">
        {say(
          "Pale: promised. Yellow: measured. Dotted: the water before. Bacteria: only a " +
            "laboratory’s result after the disinfection counts.",
        )}
      </p>
      {s.alarms.map((a) => (
        <div key={a.id} className="border-[1.5px] border-ink bg-yuzu-pale p-3 my-2 text-b">
          <b>{a.sentence}</b> {say("First:")} {a.try_first[0]}
        </div>
      ))}
      {!job.job.fitted_on ? (
        <p className="py-3 text-l">
          {say("The system is not installed yet. Its promises are checked then.")}
        </p>
      ) : (
        <Measure
          left={job.job.promises}
          kits={kits.data ?? []}
          fitted={job.job.fitted_on}
          onDo={onDo}
        />
      )}
      <ul>
        {s.proved.map((p) => (
          <ProvedRow key={p.promise.analyte + p.promise.where} job={job} p={p} onDo={onDo} />
        ))}
      </ul>
      <Made job={job} onDo={onDo} />
      {s.second && (
        <p className="py-3 text-m" data-second="">
          <b>{say("Second test from {on}:", { on: dayLong(s.second.on) })}</b>{" "}
          {s.second.promises
            .map((p) => `${NAMES[p.analyte] ?? p.analyte} (${placeOf(p)})`)
            .join("; ")}
          {say(". The same tests again, so that no system is judged by its first hours.")}
        </p>
      )}
      {s.unproved.length > 0 && (
        <p className="py-3 text-m">
          <b>{say("Still to measure:")}</b>{" "}
          {s.unproved
            .map((p) =>
              say("{x} (promised {x2}, {p})", {
                x: NAMES[p.analyte] ?? p.analyte,
                x2: p.said || "nothing",
                p: placeOf(p),
              }),
            )
            .join("; ")}
          .
        </p>
      )}
    </section>
  );
}
