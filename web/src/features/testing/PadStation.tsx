/** A strip or comparator: its own pads to touch, on one or between two. */
import { Undo2 } from "lucide-react";
import { useState, type ReactElement, type ReactNode } from "react";

import { useStrike } from "../../api/hooks";
import type { Instrument } from "../../api/types";
import { best, between, num } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { StateMark } from "../../ui/marks";
import { OpensWorking } from "../../ui/Slip";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { OnTheLedge } from "./OnTheLedge";
import { clock, startTimer } from "./timers";
import { useKeep } from "./useKeep";

const PALE: [number, number, number] = [240, 236, 222];
const DEEP: Record<string, [number, number, number]> = {
  hardness: [150, 62, 120],
  iron: [190, 96, 40],
  hydrogen_sulfide: [92, 70, 44],
  ph: [46, 110, 150],
};

function colour(analyte: string, share: number): string {
  const d = DEEP[analyte] ?? [60, 120, 110];
  return `rgb(${PALE.map((p, i) => Math.round(p + ((d[i] ?? 0) - p) * share)).join(",")})`;
}

export function PadStation({ kit, next }: { kit: Instrument; next: ReactNode }): ReactElement {
  const { id, picked, view, units, lookOf, readingsOf } = useVisitContext();
  const [dilution, setDilution] = useState(1);
  const strike = useStrike(id);
  const { busy, error, save } = useKeep();
  if (!picked)
    return <p className="text-l">Draw a glass first: “Draw a glass”, at the bottom right.</p>;
  const kept = [...readingsOf(picked)]
    .reverse()
    .find((r) => r.analyte === kit.analyte && !r.struck_at && r.observation.method === "pad");
  const seen = kept?.observation.method === "pad" ? kept.observation : null;
  const report = view.assessment.samples
    .find((s) => s.id === picked.id)
    ?.readings.find((r) => r.id === kept?.id);
  const unit = (kit.unit || "mg/L").replace(" as CaCO3", "");
  // a strip is read in the unit of its own pads
  const own = kit.analyte !== "hardness" ? units : unit === "gpg" ? "us" : "metric";
  const pick = (pad: number, mid: boolean): void =>
    void save(kit, { method: "pad", pad, between: mid, dilution });
  return (
    <>
      <OnTheLedge>
        <Glass look={lookOf(picked)} h={252} label={picked.name} />
      </OnTheLedge>
      <section
        aria-labelledby="pad-title"
        className="grid grid-cols-[200px_minmax(0,1fr)] gap-x-6 gap-y-3 content-start"
      >
        <ul className="row-span-2">
          {[
            "Dip without moving it",
            "Wait its own seconds",
            "Touch the pad it matches, or the gap between two",
          ].map((s) => (
            <li key={s} className="flex gap-2 text-m leading-tight mb-[6px]">
              <StateMark kind={kept ? "done" : "miss"} size={16} />
              <span>{s}</span>
            </li>
          ))}
        </ul>
        <div>
          <h1 id="pad-title">{kit.name}</h1>
          <p className="text-ink-2">
            {picked.name}.
            {kit.wait_s != null && (
              <button
                className="key bare"
                style={{ minHeight: 44 }}
                onClick={() => startTimer(kit.name.toLowerCase(), kit.wait_s ?? 0, id)}
              >
                Start {clock(kit.wait_s * 1000)}
              </button>
            )}
          </p>
        </div>
        <div className="col-start-2 grid gap-4">
          <div
            className="flex items-stretch border-[1.5px] border-ink rounded-[10px] overflow-hidden w-full"
            role="group"
            aria-label="Pads"
          >
            {kit.steps.map((s, i) => {
              const on = seen?.pad === i && !seen.between;
              const mid = seen?.pad === i && seen.between;
              const share = i / Math.max(1, kit.steps.length - 1);
              return (
                <div key={s} className="contents">
                  <button
                    className="flex-1 min-w-[44px] h-[110px] grid content-end justify-items-center pb-2"
                    style={{
                      background: colour(kit.analyte, share),
                      outline: on ? "4px solid var(--yuzu)" : undefined,
                      outlineOffset: -4,
                    }}
                    aria-pressed={on}
                    aria-label={`${num(s, 2)} ${unit}`}
                    disabled={busy}
                    onClick={() => pick(i, false)}
                  >
                    <span className="num text-[19px] bg-[#FFFFFA] text-[#10302A] px-1 rounded">
                      {num(s, 2)}
                      <span className="block text-[13px] font-normal">{unit}</span>
                    </span>
                  </button>
                  {i + 1 < kit.steps.length && (
                    <button
                      className="w-[26px] h-[110px] bg-slip border-x border-rule grid place-items-center text-s"
                      style={mid ? { background: "var(--yuzu)" } : undefined}
                      aria-pressed={mid}
                      aria-label={`between ${num(s, 2)} and ${num(kit.steps[i + 1] ?? 0, 2)} ${unit}`}
                      disabled={busy}
                      onClick={() => pick(i, true)}
                    >
                      ·
                    </button>
                  )}
                </div>
              );
            })}
          </div>
          <label className="flex items-center gap-2 text-m">
            Diluted to
            <select
              className="input"
              style={{ width: 150, minHeight: 44 }}
              value={dilution}
              onChange={(e) => setDilution(Number(e.target.value))}
            >
              {[1, 2, 3, 4, 5, 10].map((d) => (
                <option key={d} value={d}>
                  {d === 1 ? "not diluted" : `1 in ${d}`}
                </option>
              ))}
            </select>
          </label>
          {kept && report && (
            <div className="flex items-end gap-5 flex-wrap">
              <span className="num text-[56px] leading-[0.84]">
                {best(kit.analyte, report.value, own)}
              </span>
              {own !== units && (
                <span className="text-b text-ink-2">{best(kit.analyte, report.value, units)}</span>
              )}
              {report.value.range && (
                <OpensWorking working={report.working}>
                  {between(kit.analyte, report.value.range, own)}
                </OpensWorking>
              )}
            </div>
          )}
          {report?.value.flags.map((f) => (
            <p key={f.id} className="flex gap-2 text-m">
              <StateMark kind="no" size={16} />
              {f.sentence}
            </p>
          ))}
          <div className="flex gap-2">
            {kept && next}
            {kept && (
              <button
                className="key bare"
                disabled={strike.isPending}
                onClick={() => strike.mutate({ reading: kept.id, because: "taken back" })}
              >
                <Undo2 size={20} aria-hidden="true" />
                Strike it
              </button>
            )}
          </div>
          <Trouble error={error ?? strike.error} />
        </div>
      </section>
    </>
  );
}
