/** How much bleach this home takes, worked out from what holds water in it. */
import { useState, type ReactElement } from "react";

import type { Doing, JobView, Plumbing } from "./hooks";
import { spoken, say } from "../../app/language";

const FIELDS: [keyof Plumbing, string, string][] = spoken([
  ["heater_gal", "Water heater", "gal"],
  ["tank_gal", "Pressure tank, drawn down", "gal"],
  ["pipe_ft", "Pipes, length", "ft"],
  ["pipe_in", "Pipes, inside", "in"],
  ["other_l", "Housings and chamber", "L"],
  ["well_ft", "Water standing in the well", "ft"],
  ["casing_in", "Well, inside", "in"],
  ["bleach_pct", "Bleach", "%"],
]);

const METHODS: [Plumbing["method"], string][] = spoken([
  ["code_24h", "50 mg/L for 24 hours (plumbing code)"],
  ["code_3h", "200 mg/L for 3 hours (plumbing code)"],
  ["c652_6h", "50 mg/L for 6 hours (AWWA C652, where code takes it)"],
]);

function Measure({
  job,
  onDo,
  onClose,
}: {
  job: JobView;
  onDo: (d: Doing) => void;
  onClose: () => void;
}): ReactElement {
  const [p, setP] = useState<Plumbing>(job.job.plumbing);
  return (
    <form
      className="grid grid-cols-2 gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        onDo({ what: "plumbing", body: { version: job.version, plumbing: p } });
        onClose();
      }}
    >
      {FIELDS.map(([key, label, unit]) => (
        <label key={key} className="field">
          <span>
            {label} [{unit}]
          </span>
          <input
            className="input"
            type="number"
            min={0}
            step="any"
            required
            value={String(p[key])}
            onChange={(e) => setP({ ...p, [key]: Number(e.target.value) })}
          />
        </label>
      ))}
      <label className="field col-span-2">
        <span>{say("Method, as local code takes it")}</span>
        <select
          className="input"
          value={p.method}
          onChange={(e) => setP({ ...p, method: e.target.value as Plumbing["method"] })}
        >
          {METHODS.map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <div className="col-span-2 flex gap-3">
        <button className="key">{say("Keep")}</button>
        <button type="button" className="key bare" onClick={onClose}>
          {say("Not now")}
        </button>
      </div>
    </form>
  );
}

export function Bleach({ job, onDo }: { job: JobView; onDo: (d: Doing) => void }): ReactElement {
  const [open, setOpen] = useState(false);
  const d = job.disinfection;
  const { bleach_pct: pct, assumed } = job.job.plumbing;
  return (
    <section
      aria-label={say("Bleach")}
      className="grid grid-cols-[auto_1fr] max-[700px]:grid-cols-1 gap-6 pt-4"
    >
      <p>
        <b className="num font-d text-[56px] leading-none">{Math.round(d.bleach_ml)}</b>
        <span className="text-[24px] text-ink-2"> {say("mL")}</span>
        <span className="block text-m text-ink-2 max-w-[220px]">
          {say("plain bleach,")} {pct} %{assumed && say("; nothing here was measured yet")}
        </span>
      </p>
      <div className="slip p-4 max-w-[440px] border-b-[1.5px] border-ink">
        <h2 className="text-h3">
          {say("Why {bleach_ml} mL?", { bleach_ml: Math.round(d.bleach_ml) })}
        </h2>
        {open ? (
          <Measure job={job} onDo={onDo} onClose={() => setOpen(false)} />
        ) : (
          <>
            <div className="sum">
              {d.amounts.map((a) => (
                <div key={a.name} className="contents">
                  <span>{a.name}</span>
                  <span className="v">{Math.round(a.litres)}</span>
                  <span className="u">L</span>
                </div>
              ))}
              <span className="tot">
                {say("{litres} × {dose_mg_l} mg/L ÷ (10 × {pct} %)", {
                  litres: Math.round(d.litres),
                  dose_mg_l: d.dose_mg_l,
                  pct,
                })}
              </span>
              <span className="v tot">{Math.round(d.bleach_ml)}</span>
              <span className="u tot">{say("mL")}</span>
            </div>
            <p className="text-s text-ink-2 mt-2">
              {d.method}. {d.source}
            </p>
            <button className="key bare mt-1 -ml-2" onClick={() => setOpen(true)}>
              {say("Measured otherwise")}
            </button>
          </>
        )}
      </div>
    </section>
  );
}
