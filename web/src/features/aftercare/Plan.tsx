/** When a job is done, by whom; and on which day it went into use. */
import { useState, type ReactElement } from "react";

import { money } from "../../app/show";
import { said, today } from "./dates";
import { useFitters, type Doing, type JobView } from "./hooks";
import { NAMES } from "./names";
import { spoken, say } from "../../app/language";
import { EndOrReopen } from "./Ended";

interface By {
  fitter: string;
  fitter_id: string | null;
}
const OUTSIDE = "outside";

/** A person of the firm, or somebody outside it by name. */
function WhoFits({ by, onBy }: { by: By; onBy: (by: By) => void }): ReactElement {
  const fitters = useFitters();
  const firm = fitters.data?.firm ?? [];
  const [outside, setOutside] = useState(by.fitter !== "" && by.fitter_id === null);
  const choose = (id: string): void => {
    setOutside(id === OUTSIDE);
    const name = firm.find((f) => f.id === id)?.name ?? "";
    onBy({ fitter: name, fitter_id: name === "" ? null : id });
  };
  return (
    <>
      <label className="field">
        <span>{say("Fitter")}</span>
        <select
          className="input"
          value={outside ? OUTSIDE : (by.fitter_id ?? "")}
          onChange={(e) => choose(e.target.value)}
        >
          <option value="">{say("nobody yet")}</option>
          {firm.map((f) => (
            <option key={f.id} value={f.id}>
              {f.name}
            </option>
          ))}
          <option value={OUTSIDE}>{say("somebody outside the firm")}</option>
        </select>
      </label>
      {outside && (
        <label className="field">
          <span>{say("Their name")}</span>
          <input
            className="input"
            required
            maxLength={120}
            list="outside-fitters"
            value={by.fitter}
            onChange={(e) => onBy({ fitter: e.target.value, fitter_id: null })}
          />
          <datalist id="outside-fitters">
            {(fitters.data?.outside ?? []).map((name) => (
              <option key={name} value={name} />
            ))}
          </datalist>
        </label>
      )}
    </>
  );
}

function PlanForm({ job, onDo }: { job: JobView; onDo: (d: Doing) => void }): ReactElement {
  const j = job.job;
  const [on, setOn] = useState(j.planned_on ?? "");
  const [at, setAt] = useState(j.planned_at);
  const [by, setBy] = useState<By>({ fitter: j.fitter, fitter_id: j.fitter_id || null });
  const [note, setNote] = useState(j.note);
  return (
    <form
      className="flex gap-3 items-end flex-wrap py-3"
      onSubmit={(e) => {
        e.preventDefault();
        const day = { planned_on: on || null, planned_at: at };
        onDo({ what: "plan", body: { version: job.version, ...day, ...by, note, anyway: false } });
      }}
    >
      <label className="field">
        <span>{say("Day")}</span>
        <input className="input" type="date" value={on} onChange={(e) => setOn(e.target.value)} />
      </label>
      <label className="field">
        <span>{say("Time")}</span>
        <input className="input" type="time" value={at} onChange={(e) => setAt(e.target.value)} />
      </label>
      <WhoFits by={by} onBy={setBy} />
      <label className="field flex-1 min-w-[200px]">
        <span>{say("Note for the fitter")}</span>
        <input className="input" value={note} onChange={(e) => setNote(e.target.value)} />
      </label>
      <button className="key">{say("Keep the plan")}</button>
    </form>
  );
}

function FittedForm({ job, onDo }: { job: JobView; onDo: (d: Doing) => void }): ReactElement {
  const [on, setOn] = useState(job.job.fitted_on ?? today());
  const [leftOut, setLeftOut] = useState("");
  const open = job.standing.steps - job.standing.steps_done;
  const put = (day: string | null): void =>
    onDo({ what: "fitted", body: { version: job.version, on: day, left_out: leftOut } });
  return (
    <form
      className="flex gap-3 items-end flex-wrap py-3"
      onSubmit={(e) => {
        e.preventDefault();
        put(on);
      }}
    >
      <label className="field">
        <span>{say("In use since")}</span>
        <input
          className="input"
          type="date"
          required
          max={today()}
          value={on}
          onChange={(e) => setOn(e.target.value)}
        />
      </label>
      {open > 0 && (
        <label className="field flex-1 min-w-[260px]">
          <span>{say("Why {open} steps were left out", { open })}</span>
          <input
            className="input"
            required
            maxLength={200}
            value={leftOut}
            onChange={(e) => setLeftOut(e.target.value)}
          />
        </label>
      )}
      <button className="key">
        {job.job.fitted_on === null ? say("It is fitted") : say("Put it right")}
      </button>
      {job.job.fitted_on !== null && (
        <button type="button" className="key bare" onClick={() => put(null)}>
          {say("Not fitted after all")}
        </button>
      )}
    </form>
  );
}

const HAD: Record<string, string> = spoken({
  buy: "paid to us",
  rental: "rented from us, its parts as the rent says",
  rent_to_own: "rented to own; its parts are theirs",
});
const FITS: Record<string, string> = spoken({
  firm: "fitted by us, in our price",
  licensed: "fitted by a licensed person, paid beside us",
  self: "fitted by the household",
});

/** Who pays for what, thing by thing, as it was sold; the amounts stand in what was signed. */
function Bought({ job }: { job: JobView }): ReactElement | null {
  const { bought } = job.job;
  if (bought.length === 0) return null;
  return (
    <>
      <h2 className="pt-4">{say("Who pays for what")}</h2>
      <ul>
        {bought.map((b) => (
          <li key={b.label} className="border-b border-rule py-2">
            <b>{b.label}</b>
            <span className="block text-m text-ink-2">
              {HAD[b.terms]}; {FITS[b.fitter]}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What the customer pays for it, and when, as it was signed. */
function Paid({ job }: { job: JobView }): ReactElement | null {
  if (job.payments.length === 0) return null;
  return (
    <>
      <h2 className="pt-4">{say("{customer} pays", { customer: job.customer })}</h2>
      <ul className="text-b">
        {job.payments.map((p) => (
          <li key={p.label}>
            {p.label}: <b>{money(p.amount, job.currency, true)}</b> {p.when}
          </li>
        ))}
      </ul>
    </>
  );
}

export function PlanView({ job, onDo }: { job: JobView; onDo: (d: Doing) => void }): ReactElement {
  const j = job.job;
  const fitting = j.sheets.filter((s) => s.purpose === "fit" || s.purpose === "disinfect");
  return (
    <section aria-label={say("Plan")}>
      <h1>
        {j.planned_on ? `${said(j.planned_on)} ${j.planned_at}` : say("No day yet")}
        {j.fitter && `, ${j.fitter}`}
      </h1>
      {job.phone && <p className="text-b">{say("Telephone: {phone}", { phone: job.phone })}</p>}
      <PlanForm key={job.version} job={job} onDo={onDo} />
      <h2 className="pt-2">{say("What is fitted")}</h2>
      <ul>
        {j.stages.map((s, n) => (
          <li key={n} className="border-b border-rule py-2">
            <b className="font-d text-l">{s.name}</b>{" "}
            <span className="text-ink-2 text-m">
              {s.scope === "tap" ? say("drinking tap") : say("whole house")}
            </span>
            <p className="text-b">
              {s.settings.length > 0
                ? s.settings.map(([k, v]) => `${k}: ${v}`).join(" · ")
                : say("Nothing is dialled.")}
            </p>
          </li>
        ))}
      </ul>
      <h2 className="pt-4">{say("Take along")}</h2>
      <p className="text-b">
        {[...new Set(fitting.flatMap((x) => x.tools))].join(", ") || say("Nothing but the item.")}
      </p>
      <Bought job={job} />
      <Paid job={job} />
      <h2 className="pt-4">{say("What it promises")}</h2>
      <p className="text-b">
        {j.promises
          .filter((x) => x.said !== "")
          .map((x) => (x.analyte === "ph" ? x.said : `${NAMES[x.analyte] ?? x.analyte} ${x.said}`))
          .join("; ") || say("Nothing that is measured.")}
        .
      </p>
      <h2 className="pt-4">{say("In use")}</h2>
      <FittedForm key={`f${job.version}`} job={job} onDo={onDo} />
      <EndOrReopen job={job} onDo={onDo} />
    </section>
  );
}
