/**
 * Whether the line keeps its promise: predicted range against what was measured, with likely
 * causes.
 */
import { dayLong } from "../../app/when";
import { useState, type ReactElement } from "react";

import { useInstruments } from "../../api/hooks";
import type { Instrument } from "../../api/types";
import { SHOWN } from "../../app/facts.generated";
import { newId } from "../../app/names";
import { NAMES } from "./names";
import { said, today } from "./dates";
import type { Doing, FollowUp, JobView, ProofBody, Proved } from "./hooks";

type Promise_ = JobView["job"]["promises"][number];
type Range = NonNullable<Promise_["predicted"]>;

const WORD: Record<Proved["verdict"], string> = {
  "as promised": "as promised",
  better: "better",
  short: "short",
  "laboratory only": "a laboratory decides",
  "not promised": "was not promised",
};

/** Both ranges on one scale from 0 to the largest end there is. */
function Bars({ p }: { p: Proved }): ReactElement | null {
  const promised = p.promise.predicted;
  const ends = [promised, p.measured, p.promise.before].flatMap((r) =>
    r ? [r.best, r.high ?? r.best] : [],
  );
  const top = Math.max(...ends, 1e-9) * 1.05;
  const at = (v: number): number => (v / top) * 300;
  const bar = (r: Range, y: number, fill: string): ReactElement => (
    <rect
      x={at(r.low)}
      y={y}
      width={Math.max(3, at(r.high ?? top) - at(r.low))}
      height="10"
      fill={fill}
      stroke="var(--ink)"
      strokeWidth="1.2"
    />
  );
  if (!promised || !p.measured) return null;
  const word = `promised ${p.promise.said}, measured ${p.said}`;
  return (
    <svg viewBox="-2 0 306 34" width="100%" role="img" aria-label={word}>
      <path d="M0,32H302" stroke="var(--ink)" strokeWidth="1.2" />
      {p.promise.before && (
        <path
          d={`M${at(p.promise.before.best)},4V32`}
          stroke="var(--ink-3)"
          strokeDasharray="2 3"
        />
      )}
      {bar(promised, 4, "var(--water-2)")}
      {bar(p.measured, 19, p.verdict === "short" ? "var(--zest)" : "var(--yuzu)")}
    </svg>
  );
}

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
        <span>What is tried first</span>
        <input className="input" required value={what} onChange={(e) => setWhat(e.target.value)} />
      </label>
      <label className="field">
        <span>On</span>
        <input
          className="input"
          type="date"
          required
          value={on}
          onChange={(e) => setOn(e.target.value)}
        />
      </label>
      <button className="key">Follow it up</button>
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
        <b>Followed up, {said(f.on)}:</b> {f.what}
      </p>
      <label className="field flex-1 min-w-[220px]">
        <span>What was found</span>
        <input
          className="input"
          required
          value={found}
          onChange={(e) => setFound(e.target.value)}
        />
      </label>
      <button className="key">Close it</button>
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
            {p.promise.where === "tap" ? "at the drinking tap" : "at the house’s taps"}
          </span>
        </p>
        <Bars p={p} />
        <p className="text-m">
          <b className={`font-d text-l block ${p.verdict === "short" ? "text-zest-ink" : ""}`}>
            {WORD[p.verdict]}
          </b>
          promised {p.promise.said || "nothing"}, measured {p.said}
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

function observed(kit: Instrument, value: number): ProofBody["reading"]["observation"] | null {
  switch (kit.kind) {
    case "meter":
      return {
        method: "meter",
        displays: [value],
        multiplier: 1,
        temperature_c: null,
        zero: null,
        rinsed: true,
        steady: true,
      };
    case "drops":
      return { method: "drops", drops: Math.round(value), dilution: 1 };
    case "display":
      return { method: "display", value, dilution: 1, blanked: true };
    default:
      return null;
  }
}

const ASKS: Record<string, string> = { meter: "On the display", drops: "Drops", display: "Shown" };

/** What is shown by a kit, with its unit. */
function askedOf(kit: Instrument | undefined, analyte: string): string {
  const words = ASKS[kit?.kind ?? ""] ?? "Shown";
  if (kit?.kind === "drops") return words;
  return `${words} [${kit?.unit || SHOWN[analyte]?.us?.unit || ""}]`;
}

function Pick({
  label,
  value,
  options,
  onPick,
}: {
  label: string;
  value: string;
  options: [string, string][];
  onPick: (value: string) => void;
}): ReactElement {
  return (
    <label className="field">
      <span>{label}</span>
      <select className="input" value={value} onChange={(e) => onPick(e.target.value)}>
        {options.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

const placeOf = (p: Promise_): string => (p.where === "tap" ? "drinking tap" : "house");

const LATER_DAYS = 3;
/** Whether a reading of today is behind the flush or one of the second test, days later. */
function phaseOn(fitted: string): ProofBody["phase"] {
  const days = (Date.now() - new Date(fitted).getTime()) / 86_400_000;
  return days >= LATER_DAYS ? "later" : "flushed";
}

/** A reading as it is kept: made now, with a kit, of what is promised. */
function readingOf(p: Promise_, kit: Instrument, value: string, fitted: string): ProofBody | null {
  const observation = value === "" ? null : observed(kit, Number(value));
  if (!observation) return null;
  const reading = {
    id: newId(),
    analyte: p.analyte,
    instrument: kit,
    observation,
    made_at: new Date().toISOString(),
  } as ProofBody["reading"];
  return { where: p.where, phase: phaseOn(fitted), reading };
}

function Measure({
  left,
  kits,
  fitted,
  onDo,
}: {
  left: Promise_[];
  kits: Instrument[];
  fitted: string;
  onDo: (d: Doing) => void;
}): ReactElement | null {
  const can = left.filter((p) => kits.some((k) => k.analyte === p.analyte));
  const [picked, setPicked] = useState(0);
  const [kitId, setKitId] = useState("");
  const [value, setValue] = useState("");
  const p = can[picked] ?? can[0];
  if (!p) return null;
  const fit = kits.filter((k) => k.analyte === p.analyte);
  const kit = fit.find((k) => k.id === kitId) ?? fit[0];
  const keep = (): void => {
    const body = kit ? readingOf(p, kit, value, fitted) : null;
    if (!body) return;
    onDo({ what: "proof", body });
    setValue("");
  };
  return (
    <form
      className="flex gap-3 items-end flex-wrap py-3"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <Pick
        label="Measured behind the line"
        value={String(picked)}
        options={can.map((x, n) => [String(n), `${NAMES[x.analyte] ?? x.analyte}, ${placeOf(x)}`])}
        onPick={(n) => {
          setPicked(Number(n));
          setKitId("");
        }}
      />
      <Pick
        label="With"
        value={kit?.id ?? ""}
        options={fit.map((k) => [k.id, k.name])}
        onPick={setKitId}
      />
      <label className="field w-[190px]">
        <span>{askedOf(kit, p.analyte)}</span>
        <input
          className="input"
          type="number"
          step="any"
          min={0}
          required
          value={value}
          onChange={(e) => setValue(e.target.value)}
        />
      </label>
      <button className="key">Keep the reading</button>
    </form>
  );
}

export function ProofView({ job, onDo }: { job: JobView; onDo: (d: Doing) => void }): ReactElement {
  const kits = useInstruments();
  const s = job.standing;
  const usable = (kits.data ?? []).filter((k) => k.kind in ASKS);
  const shorts = s.proved.filter((p) => p.verdict === "short").length;
  const title =
    shorts > 0
      ? `${shorts} of ${s.proved.length} ${shorts === 1 ? "falls" : "fall"} short`
      : s.proved.length === 0
        ? "Nothing measured behind it yet"
        : "It keeps its promise so far";
  return (
    <section aria-label="Proof">
      <h1>{title}</h1>
      <p className="text-m text-ink-2">
        Pale: promised. Yellow: measured. Dotted: the water before. Bacteria: only a laboratory’s
        result after the disinfection counts.
      </p>
      {s.alarms.map((a) => (
        <div key={a.id} className="border-[1.5px] border-ink bg-yuzu-pale p-3 my-2 text-b">
          <b>{a.sentence}</b> First: {a.try_first[0]}
        </div>
      ))}
      {!job.job.fitted_on ? (
        <p className="py-3 text-l">
          The line is not fitted yet. Its promises are held against it then.
        </p>
      ) : (
        <Measure left={job.job.promises} kits={usable} fitted={job.job.fitted_on} onDo={onDo} />
      )}
      <ul>
        {s.proved.map((p) => (
          <ProvedRow key={p.promise.analyte + p.promise.where} job={job} p={p} onDo={onDo} />
        ))}
      </ul>
      {s.second && (
        <p className="py-3 text-m" data-second="">
          <b>Second test from {dayLong(s.second.on)}:</b>{" "}
          {s.second.promises
            .map((p) => `${NAMES[p.analyte] ?? p.analyte} (${placeOf(p)})`)
            .join("; ")}
          . The same tests again, so that no line is judged by its first hours.
        </p>
      )}
      {s.unproved.length > 0 && (
        <p className="py-3 text-m">
          <b>Still to measure:</b>{" "}
          {s.unproved
            .map(
              (p) =>
                `${NAMES[p.analyte] ?? p.analyte} (promised ${p.said || "nothing"}, ${placeOf(p)})`,
            )
            .join("; ")}
          .
        </p>
      )}
    </section>
  );
}
