/** One number on a colorimeter, meter or gauge: blank, wait by a ring, type, keep. */
import { Undo2 } from "lucide-react";
import { useState, type ReactElement, type ReactNode } from "react";

import { api, data } from "../../api/client";
import { useStrike } from "../../api/hooks";
import type { Instrument } from "../../api/types";
import { best, between } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { StateMark } from "../../ui/marks";
import { OpensWorking } from "../../ui/Slip";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { PadForm } from "./Keypad";
import { OnTheLedge } from "./OnTheLedge";
import { clock, startTimer, useNow, useTimers } from "./timers";
import { useKeep } from "./useKeep";

const HOW: Record<string, { title: string; steps: string[]; caution?: string }> = {
  chlorine_free: {
    title: "Free chlorine",
    steps: ["Blank on this water", "Add the reagent, swirl", "Read within one minute"],
    caution: "Reagents: keep them off skin and eyes.",
  },
  chlorine_total: {
    title: "Total chlorine",
    steps: [
      "Within fifteen minutes of drawing",
      "Add the reagent, swirl",
      "Read after three minutes",
    ],
    caution: "Reagents: keep them off skin and eyes.",
  },
  iron: {
    title: "Iron, total",
    steps: ["Blank on this water", "Add the powder, swirl", "Read after its wait"],
    caution: "Reagents: keep them off skin and eyes.",
  },
  iron_ferrous: {
    title: "Iron, dissolved",
    steps: ["Filter the sample at once", "Blank, then the powder", "Read after its wait"],
    caution: "Reagents: keep them off skin and eyes.",
  },
  manganese: {
    title: "Manganese",
    steps: ["Blank on this water", "Add the reagent", "Read after its wait"],
    caution: "Reagents: keep them off skin and eyes.",
  },
  tannin: {
    title: "Tannin",
    steps: ["Blank on this water", "Add the reagent", "Read after 25 minutes"],
    caution: "Reagents: keep them off skin and eyes.",
  },
  ph: {
    title: "pH",
    steps: ["On site, never posted", "Rinse, stir gently", "Wait until it is steady"],
  },
  temperature: { title: "Temperature", steps: ["In running water", "Wait until it is steady"] },
  turbidity: {
    title: "Turbidity",
    steps: ["Wipe the vial dry", "Turn it over gently, no bubbles"],
  },
  pressure_static: { title: "Static pressure", steps: ["No tap open", "Gauge on a hose tap"] },
  pressure_running: {
    title: "Running pressure",
    steps: ["A tap open", "Read when it stands still"],
  },
};

const LIVE = new Set([
  "iron",
  "iron_ferrous",
  "manganese",
  "tannin",
  "chlorine_free",
  "chlorine_total",
  "turbidity",
]);

function WaitRing({
  kit,
  visit,
  label,
}: {
  kit: Instrument;
  visit: string;
  label: string;
}): ReactElement | null {
  const timers = useTimers(visit);
  const mine = timers.find((t) => t.label === label);
  const now = useNow(mine !== undefined);
  if (kit.wait_s == null) return null;
  const done = mine !== undefined && now >= mine.endsAt;
  return (
    <button
      type="button"
      className="key"
      style={done ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : undefined}
      onClick={() => startTimer(label, kit.wait_s ?? 0, visit)}
    >
      {mine === undefined
        ? `Reagent is in: start ${clock(kit.wait_s * 1000)}`
        : done
          ? "Read it now"
          : `${clock(mine.endsAt - now)} to wait`}
    </button>
  );
}

export function NumberStation({ kit, next }: { kit: Instrument; next: ReactNode }): ReactElement {
  const { id, picked, view, units, lookOf, readingsOf, valuesOf } = useVisitContext();
  const [text, setText] = useState("");
  const [again, setAgain] = useState(false);
  const [blanked, setBlanked] = useState(true);
  const [dilution, setDilution] = useState(1);
  const [reading, setReading] = useState(false);
  const [wrong, setWrong] = useState<unknown>(null);
  const strike = useStrike(id);
  const { busy, error, save } = useKeep();
  if (!picked)
    return <p className="text-l">Draw a glass first: “Draw a glass”, at the bottom right.</p>;
  const how = HOW[kit.analyte] ?? { title: kit.name, steps: ["Read as its manual says"] };
  const kept = [...readingsOf(picked)]
    .reverse()
    .find((r) => r.analyte === kit.analyte && !r.struck_at && r.observation.method === "display");
  const report = view.assessment.samples
    .find((s) => s.id === picked.id)
    ?.readings.find((r) => r.id === kept?.id);
  const value = report?.value;
  const unit =
    kit.unit ||
    ({
      ph: "",
      temperature: "°C",
      turbidity: "NTU",
      pressure_static: "psi",
      pressure_running: "psi",
    }[kit.analyte] ??
      "mg/L");
  const combined = kit.analyte.startsWith("chlorine")
    ? valuesOf(picked).chlorine_combined
    : undefined;
  const add = async (): Promise<void> => {
    const n = Number(text);
    if (text === "" || text === "." || !Number.isFinite(n)) return;
    setText("");
    setAgain(false);
    await save(kit, { method: "display", value: n, dilution, blanked });
    setDilution(1);
  };
  const typing = kept === undefined || again;
  const live = async (): Promise<void> => {
    setReading(true);
    try {
      const shown = await data(
        api.GET("/api/visits/{id}/standins/colorimeter/{sample_id}/{analyte}", {
          params: {
            path: { id, sample_id: picked.id, analyte: kit.analyte },
            query: { turn: picked.readings.length },
          },
        }),
      );
      setText(String(shown.value));
    } catch (e) {
      setWrong(e);
    } finally {
      setReading(false);
    }
  };
  return (
    <>
      <OnTheLedge>
        <Glass look={lookOf(picked)} h={252} label={picked.name} />
      </OnTheLedge>
      <section
        aria-labelledby="number-title"
        className="grid grid-cols-[200px_minmax(0,1fr)] gap-x-6 gap-y-3 content-start"
      >
        <ul className="row-span-2">
          {how.steps.map((s) => (
            <li key={s} className="flex gap-2 text-m leading-tight mb-[6px]">
              <StateMark kind={kept ? "done" : "miss"} size={16} />
              <span>{s}</span>
            </li>
          ))}
          {how.caution !== undefined && <li className="text-s text-ink-2 mt-2">{how.caution}</li>}
        </ul>
        <div>
          <h1 id="number-title">{how.title}</h1>
          <p className="text-ink-2">
            {picked.name}, with{" "}
            {kit.name.toLowerCase().startsWith("ph") ? kit.name : kit.name.toLowerCase()}
            {kit.simulated ? " (simulated)" : ""}.
          </p>
        </div>
        <div className="col-start-2 flex gap-6 items-start">
          {typing && (
            <PadForm
              key={kit.id}
              label={"Display"}
              unit={unit}
              text={text}
              onText={setText}
              onKeep={() => void add()}
              busy={busy}
              focus
            />
          )}
          <div className="min-w-0 flex-1 grid gap-3 justify-items-start content-start">
            {kept && !again && (
              <>
                {report ? (
                  <div className="flex items-end gap-5 flex-wrap">
                    <span className="num text-[72px] leading-[0.84]">
                      {best(kit.analyte, report.value, units)}
                    </span>
                    {report.value.range && (
                      <span className="text-b leading-tight">
                        <span className="text-ink-2">true value lies between</span>
                        <br />
                        <OpensWorking working={report.working}>
                          {between(kit.analyte, report.value.range, units)}
                        </OpensWorking>
                      </span>
                    )}
                  </div>
                ) : (
                  <p className="text-ink-2">
                    Kept on this device. The range follows when the server answers.
                  </p>
                )}
                {value?.flags.map((f) => (
                  <p key={f.id} className="flex gap-2 text-m">
                    <StateMark kind="no" size={16} />
                    {f.sentence}
                  </p>
                ))}
                {combined?.range && (
                  <p className="text-l">
                    Chloramine (total less free):{" "}
                    <b>
                      {combined.flags.length
                        ? "not shown"
                        : best("chlorine_combined", combined, units)}
                    </b>
                    {combined.flags.map((f) => (
                      <span key={f.id} className="block text-m text-ink-2">
                        {f.sentence}
                      </span>
                    ))}
                  </p>
                )}
                <div className="flex gap-2 flex-wrap items-center">
                  {next}
                  <button className="key" onClick={() => setAgain(true)}>
                    Read again
                  </button>
                  <button
                    className="key bare"
                    disabled={strike.isPending}
                    onClick={() => strike.mutate({ reading: kept.id, because: "taken back" })}
                  >
                    <Undo2 size={20} aria-hidden="true" />
                    Strike it
                  </button>
                </div>
              </>
            )}
            {typing && LIVE.has(kit.analyte) && (
              <button
                type="button"
                className="key"
                disabled={busy || reading}
                onClick={() => void live()}
              >
                {reading ? "Reading" : "Take it from the colorimeter"}
                <span className="font-normal text-s text-ink-2">simulated</span>
              </button>
            )}
            {typing && LIVE.has(kit.analyte) && (
              <label className="flex gap-3 items-center min-h-11 text-m">
                <input
                  type="checkbox"
                  className="w-6 h-6"
                  checked={blanked}
                  onChange={(e) => setBlanked(e.target.checked)}
                />
                Blanked on this water
              </label>
            )}
            {typing && LIVE.has(kit.analyte) && (
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
            )}
            {typing && <WaitRing kit={kit} visit={id} label={how.title.toLowerCase()} />}
            {kit.analyte === "ph" && view.assessment.meaning && (
              <OpensWorking working={view.assessment.meaning.breath}>
                Why acid when breathed into?
              </OpensWorking>
            )}
            {typing && again && (
              <button className="key bare" onClick={() => setAgain(false)}>
                Keep the one before
              </button>
            )}
            <Trouble error={error ?? strike.error ?? wrong} />
          </div>
        </div>
      </section>
    </>
  );
}
