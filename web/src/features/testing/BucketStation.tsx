/** Flow by bucket and stopwatch: start and stop by touch or space, three runs. */
import { Undo2 } from "lucide-react";
import { useCallback, useEffect, useState, type ReactElement, type ReactNode } from "react";

import { useStrike } from "../../api/hooks";
import type { Instrument } from "../../api/types";
import { best, between, GAL_L, num } from "../../app/show";
import { Seg } from "../../ui/fields";
import { StateMark } from "../../ui/marks";
import { OpensWorking } from "../../ui/Slip";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { AtLedgeEnd, OnTheLedge } from "./OnTheLedge";
import { useNow } from "./timers";
import { useKeep } from "./useKeep";

export function BucketStation({ kit, next }: { kit: Instrument; next: ReactNode }): ReactElement {
  const { id, picked, view, units, readingsOf } = useVisitContext();
  const [gallons, setGallons] = useState(5);
  const [bore, setBore] = useState(true);
  const [runs, setRuns] = useState<number[]>([]);
  const [started, setStarted] = useState<number | null>(null);
  const [again, setAgain] = useState(false);
  const now = useNow(started !== null);
  const strike = useStrike(id);
  const { busy, error, save } = useKeep();
  const kept = [...(picked ? readingsOf(picked) : [])]
    .reverse()
    .find((r) => r.analyte === "flow" && !r.struck_at);
  const report = view.assessment.samples
    .find((s) => s.id === picked?.id)
    ?.readings.find((r) => r.id === kept?.id);
  const [pump, setPump] = useState<boolean | null>(null);
  const well = ["well_drilled", "well_dug", "spring"].includes(view.visit.home.source);
  const timing = kept === undefined || again;
  const press = useCallback(() => {
    if (started === null) setStarted(Date.now());
    else {
      const s = Math.max(0.1, Math.round((Date.now() - started) / 100) / 10);
      setRuns((r) => [...r, s]);
      setStarted(null);
    }
  }, [started]);
  useEffect(() => {
    const key = (e: KeyboardEvent): void => {
      const tag = (e.target as HTMLElement).tagName;
      if (
        (e.code === "Space" || e.key === " ") &&
        timing &&
        !["INPUT", "SELECT", "BUTTON"].includes(tag)
      ) {
        e.preventDefault();
        press();
      }
    };
    document.addEventListener("keydown", key);
    return () => document.removeEventListener("keydown", key);
  }, [press, timing]);
  if (!picked)
    return <p className="text-l">Draw a glass first: “Draw a glass”, at the bottom right.</p>;
  const keepIt = async (): Promise<void> => {
    await save(kit, {
      method: "bucket",
      volume_gal: gallons,
      seconds: runs,
      full_bore: bore,
      pump_running: well ? pump : null,
    });
    setRuns([]);
    setAgain(false);
  };
  const elapsed = started === null ? 0 : (now - started) / 1000;
  const level = started === null ? (runs.length ? 1 : 0.1) : Math.min(1, elapsed / 28);
  return (
    <>
      <OnTheLedge>
        <svg width="180" height="180" viewBox="0 0 120 120" role="img" aria-label="Bucket">
          <path
            d="M14,34H106L96,116H24Z"
            fill="var(--slip)"
            stroke="var(--ink)"
            strokeWidth="2.4"
            strokeLinejoin="round"
          />
          <path
            d={`M${16 + (1 - level) * 9},${40 + (1 - level) * 72}H${104 - (1 - level) * 9}L95,113H25Z`}
            fill="var(--water-2)"
          />
          <path d="M14,34C18,-4 102,-4 106,34" fill="none" stroke="var(--ink)" strokeWidth="2.4" />
        </svg>
      </OnTheLedge>
      <section
        aria-labelledby="flow-title"
        className="grid grid-cols-[200px_minmax(0,1fr)] gap-x-6 content-start"
      >
        <p className="text-m text-ink-2">
          At the point of entry, full bore, or with two outlets open: only then may the flow cap the
          table by bathrooms.
        </p>
        <div className="grid gap-4 justify-items-start">
          <h1 id="flow-title">Flow, by bucket and stopwatch</h1>
          {timing ? (
            <>
              <div className="flex gap-5 flex-wrap items-end">
                <Seg
                  label="Bucket"
                  value={gallons}
                  choices={
                    units === "us"
                      ? [1, 2, 3, 5].map((g) => ({ value: g, name: `${g} gal` }))
                      : [5, 10, 20].map((l) => ({ value: l / GAL_L, name: `${l} L` }))
                  }
                  onChange={setGallons}
                />
                <Seg
                  label="Taken"
                  value={bore}
                  choices={[
                    { value: true, name: "full bore" },
                    { value: false, name: "one tap" },
                  ]}
                  onChange={setBore}
                />
                {well && (
                  <Seg
                    label="The pump was"
                    value={pump}
                    choices={[
                      { value: true, name: "running" },
                      { value: false, name: "not running" },
                    ]}
                    onChange={setPump}
                  />
                )}
              </div>
              <button
                className="key go"
                style={{ minWidth: 260, minHeight: 84, fontSize: 26 }}
                onClick={press}
              >
                {started === null
                  ? runs.length
                    ? `Run ${runs.length + 1}: start`
                    : "Start"
                  : `${num(elapsed, 1)} s: full, stop`}
              </button>
              <p className="text-b">
                {runs.length === 0
                  ? "Three runs. The space bar starts and stops."
                  : runs.map((r, i) => (
                      <span key={i} className="mr-4">
                        <b>{num(r, 1)} s</b> is{" "}
                        {units === "us"
                          ? `${num((60 * gallons) / r, 1)} gpm`
                          : `${num((60 * gallons * GAL_L) / r, 0)} L/min`}
                      </span>
                    ))}
              </p>
              <div className="flex gap-2">
                <AtLedgeEnd>
                  <button
                    className="key go"
                    style={{ minHeight: 48 }}
                    disabled={
                      busy || runs.length === 0 || started !== null || (well && pump === null)
                    }
                    onClick={() => void keepIt()}
                  >
                    Keep {runs.length} run{runs.length === 1 ? "" : "s"}
                  </button>
                </AtLedgeEnd>
                {runs.length > 0 && (
                  <button className="key bare" onClick={() => setRuns(runs.slice(0, -1))}>
                    <Undo2 size={20} aria-hidden="true" />
                    Take back a run
                  </button>
                )}
              </div>
            </>
          ) : (
            <>
              {report?.value.range && (
                <div className="flex items-end gap-5">
                  <span className="num text-[72px] leading-[0.84]">
                    {best("flow", report.value, units)}
                  </span>
                  <OpensWorking working={report.working}>
                    {between("flow", report.value.range, units)}
                  </OpensWorking>
                </div>
              )}
              {report?.value.flags.map((f) => (
                <p key={f.id} className="flex gap-2 text-m">
                  <StateMark kind="no" size={16} />
                  {f.sentence}
                </p>
              ))}
              <div className="flex gap-2">
                {next}
                <button className="key" onClick={() => setAgain(true)}>
                  Time it again
                </button>
                <button
                  className="key bare"
                  onClick={() => strike.mutate({ reading: kept.id, because: "taken back" })}
                >
                  <Undo2 size={20} aria-hidden="true" />
                  Strike it
                </button>
              </div>
            </>
          )}
          <Trouble error={error ?? strike.error} />
        </div>
      </section>
    </>
  );
}
