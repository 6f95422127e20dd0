/** Flow by bucket and stopwatch: start and stop by touch or space, three runs. */
import { Undo2 } from "lucide-react";
import { useCallback, useEffect, useState, type ReactElement, type ReactNode } from "react";

import type { Instrument } from "../../api/types";
import { flow, GAL_L, num } from "../../app/show";
import { Seg } from "../../ui/fields";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { AtLedgeEnd, OnTheLedge } from "./OnTheLedge";
import { Flags, Measured, StationFrame, OnRecord, type StationProps } from "./pieces";
import { useNow } from "./timers";
import { useKeep } from "./useKeep";
import { useKept, type Kept } from "./useKept";
import { say } from "../../app/language";

const WELLS = ["well_drilled", "well_dug", "spring"];
const FULL_S = 28; // [s] a bucket drawn full while the watch runs

function Bucket({ level }: { level: number }): ReactElement {
  const [inset, top] = [(1 - level) * 9, 40 + (1 - level) * 72];
  return (
    <svg width="180" height="180" viewBox="0 0 120 120" role="img" aria-label={say("Bucket")}>
      <path
        d="M14,34H106L96,116H24Z"
        fill="var(--slip)"
        stroke="var(--ink)"
        strokeWidth="2.4"
        strokeLinejoin="round"
      />
      <path d={`M${16 + inset},${top}H${104 - inset}L95,113H25Z`} fill="var(--water-2)" />
      <path d="M14,34C18,-4 102,-4 106,34" fill="none" stroke="var(--ink)" strokeWidth="2.4" />
    </svg>
  );
}

interface Watch {
  /** Finished runs [s]. */
  runs: number[];
  /** Of the run under way [s]; null between runs. */
  elapsed: number | null;
  press: () => void;
  takeBack: () => void;
  clear: () => void;
}

/** A stopwatch started and stopped by its key, and by the space bar while it is in use. */
function useWatch(inUse: boolean): Watch {
  const [runs, setRuns] = useState<number[]>([]);
  const [started, setStarted] = useState<number | null>(null);
  const now = useNow(started !== null);
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
      const { tagName } = e.target as HTMLElement;
      const space = e.code === "Space" || e.key === " ";
      if (!space || !inUse || ["INPUT", "SELECT", "BUTTON"].includes(tagName)) return;
      e.preventDefault();
      press();
    };
    document.addEventListener("keydown", key);
    return () => document.removeEventListener("keydown", key);
  }, [press, inUse]);
  return {
    runs,
    elapsed: started === null ? null : Math.max(0, now - started) / 1000,
    press,
    takeBack: () => setRuns((r) => r.slice(0, -1)),
    clear: () => setRuns([]),
  };
}

interface Way {
  gallons: number;
  bore: boolean;
  pump: boolean | null;
}

function How({
  way,
  well,
  onWay,
}: {
  way: Way;
  well: boolean;
  onWay: (w: Way) => void;
}): ReactElement {
  const { units } = useVisitContext();
  const buckets =
    units === "us"
      ? [1, 2, 3, 5].map((g) => ({ value: g, name: say("{g} gal", { g }) }))
      : [5, 10, 20].map((l) => ({ value: l / GAL_L, name: `${l} L` }));
  return (
    <div className="flex gap-5 flex-wrap items-end">
      <Seg
        label={say("Bucket")}
        value={way.gallons}
        choices={buckets}
        onChange={(gallons) => onWay({ ...way, gallons })}
      />
      <Seg
        label={say("Taken")}
        value={way.bore}
        choices={[
          { value: true, name: say("full bore") },
          { value: false, name: say("one tap") },
        ]}
        onChange={(bore) => onWay({ ...way, bore })}
      />
      {well && (
        <Seg
          label={say("The pump was")}
          value={way.pump}
          choices={[
            { value: true, name: "running" },
            { value: false, name: say("not running") },
          ]}
          onChange={(pump) => onWay({ ...way, pump })}
        />
      )}
    </div>
  );
}

function Runs({ runs, gallons }: { runs: number[]; gallons: number }): ReactElement {
  const { units } = useVisitContext();
  if (runs.length === 0)
    return <p className="text-b">{say("Three runs. The space bar starts and stops.")}</p>;
  return (
    <p className="text-b">
      {runs.map((r, i) => (
        <span key={i} className="mr-4">
          <b>{num(r, 1)} s</b> {say("is")} {flow((60 * gallons) / r, units)}
        </span>
      ))}
    </p>
  );
}

function wordsOf(watch: Watch): string {
  if (watch.elapsed !== null)
    return say("{elapsed} s: full, stop", { elapsed: num(watch.elapsed, 1) });
  return watch.runs.length ? say("Run {x}: start", { x: watch.runs.length + 1 }) : say("Start");
}

function Timing({
  kit,
  watch,
  onKept,
}: {
  kit: Instrument;
  watch: Watch;
  onKept: () => void;
}): ReactElement {
  const { view, units } = useVisitContext();
  const well = WELLS.includes(view.visit.home.source);
  const [way, setWay] = useState<Way>({
    gallons: units === "us" ? 5 : 10 / GAL_L,
    bore: true,
    pump: null,
  });
  const { busy, error, save } = useKeep();
  const { runs } = watch;
  const asks = runs.length === 0 || watch.elapsed !== null || (well && way.pump === null);
  const keepIt = async (): Promise<void> => {
    await save(kit, {
      method: "bucket",
      volume_gal: way.gallons,
      seconds: runs,
      full_bore: way.bore,
      pump_running: well ? way.pump : null,
    });
    watch.clear();
    onKept();
  };
  return (
    <>
      <How way={way} well={well} onWay={setWay} />
      <button
        className="key go"
        style={{ minWidth: 260, minHeight: 84, fontSize: 26 }}
        onClick={watch.press}
      >
        {wordsOf(watch)}
      </button>
      <Runs runs={runs} gallons={way.gallons} />
      <div className="flex gap-2">
        <AtLedgeEnd>
          <button
            className="key go"
            style={{ minHeight: 48 }}
            disabled={busy || asks}
            onClick={() => void keepIt()}
          >
            {say("Keep {length} run{x}", { length: runs.length, x: runs.length === 1 ? "" : "s" })}
          </button>
        </AtLedgeEnd>
        {runs.length > 0 && (
          <button className="key bare" onClick={watch.takeBack}>
            <Undo2 size={20} aria-hidden="true" />
            {say("Take back a run")}
          </button>
        )}
      </div>
      <Trouble error={error} />
    </>
  );
}

function KeptFlow({
  kept,
  next,
  onAgain,
}: {
  kept: Kept;
  next: ReactNode;
  onAgain: () => void;
}): ReactElement {
  const { units } = useVisitContext();
  return (
    <>
      {kept.report && <Measured report={kept.report} units={units} />}
      <Flags flags={kept.report?.value.flags ?? []} />
      <div className="flex gap-2">
        {next}
        <button className="key" onClick={onAgain}>
          {say("Time it again")}
        </button>
        {kept.reading && <OnRecord reading={kept.reading} />}
      </div>
    </>
  );
}

function levelOf(watch: Watch): number {
  if (watch.elapsed !== null) return Math.min(1, watch.elapsed / FULL_S);
  return watch.runs.length ? 1 : 0.1;
}

export function BucketStation({ kit, sample, next }: StationProps): ReactElement {
  const [again, setAgain] = useState(false);
  const kept = useKept(sample, (r) => r.analyte === "flow");
  const timing = kept.reading === null || again;
  const watch = useWatch(timing);
  return (
    <>
      <OnTheLedge>
        <Bucket level={levelOf(watch)} />
      </OnTheLedge>
      <StationFrame
        titled="flow-title"
        side={
          <p className="text-m text-ink-2">
            {say(
              "At the point of entry, full bore, or with two outlets open: only then may the " +
                "flow cap the table by bathrooms.",
            )}
          </p>
        }
      >
        <div className="grid gap-4 justify-items-start">
          <h1 id="flow-title">{say("Flow, by bucket and stopwatch")}</h1>
          {timing ? (
            <Timing kit={kit} watch={watch} onKept={() => setAgain(false)} />
          ) : (
            <KeptFlow kept={kept} next={next} onAgain={() => setAgain(true)} />
          )}
        </div>
      </StationFrame>
    </>
  );
}
