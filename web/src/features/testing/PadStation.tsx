/** A strip or comparator: its own pads to touch, on one or between two. */
import { useState, type ReactElement, type ReactNode } from "react";
import { lowerFirst } from "../../app/names";

import type { Instrument, Observation, Sample } from "../../api/types";
import { best, num } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { OnTheLedge } from "./OnTheLedge";
import { Dilution, Doing, Flags, Measured, procedureOf, StationFrame, OnRecord } from "./pieces";
import { clock, startTimer } from "./timers";
import { useKeep } from "./useKeep";
import { useKept } from "./useKept";
import { say } from "../../app/language";

type Match = Extract<Observation, { method: "pad" }>;

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

interface PadsProps {
  kit: Instrument;
  unit: string;
  seen: Match | null;
  busy: boolean;
  onPick: (pad: number, between: boolean) => void;
}

function Pad({ kit, unit, seen, busy, onPick, i }: PadsProps & { i: number }): ReactElement {
  const on = seen?.pad === i && !seen.between;
  const step = num(kit.steps[i] ?? 0, 2);
  return (
    <button
      className="flex-1 min-w-[44px] h-[110px] grid content-end justify-items-center pb-2"
      style={{
        background: colour(kit.analyte, i / Math.max(1, kit.steps.length - 1)),
        outline: on ? "4px solid var(--yuzu)" : undefined,
        outlineOffset: -4,
      }}
      aria-pressed={on}
      aria-label={`${step} ${unit}`}
      disabled={busy}
      onClick={() => onPick(i, false)}
    >
      <span className="num text-[19px] bg-[var(--plate)] text-[var(--drawn)] px-1 rounded">
        {step}
        <span className="block text-[13px] font-normal">{unit}</span>
      </span>
    </button>
  );
}

function Gap({ kit, unit, seen, busy, onPick, i }: PadsProps & { i: number }): ReactElement {
  const on = seen?.pad === i && seen.between;
  const [from, to] = [kit.steps[i] ?? 0, kit.steps[i + 1] ?? 0];
  return (
    <button
      className="w-[26px] h-[110px] bg-slip border-x border-rule grid place-items-center text-s"
      style={on ? { background: "var(--yuzu)" } : undefined}
      aria-pressed={on}
      aria-label={say("between {from} and {to} {unit}", {
        from: num(from, 2),
        to: num(to, 2),
        unit,
      })}
      disabled={busy}
      onClick={() => onPick(i, true)}
    >
      ·
    </button>
  );
}

function Pads(props: PadsProps): ReactElement {
  return (
    <div
      className="flex items-stretch border-[1.5px] border-ink rounded-[10px] overflow-x-auto w-full"
      role="group"
      aria-label={say("Pads")}
    >
      {props.kit.steps.map((s, i) => (
        <div key={s} className="contents">
          <Pad {...props} i={i} />
          {i + 1 < props.kit.steps.length && <Gap {...props} i={i} />}
        </div>
      ))}
    </div>
  );
}

function StartClock({ kit }: { kit: Instrument }): ReactElement | null {
  const { id } = useVisitContext();
  if (kit.wait_s == null) return null;
  const seconds = kit.wait_s;
  return (
    <button
      className="key bare"
      style={{ minHeight: 44 }}
      onClick={() => startTimer(lowerFirst(kit.name), seconds, id)}
    >
      {say("Start {x}", { x: clock(seconds * 1000) })}
    </button>
  );
}

export function PadStation({
  kit,
  sample,
  next,
}: {
  kit: Instrument;
  sample: Sample;
  next: ReactNode;
}): ReactElement {
  const { units, lookOf } = useVisitContext();
  const [dilution, setDilution] = useState(1);
  const { busy, error, save } = useKeep();
  const { reading: kept, report } = useKept(
    sample,
    (r) => r.analyte === kit.analyte && r.observation.method === "pad",
  );
  const seen = kept?.observation.method === "pad" ? kept.observation : null;
  const unit = (kit.unit || (kit.analyte === "ph" ? "" : "mg/L")).replace(" as CaCO3", "");
  // a strip is read in the unit of its own pads
  const ofPads = unit === "gpg" ? "us" : "metric";
  const own = kit.analyte === "hardness" ? ofPads : units;
  const how = procedureOf(kit);
  return (
    <>
      <OnTheLedge>
        <Glass look={lookOf(sample)} h={252} label={sample.name} />
      </OnTheLedge>
      <StationFrame
        titled="pad-title"
        side={<Doing steps={how.steps} done={kept !== null} caution={how.caution} />}
      >
        <h1 id="pad-title">{kit.name}</h1>
        <p className="text-ink-2 mb-3">
          {sample.name}.
          <StartClock kit={kit} />
        </p>
        <div className="grid gap-4">
          <Pads
            kit={kit}
            unit={unit}
            seen={seen}
            busy={busy}
            onPick={(pad, between) => void save(kit, { method: "pad", pad, between, dilution })}
          />
          <Dilution value={dilution} onChange={setDilution} />
          {report && (
            <Measured
              report={report}
              size={56}
              units={own}
              {...(own === units ? {} : { also: best(kit.analyte, report.value, units) })}
            />
          )}
          <Flags flags={report?.value.flags ?? []} />
          {kept && (
            <div className="flex gap-2">
              {next}
              <OnRecord reading={kept} />
            </div>
          )}
          <Trouble error={error} />
        </div>
      </StationFrame>
    </>
  );
}
