/**
 * TDS by meter: repeats as dots on a line with their range; each is saved the moment it is typed.
 */
import { Radio, Undo2 } from "lucide-react";
import { useState, type ReactElement, type ReactNode } from "react";

import { useStrike } from "../../api/hooks";
import type { Instrument, Reading, Sample, Value } from "../../api/types";
import { between, num } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { StateMark } from "../../ui/marks";
import { OpensWorking } from "../../ui/Slip";
import { Trouble } from "../../ui/Trouble";
import { Pictures } from "../pictures/Pictures";
import { useVisitContext } from "../visit/context";
import { Dots, type Displays } from "./Dots";
import { backToDisplay, PadForm } from "./Keypad";
import { LeaveOneOut } from "./LeaveOneOut";
import { MeterBody } from "./MeterBody";
import { OnTheLedge } from "./OnTheLedge";
import { Flags, OnThisDevice, procedureOf, StationFrame } from "./pieces";
import { useKeep } from "./useKeep";
import { useKept, type Kept } from "./useKept";
import { WireMeter } from "./WireMeter";
import { spoken, say } from "../../app/language";

interface Prepared {
  rinsed: boolean;
  zero: number | null;
  temperature: number | null;
}

const FIELDS = spoken([
  ["zero", "Zero [mg/L]"],
  ["temperature", "Water [°C]"],
] as const);

function numberOf(text: string): number | null {
  const n = Number(text.replace(",", "."));
  return text.trim() === "" || !Number.isFinite(n) ? null : n;
}

const flagged = (value: Value | null, id: string): boolean =>
  value?.flags.some((f) => f.id === id) ?? false;

/** Whether two repeats agree yet. */
function Agreement({ value, seen }: { value: Value | null; seen: Displays | null }): ReactElement {
  const apart = seen !== null && flagged(value, "meter.spread");
  const agree = (seen?.displays.length ?? 0) >= 2 && !apart && !flagged(value, "meter.repeats");
  return (
    <li className="flex gap-2 text-m leading-tight mb-[6px]">
      <StateMark kind={agree ? "done" : "miss"} size={16} />
      <span>{apart ? say("The two disagree: a third repeat") : say("Two repeats that agree")}</span>
    </li>
  );
}

function Steps({
  kit,
  value,
  seen,
  ready,
  onReady,
}: {
  kit: Instrument;
  value: Value | null;
  seen: Displays | null;
  ready: Prepared;
  onReady: (p: Prepared) => void;
}): ReactElement {
  const [first, ...steps] = procedureOf(kit).steps;
  return (
    <ul className="w-full">
      <li>
        <label className="flex gap-2 items-center min-h-11 text-m leading-tight">
          <input
            type="checkbox"
            className="w-6 h-6 shrink-0"
            checked={ready.rinsed}
            onChange={(e) => {
              onReady({ ...ready, rinsed: e.target.checked });
              backToDisplay();
            }}
          />
          {first}
        </label>
      </li>
      <li className="flex gap-2 mb-1">
        {FIELDS.map(([k, name]) => (
          <label key={k} className="field flex-1">
            <span style={{ fontSize: 14, fontWeight: 400 }}>{name}</span>
            <input
              className="input"
              style={{ minHeight: 44, padding: "4px 8px" }}
              inputMode="decimal"
              defaultValue={ready[k] ?? ""}
              onBlur={(e) => onReady({ ...ready, [k]: numberOf(e.target.value) })}
            />
          </label>
        ))}
      </li>
      {steps.map((s) => (
        <li key={s} className="flex gap-2 text-m leading-tight mb-[6px]">
          <StateMark kind={seen ? "done" : "miss"} size={16} />
          <span>{s}</span>
        </li>
      ))}
      <Agreement value={value} seen={seen} />
    </ul>
  );
}

function preparedOf(seen: Displays | null): Prepared {
  return {
    rinsed: seen?.rinsed ?? false,
    zero: seen?.zero ?? null,
    temperature: seen?.temperature_c ?? null,
  };
}

interface Metering {
  kept: Kept;
  seen: Displays | null;
  value: Value | null;
  ready: Prepared;
  setReady: (p: Prepared) => void;
  busy: boolean;
  error: unknown;
  add: (shown: number) => Promise<void>;
  /** Leaves one display out: the reading is struck with the reason, the others are kept anew. */
  leaveOut: (index: number, because: string) => Promise<void>;
  tenfold: () => Promise<void>;
  startNew: () => void;
}

/** Repeats of one meter in one glass: one reading that grows, each step saved. */
function useMetering(kit: Instrument, sample: Sample): Metering {
  const { id } = useVisitContext();
  const [fresh, setFresh] = useState(false);
  const [typed, setReady] = useState<Prepared | null>(null);
  const strike = useStrike(id);
  const { busy, error, save, clear } = useKeep();
  const mine = useKept(
    sample,
    (r) => r.analyte === "tds" && r.observation.method === "meter" && r.instrument.id === kit.id,
  );
  const kept: Kept = fresh ? { reading: null, report: null } : mine;
  const instrument = kept.reading?.instrument ?? kit;
  const seen = kept.reading?.observation.method === "meter" ? kept.reading.observation : null;
  const ready = typed ?? preparedOf(seen);
  const instead = async (reading: Reading, because: string, next: Displays): Promise<void> => {
    clear();
    await strike.mutateAsync({ reading: reading.id, because });
    if (next.displays.length) await save(instrument, next);
  };
  return {
    kept,
    seen,
    value: kept.report?.value ?? null,
    ready,
    setReady,
    busy,
    error: error ?? strike.error,
    add: async (shown) => {
      setFresh(false);
      const said = {
        displays: [...(seen?.displays ?? []), shown],
        multiplier: seen?.multiplier ?? 1,
        temperature_c: ready.temperature,
        zero: ready.zero,
        rinsed: ready.rinsed,
      };
      await save(instrument, { method: "meter", steady: true, ...said }, kept.reading?.id);
    },
    leaveOut: async (index, because) => {
      if (!kept.reading || !seen) return;
      const displays = seen.displays.filter((_, i) => i !== index);
      await instead(kept.reading, because, { ...seen, displays });
    },
    tenfold: async () => {
      if (!kept.reading || !seen) return;
      const multiplier = seen.multiplier === 10 ? 1 : 10;
      await instead(kept.reading, say("range mark"), { ...seen, multiplier });
    },
    startNew: () => setFresh(true),
  };
}

function Shown({ kept }: { kept: Kept }): ReactElement | null {
  const { units } = useVisitContext();
  const { report } = kept;
  if (!report?.value.range) return null;
  return (
    <div className="flex items-end gap-4 flex-wrap">
      <span className="num leading-[0.84] text-[60px]">
        {num(report.value.range.best)}
        <span className="font-t font-medium text-[22px] text-ink-2 tracking-normal ml-1">
          {say("mg/L")}
        </span>
      </span>
      <span className="text-b leading-tight pb-1">
        <span className="text-ink-2">{say("true value lies between")}</span>
        <br />
        <OpensWorking working={report.working}>
          {between("tds", report.value.range, units)}
        </OpensWorking>
      </span>
    </div>
  );
}

function Struck({ sample }: { sample: Sample }): ReactElement | null {
  const struck = sample.readings.filter((r) => r.analyte === "tds" && r.struck_at);
  if (struck.length === 0) return null;
  return (
    <p className="text-s text-ink-3 mt-1">
      {say("Crossed out:")}{" "}
      {struck.map((r) => (
        <s key={r.id} className="mr-2">
          {r.observation.method === "meter" ? r.observation.displays.join(", ") : ""}
        </s>
      ))}
    </p>
  );
}

/** What can be done with repeats that are kept. */
function Ways({ m, next }: { m: Metering; next: ReactNode }): ReactElement | null {
  const { id } = useVisitContext();
  const { seen, busy } = m;
  if (!seen) return null;
  const last = seen.displays.length - 1;
  return (
    <div className="flex gap-x-2 flex-wrap mt-2">
      {last >= 1 && next}
      <button
        className="key bare"
        disabled={busy}
        onClick={() => void m.leaveOut(last, say("took back {x}", { x: seen.displays[last] }))}
      >
        <Undo2 size={20} aria-hidden="true" />
        {say("Take back")} {seen.displays[last]}
      </button>
      {last >= 1 && <LeaveOneOut displays={seen.displays} onLeaveOut={m.leaveOut} />}
      <button
        className="key bare"
        disabled={busy}
        aria-pressed={seen.multiplier === 10}
        onClick={() => void m.tenfold()}
      >
        {seen.multiplier === 10 ? say("No x10 mark") : say("x10 mark")}
      </button>
      <button className="key bare" onClick={m.startNew}>
        {say("New reading")}
      </button>
      {m.kept.reading && <Pictures visit={id} about="reading" of={m.kept.reading.id} />}
    </div>
  );
}

function Seen({ m, sample, next }: { m: Metering; sample: Sample; next: ReactNode }): ReactElement {
  const { seen, value } = m;
  return (
    <div className="min-w-0 flex-1">
      <Shown kept={m.kept} />
      {seen && (
        <div className="mt-2">
          <Dots seen={seen} value={value} />
        </div>
      )}
      {seen && !value && <OnThisDevice />}
      {!seen && (
        <p className="text-ink-2 text-m mt-2">
          {say(
            "Dip, wait until it is steady. Type what the display shows and keep it; twice at " +
              "least.",
          )}
        </p>
      )}
      <Flags flags={value?.flags ?? []} />
      <Ways m={m} next={next} />
      <Struck sample={sample} />
      <Trouble error={m.error} />
    </div>
  );
}

function wantedNext({ seen, value }: Metering): string {
  if (seen === null) return say("First display");
  if (seen.displays.length < 2) return say("Second display");
  return flagged(value, "meter.spread") ? say("A third display") : say("Another display");
}

function InTheGlass({
  m,
  sample,
  kit,
  text,
}: {
  m: Metering;
  sample: Sample;
  kit: Instrument;
  text: string;
}): ReactElement {
  const { lookOf } = useVisitContext();
  const last = m.seen?.displays.at(-1);
  const body = (
    <MeterBody
      text={text || (last === undefined ? "" : String(last))}
      instrument={m.kept.reading?.instrument ?? kit}
    />
  );
  return (
    <OnTheLedge>
      <Glass look={lookOf(sample)} h={252} label={sample.name} inside={body} above={body} />
    </OnTheLedge>
  );
}

function Heading({
  kit,
  sample,
  chooser,
  wire,
  onWire,
}: {
  kit: Instrument;
  sample: Sample;
  chooser: ReactNode;
  wire: boolean;
  onWire: () => void;
}): ReactElement {
  return (
    <>
      <div className="flex items-center gap-2 flex-wrap">
        <h1 id="tds-title" className="text-[26px] whitespace-nowrap flex-1">
          {procedureOf(kit).title}
        </h1>
        {chooser}
        <button
          type="button"
          className={`key small ${wire ? "on" : ""}`}
          aria-label={say("On a wire")}
          aria-pressed={wire}
          onClick={onWire}
        >
          <Radio size={18} aria-hidden="true" />
          {say("Wire")}
        </button>
      </div>
      <p className="text-ink-2 mb-3">
        {say("{name}, {draw}{x}. Stir; probe under water.", {
          name: sample.name,
          draw: sample.draw,
          x: kit.simulated ? ", simulated meter" : "",
        })}
      </p>
    </>
  );
}

export function MeterStation({
  kit,
  sample,
  next,
  chooser,
}: {
  kit: Instrument;
  sample: Sample;
  next: ReactNode;
  chooser: ReactNode;
}): ReactElement {
  const { id } = useVisitContext();
  const [text, setText] = useState("");
  const [wire, setWire] = useState(false);
  const m = useMetering(kit, sample);
  const add = (shown: number): void => {
    if (!Number.isFinite(shown)) return;
    setText("");
    void m.add(shown);
  };
  const steps = (
    <Steps
      key={m.kept.reading?.id ?? "new"}
      kit={kit}
      value={m.value}
      seen={m.seen}
      ready={m.ready}
      onReady={m.setReady}
    />
  );
  return (
    <>
      <InTheGlass m={m} sample={sample} kit={kit} text={text} />
      <StationFrame titled="tds-title" side={steps}>
        <Heading
          kit={m.kept.reading?.instrument ?? kit}
          sample={sample}
          chooser={chooser}
          wire={wire}
          onWire={() => setWire(!wire)}
        />
        <div className="flex gap-6 items-start max-[699px]:flex-wrap">
          {wire ? (
            <WireMeter visit={id} sample={sample.id} onTake={add} />
          ) : (
            <PadForm
              key={kit.id}
              label={wantedNext(m)}
              unit="mg/L"
              text={text}
              onText={setText}
              onKeep={() => add(text === "" ? Number.NaN : Number(text))}
              busy={m.busy}
              focus
            />
          )}
          <Seen m={m} sample={sample} next={next} />
        </div>
      </StationFrame>
    </>
  );
}
