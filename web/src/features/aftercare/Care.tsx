/** What falls due at one home: each part with its day, and a change that moves it. */
import { useState, type ReactElement } from "react";

import { GAUGED } from "../../app/technologies.generated";
import { newId } from "../../app/names";
import { NumberField } from "../../ui/fields";
import type { Doing, Falling, JobView } from "./hooks";
import { fromToday, said, today } from "./dates";
import { Equipment } from "./Equipment";
import { NAMES, placeOf } from "./names";
import { PartToken } from "./PartToken";
import { say } from "../../app/language";

/** What falls due first of a job, in a heading. */
function nextOf(job: JobView): string {
  const [first] = job.standing.due;
  const over = job.standing.due.filter((f) => f.state === "overdue").length;
  if (job.job.fitted_on === null) return say("Nothing falls due before it is fitted");
  if (over > 0) return say("{over} overdue", { over });
  if (!first) return say("Nothing falls due here");
  return say("Next: {label}, {next}", { label: first.part.label, next: fromToday(first.next) });
}

function every(months: number): string {
  if (months < 1.5)
    return say("about every {x} days", { x: Math.max(1, Math.round(months * 30.4375)) });
  if (months < 24) return say("about every {months} months", { months: Math.round(months) });
  return say("about every {x} years", { x: Math.round(months / 12) });
}

function Changed({
  f,
  onDo,
  onClose,
}: {
  f: Falling;
  onDo: (d: Doing) => void;
  onClose: () => void;
}): ReactElement {
  const [on, setOn] = useState(today());
  const [before, setBefore] = useState("");
  const [after, setAfter] = useState("");
  return (
    <form
      className="flex gap-3 items-end flex-wrap pb-3"
      onSubmit={(e) => {
        e.preventDefault();
        const body = { part: f.part.key, on, before, after, note: "" };
        onDo({ what: "change", change: newId(), body });
        onClose();
      }}
    >
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
      <label className="field flex-1 min-w-[160px]">
        <span>{say("Before: reading or state")}</span>
        <input className="input" value={before} onChange={(e) => setBefore(e.target.value)} />
      </label>
      <label className="field flex-1 min-w-[160px]">
        <span>{say("After")}</span>
        <input className="input" value={after} onChange={(e) => setAfter(e.target.value)} />
      </label>
      <button className="key">{say("Keep the change")}</button>
      <button type="button" className="key bare" onClick={onClose}>
        {say("Not now")}
      </button>
    </form>
  );
}

type Gauged = (typeof GAUGED)[string];

/** What is read at a part; nothing at most. */
function gaugedOf(job: JobView, f: Falling): Gauged | null {
  const said = GAUGED[f.part.kind];
  const stage = job.job.stages[Number(f.part.key.split(":")[0])];
  return said && stage && said.at.includes(stage.kind) ? said : null;
}

/** What is read at a lamp or a bed, and the last that was. */
function Read({
  f,
  gauged,
  onDo,
}: {
  f: Falling;
  gauged: Gauged;
  onDo: (d: Doing) => void;
}): ReactElement {
  const [on, setOn] = useState(today());
  const read = (value: number | null): void => {
    if (value === null) return;
    onDo({ what: "gauge", gauge: newId(), body: { part: f.part.key, on, value } });
  };
  return (
    <div className="flex gap-3 items-end flex-wrap pb-3 border-t border-rule pt-2">
      <label className="field">
        <span>{say("Read on")}</span>
        <input
          className="input"
          type="date"
          required
          max={today()}
          value={on}
          onChange={(e) => setOn(e.target.value)}
        />
      </label>
      <NumberField
        key={f.read?.id ?? ""}
        label={gauged.name}
        unit={gauged.unit}
        max={gauged.most}
        value={null}
        onCommit={read}
      />
      <ReadLast f={f} unit={gauged.unit} onDo={onDo} />
    </div>
  );
}

function ReadLast({
  f,
  unit,
  onDo,
}: {
  f: Falling;
  unit: string;
  onDo: (d: Doing) => void;
}): ReactElement | null {
  const r = f.read;
  if (!r) return null;
  return (
    <p className="text-m">
      {say("Read")} {said(r.on)}: <b>{`${r.value} ${unit}`}</b>, {r.by}.{" "}
      <button className="key bare" onClick={() => onDo({ what: "ungauge", gauge: r.id })}>
        {say("Take it back")}
      </button>
    </p>
  );
}

function PartRow({
  job,
  f,
  onDo,
  onSteps,
}: {
  job: JobView;
  f: Falling;
  onDo: (d: Doing) => void;
  onSteps: (sheet: string) => void;
}): ReactElement {
  const [open, setOpen] = useState(false);
  const last = job.job.changes.filter((c) => c.part === f.part.key).at(-1);
  const gauged = gaugedOf(job, f);
  const sheet = job.changed_by?.[f.part.key];
  return (
    <li className="border-b border-rule">
      <div
        className={
          "grid grid-cols-[30px_1fr_210px_250px] max-[900px]:grid-cols-[30px_1fr] gap-x-4 " +
          "items-center py-2 min-h-[64px]"
        }
      >
        <PartToken kind={f.part.kind} label={f.part.label} />
        <p className="min-w-0">
          <b className="font-d text-l block">{f.part.label}</b>
          <span className="text-m text-ink-2">
            {f.part.stage}; {every(f.part.months)}, {f.part.why}
            {f.part.own ? say("; by the household") : ""}
          </span>
        </p>
        <p className="text-m max-[900px]:col-start-2">
          <b className={`block ${f.state === "overdue" ? "text-zest-ink" : ""}`}>
            {fromToday(f.next)}
          </b>
          <span className="text-ink-2">
            {said(f.next)}
            {f.read && say(", as read")}
            {say("; last")} {last ? said(last.on) : say("at the fitting")}
          </span>
        </p>
        <p className="flex gap-2 justify-end max-[900px]:col-span-2">
          {sheet && (
            <button className="key bare" onClick={() => onSteps(sheet)}>
              {say("See the steps")}
            </button>
          )}
          <button className="key" aria-expanded={open} onClick={() => setOpen(!open)}>
            {gauged ? say("Changed or read") : say("Changed")}
          </button>
        </p>
      </div>
      {open && <Changed f={f} onDo={onDo} onClose={() => setOpen(false)} />}
      {open && gauged && <Read f={f} gauged={gauged} onDo={onDo} />}
    </li>
  );
}

type LastRead = JobView["standing"]["read"][number];

const share = (x: number): string => `${Math.round(x * 100)} %`;

function ReadRow({ r }: { r: LastRead }): ReactElement {
  return (
    <li className="flex gap-x-4 flex-wrap border-b border-rule py-1 text-m">
      <b className="w-[320px]">
        {NAMES[r.analyte] ?? r.analyte}, {placeOf(r)}
      </b>
      <span>
        <b>{r.said}</b>, {said(r.at.slice(0, 10))}
        {r.first_at &&
          say("; at first {first}, {x}", { first: r.first, x: said(r.first_at.slice(0, 10)) })}
        {r.held &&
          say("; holds back {x}, began with {x2}, ", {
            x: share(r.held[1]),
            x2: share(r.held[0]),
          }) + say("{x} is the least", { x: share(r.held[2]) })}
      </span>
    </li>
  );
}

/** What was read last behind the line, and how it drifted since the first time. */
function Readings({ job }: { job: JobView }): ReactElement | null {
  const { read, alarms } = job.standing;
  if (read.length === 0) return null;
  return (
    <section aria-label={say("Last read behind it")} className="pt-4">
      <h2>{say("Last read behind it")}</h2>
      {alarms.map((a) => (
        <p key={a.id} className="border-[1.5px] border-ink bg-yuzu-pale p-3 my-2 text-b">
          <b>{a.sentence}</b> {say("First:")} {a.try_first[0]}
        </p>
      ))}
      <ul>
        {read.map((r) => (
          <ReadRow key={r.analyte + r.where} r={r} />
        ))}
      </ul>
    </section>
  );
}

export function CareView({
  job,
  onDo,
  onSteps,
}: {
  job: JobView;
  onDo: (d: Doing) => void;
  onSteps: (sheet: string) => void;
}): ReactElement {
  const due = job.standing.due;
  const last = job.job.changes.at(-1);
  const label = job.job.parts.find((p) => p.key === last?.part)?.label;
  return (
    <section aria-label={say("Care")}>
      <h1>{nextOf(job)}</h1>
      {job.job.fitted_on && (
        <p className="text-m text-ink-2 pb-1">
          {say("In use since {fitted_on}.", { fitted_on: said(job.job.fitted_on) })}
        </p>
      )}
      {last && (
        <p className="text-m">
          {say("Last:")} {label}, {said(last.on)}, {last.by}
          {last.before && say("; before: {before}", { before: last.before })}
          {last.after && say("; after: {after}", { after: last.after })}.{" "}
          <button className="key bare" onClick={() => onDo({ what: "unchange", change: last.id })}>
            {say("Take it back")}
          </button>
        </p>
      )}
      <ul>
        {due.map((f) => (
          <PartRow key={f.part.key} job={job} f={f} onDo={onDo} onSteps={onSteps} />
        ))}
      </ul>
      <Readings job={job} />
      <Equipment job={job} onDo={onDo} />
    </section>
  );
}
