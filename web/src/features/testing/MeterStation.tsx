/** TDS by meter: repeats as dots on a line with their range; each repeat is saved the moment it is typed. */
import { Radio, Undo2 } from "lucide-react";
import { useState, type ReactElement, type ReactNode } from "react";

import { useStrike } from "../../api/hooks";
import type { Instrument, Reading, Value } from "../../api/types";
import { between, num } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { Pip, StateMark } from "../../ui/marks";
import { OpensWorking } from "../../ui/Slip";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { PadForm } from "./Keypad";
import { OnTheLedge } from "./OnTheLedge";
import { useKeep } from "./useKeep";
import { WireMeter } from "./WireMeter";

type Displays = Extract<Reading["observation"], { method: "meter" }>;

function Dots({ seen, value }: { seen: Displays; value: Value | null }): ReactElement | null {
  const shown = seen.displays.map((d) => d * seen.multiplier);
  const lo = value?.range ? value.range.low : Math.min(...shown);
  const hi = value?.range?.high ?? Math.max(...shown);
  const pad = Math.max((hi - lo) * 0.35, 4);
  const [x0, x1] = [Math.max(0, lo - pad), hi + pad];
  const X = (v: number): number => 14 + ((v - x0) / (x1 - x0)) * 300;
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500].find((s) => (x1 - x0) / s <= 5) ?? 1000;
  const ticks = Array.from({ length: 9 }, (_, i) => Math.ceil(x0 / step) * step + i * step).filter(
    (t) => t <= x1,
  );
  const order = ["1st", "2nd", "3rd", "4th", "5th", "6th"];
  const sorted = [...shown].map((v, i) => ({ v, i })).sort((a, b) => a.v - b.v);
  const lift = new Map<number, number>();
  sorted.forEach((p, k) => {
    const before = sorted[k - 1];
    lift.set(p.i, before && X(p.v) - X(before.v) < 44 && !(lift.get(before.i) ?? 0) ? 34 : 0);
  });
  return (
    <svg
      width="100%"
      viewBox="0 -18 330 188"
      style={{ maxWidth: 330 }}
      role="img"
      aria-label={`Repeats ${shown.join(", ")} mg/L${value?.range ? `, true value between ${num(lo)} and ${num(hi)} mg/L` : ""}`}
    >
      {value?.range && (
        <>
          <rect
            x={X(lo)}
            y={94}
            width={Math.max(2, X(hi) - X(lo))}
            height={30}
            fill="var(--water-2)"
          />
          <path d={`M${X(lo)},86V132M${X(hi)},86V132`} stroke="var(--ink)" strokeWidth={2} />
        </>
      )}
      <path d={`M${X(x0)},140H${X(x1)}`} stroke="var(--ink)" strokeWidth={1.5} />
      {ticks.map((t, i) => (
        <g key={t}>
          <path d={`M${X(t)},140v8`} stroke="var(--ink)" strokeWidth={1.5} />
          <text x={X(t)} y={165} textAnchor="middle" fontSize={14} style={{ fill: "var(--ink-2)" }}>
            {num(t)}
            {i === ticks.length - 1 ? " mg/L" : ""}
          </text>
        </g>
      ))}
      {shown.map((v, i) => {
        const y = 40 - (lift.get(i) ?? 0);
        const middle = value?.range?.best === v && shown.indexOf(v) === i;
        return (
          <g key={i}>
            <text x={X(v)} y={y} textAnchor="middle" fontSize={13} style={{ fill: "var(--ink-2)" }}>
              {order[i]}
            </text>
            <text x={X(v)} y={y + 16} textAnchor="middle" fontSize={16} fontWeight={600}>
              {num(v)}
            </text>
            <path d={`M${X(v)},${y + 21}V98`} stroke="var(--ink)" strokeWidth={1} />
            <circle
              cx={X(v)}
              cy={109}
              r={9}
              fill="var(--paper)"
              stroke="var(--ink)"
              strokeWidth={2}
            />
            {middle && <Pip x={X(v)} y={109} s={5} />}
          </g>
        );
      })}
    </svg>
  );
}

export function MeterBody({
  text,
  instrument,
}: {
  text: string;
  instrument: Instrument;
}): ReactElement {
  const of = instrument.accuracy_of === "reading" ? "of reading" : "of full scale";
  const acc =
    instrument.accuracy_share == null
      ? "accuracy ?"
      : `${num(instrument.accuracy_share * 100, 1)} % ${of}`;
  return (
    <g transform="rotate(6 50 40)">
      <path
        d="M34,-84 h30 a5 5 0 0 1 5 5 V2 l-6,16 v44 l-4,5 H39 l-4,-5 V18 L29,2 V-79 a5 5 0 0 1 5,-5Z"
        fill="#FFFFFA"
        stroke="#10302A"
        strokeWidth={1.1}
        strokeLinejoin="round"
      />
      <path d="M29,2H69M35,18H63" stroke="#10302A" strokeWidth={0.7} />
      <rect
        x={34}
        y={-77}
        width={30}
        height={22}
        rx={1.5}
        fill="#BFDACF"
        stroke="#10302A"
        strokeWidth={0.9}
      />
      <text
        x={49}
        y={-60}
        textAnchor="middle"
        fontSize={16}
        style={{ fill: "#10302A", fontFamily: "var(--f-d)", fontWeight: 640 }}
      >
        {text || "–"}
      </text>
      <circle cx={49} cy={-40} r={6.4} fill="#F0D01F" stroke="#10302A" strokeWidth={0.9} />
      <path
        d="M49,-43.5v4M46.3,-42.2a3.7 3.7 0 1 0 5.4,0"
        fill="none"
        stroke="#10302A"
        strokeWidth={0.9}
        strokeLinecap="round"
      />
      <text x={49} y={-20} textAnchor="middle" fontSize={7.8} style={{ fill: "#10302A" }}>
        factor {instrument.factor ?? "?"}
      </text>
      <text x={49} y={-10} textAnchor="middle" fontSize={6.2} style={{ fill: "#10302A" }}>
        {acc}
      </text>
      <path d="M43,67v9M55,67v9" stroke="#10302A" strokeWidth={2.2} />
      <path d="M35,54H63" stroke="#10302A" strokeWidth={0.6} />
    </g>
  );
}

interface Prepared {
  rinsed: boolean;
  zero: number | null;
  temperature: number | null;
}

function Steps({
  value,
  seen,
  ready,
  onReady,
}: {
  value: Value | null;
  seen: Displays | null;
  ready: Prepared;
  onReady: (p: Prepared) => void;
}): ReactElement {
  const flags = new Set(value?.flags.map((f) => f.id));
  const rows: [boolean, string][] = [
    [
      seen !== null &&
        seen.displays.length >= 2 &&
        !flags.has("meter.spread") &&
        !flags.has("meter.repeats"),
      seen && flags.has("meter.spread")
        ? "The two disagree: a third repeat"
        : "Two repeats that agree",
    ],
  ];
  return (
    <ul className="w-full">
      <li>
        <label className="flex gap-2 items-center min-h-11 text-m leading-tight">
          <input
            type="checkbox"
            className="w-6 h-6 shrink-0"
            checked={ready.rinsed}
            onChange={(e) => onReady({ ...ready, rinsed: e.target.checked })}
          />
          Cup and probe rinsed
        </label>
      </li>
      <li className="flex gap-2 mb-1">
        {(
          [
            ["zero", "Zero [mg/L]"],
            ["temperature", "Water [°C]"],
          ] as const
        ).map(([k, name]) => (
          <label key={k} className="field flex-1">
            <span style={{ fontSize: 14, fontWeight: 400 }}>{name}</span>
            <input
              className="input"
              style={{ minHeight: 44, padding: "4px 8px" }}
              inputMode="decimal"
              defaultValue={ready[k] ?? ""}
              onBlur={(e) => {
                const n = Number(e.target.value.replace(",", "."));
                onReady({
                  ...ready,
                  [k]: e.target.value.trim() === "" || !Number.isFinite(n) ? null : n,
                });
              }}
            />
          </label>
        ))}
      </li>
      {rows.map(([ok, words]) => (
        <li key={words} className="flex gap-2 text-m leading-tight mb-[6px]">
          <StateMark kind={ok ? "done" : "miss"} size={16} />
          <span>{words}</span>
        </li>
      ))}
    </ul>
  );
}

function latest(readings: Reading[], kit: string): Reading | null {
  return (
    [...readings]
      .reverse()
      .find(
        (r) =>
          r.analyte === "tds" &&
          !r.struck_at &&
          r.observation.method === "meter" &&
          r.instrument.id === kit,
      ) ?? null
  );
}

export function MeterStation({
  kit,
  next,
  chooser,
}: {
  kit: Instrument;
  next: ReactNode;
  chooser: ReactNode;
}): ReactElement {
  const { id, picked, view, units, lookOf, readingsOf } = useVisitContext();
  const [text, setText] = useState("");
  const [fresh, setFresh] = useState(false);
  const [wire, setWire] = useState(false);
  const [typedReady, setReady] = useState<Prepared | null>(null);
  const strike = useStrike(id);
  const { busy, error, save, clear } = useKeep();
  const kept = picked && !fresh ? latest(readingsOf(picked), kit.id) : null;
  const instrument = kept?.instrument ?? kit;
  const seen = kept?.observation.method === "meter" ? kept.observation : null;
  const ready: Prepared = typedReady ?? {
    rinsed: seen?.rinsed ?? false,
    zero: seen?.zero ?? null,
    temperature: seen?.temperature_c ?? null,
  };
  const report = view.assessment.samples
    .find((s) => s.id === picked?.id)
    ?.readings.find((r) => r.id === kept?.id);
  const value = report?.value ?? null;
  const struck = picked?.readings.filter((r) => r.analyte === "tds" && r.struck_at) ?? [];
  if (!picked)
    return <p className="text-l">Draw a glass first: “Draw a glass”, at the bottom right.</p>;

  const add = async (shown?: number): Promise<void> => {
    const n = shown ?? Number(text);
    if ((shown === undefined && text === "") || !Number.isFinite(n)) return;
    setText("");
    const displays = [...(seen?.displays ?? []), n];
    setFresh(false);
    await save(
      instrument,
      {
        method: "meter",
        displays,
        multiplier: seen?.multiplier ?? 1,
        temperature_c: ready.temperature,
        zero: ready.zero,
        rinsed: ready.rinsed,
        steady: true,
      },
      kept?.id,
    );
  };
  const takeBack = async (): Promise<void> => {
    if (!kept || !seen) return;
    clear();
    await strike.mutateAsync({
      reading: kept.id,
      because: `took back ${seen.displays[seen.displays.length - 1]}`,
    });
    const rest = seen.displays.slice(0, -1);
    if (rest.length) await save(instrument, { ...seen, displays: rest });
  };
  const tenfold = async (): Promise<void> => {
    if (!kept || !seen) return;
    await strike.mutateAsync({ reading: kept.id, because: "range mark" });
    await save(instrument, { ...seen, multiplier: seen.multiplier === 10 ? 1 : 10 });
  };
  const last = seen?.displays[seen.displays.length - 1];
  const needs =
    seen === null
      ? "First display"
      : seen.displays.length < 2
        ? "Second display"
        : value?.flags.some((f) => f.id === "meter.spread")
          ? "A third display"
          : "Another display";
  return (
    <>
      <OnTheLedge>
        <Glass
          look={lookOf(picked)}
          h={252}
          label={picked.name}
          inside={
            <MeterBody
              text={text || (last === undefined ? "" : String(last))}
              instrument={instrument}
            />
          }
          above={
            <MeterBody
              text={text || (last === undefined ? "" : String(last))}
              instrument={instrument}
            />
          }
        />
      </OnTheLedge>
      <section
        aria-labelledby="tds-title"
        className="grid grid-cols-[200px_minmax(0,1fr)] gap-x-6 gap-y-3 content-start"
      >
        <div className="row-span-2">
          <Steps
            key={kept?.id ?? "new"}
            value={value}
            seen={seen}
            ready={ready}
            onReady={setReady}
          />
        </div>
        <div>
          <div className="flex items-center justify-between gap-3">
            <h1 id="tds-title" className="text-[26px] whitespace-nowrap">
              Dissolved matter
            </h1>
            <span className="flex-1" />
            {chooser}
            <button
              type="button"
              className="key"
              style={{
                minHeight: 44,
                padding: "0 12px",
                fontSize: 15,
                ...(wire ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : {}),
              }}
              aria-pressed={wire}
              onClick={() => setWire(!wire)}
            >
              <Radio size={18} aria-hidden="true" />
              On a wire
            </button>
          </div>
          <p className="text-ink-2">
            {picked.name}, {picked.draw}
            {instrument.simulated ? ", simulated meter" : ""}. Stir; probe under water.
          </p>
        </div>
        <div className="col-start-2 flex gap-6 items-start">
          {wire ? (
            <WireMeter visit={id} sample={picked.id} onTake={(d) => void add(d)} />
          ) : (
            <PadForm
              key={kit.id}
              label={needs}
              unit={"mg/L"}
              text={text}
              onText={setText}
              onKeep={() => void add()}
              busy={busy}
            />
          )}
          <div className="min-w-0 flex-1">
            {value?.range && (
              <div className="flex items-end gap-4 flex-wrap">
                <span className="num leading-[0.84] text-[60px]">
                  {num(value.range.best)}
                  <span className="font-t font-medium text-[22px] text-ink-2 tracking-normal ml-1">
                    mg/L
                  </span>
                </span>
                <span className="text-b leading-tight pb-1">
                  <span className="text-ink-2">true value lies between</span>
                  <br />
                  {report && (
                    <OpensWorking working={report.working}>
                      {between("tds", value.range, units)}
                    </OpensWorking>
                  )}
                </span>
              </div>
            )}
            {seen && (
              <div className="mt-2">
                <Dots seen={seen} value={value} />
              </div>
            )}
            {seen && !value && (
              <p className="text-ink-2 text-m">
                Kept on this device. The range follows when the server answers.
              </p>
            )}
            {!seen && (
              <p className="text-ink-2 text-m mt-2">
                Fill the cup to the mark, dip, wait until it is steady. Type what the display shows
                and keep it; twice at least.
              </p>
            )}
            {value?.flags.map((f) => (
              <p key={f.id} className="flex gap-2 text-m mt-1">
                <StateMark kind="no" size={16} />
                <span>{f.sentence}</span>
              </p>
            ))}
            {seen && (
              <div className="flex gap-x-2 flex-wrap mt-2">
                {seen.displays.length >= 2 && next}
                <button className="key bare" disabled={busy} onClick={() => void takeBack()}>
                  <Undo2 size={20} aria-hidden="true" />
                  Take back {last}
                </button>
                <button
                  className="key bare"
                  disabled={busy}
                  aria-pressed={seen.multiplier === 10}
                  onClick={() => void tenfold()}
                >
                  {seen.multiplier === 10 ? "No x10 mark" : "x10 mark"}
                </button>
                <button
                  className="key bare"
                  onClick={() => {
                    setFresh(true);
                    setText("");
                  }}
                >
                  New reading
                </button>
              </div>
            )}
            {struck.length > 0 && (
              <p className="text-s text-ink-3 mt-1">
                Struck:{" "}
                {struck.map((r) => (
                  <s key={r.id} className="mr-2">
                    {r.observation.method === "meter" ? r.observation.displays.join(", ") : ""}
                  </s>
                ))}
              </p>
            )}
            <Trouble error={error ?? strike.error} />
          </div>
        </div>
      </section>
    </>
  );
}
