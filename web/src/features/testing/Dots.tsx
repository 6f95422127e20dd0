/** Repeats of a meter as dots on a line, with the range that the true value lies in. */
import type { ReactElement } from "react";

import type { Observation, Value } from "../../api/types";
import { num } from "../../app/show";
import { Pip } from "../../ui/marks";
import { say } from "../../app/language";

export type Displays = Extract<Observation, { method: "meter" }>;

const ORDER = ["1st", "2nd", "3rd", "4th", "5th", "6th"];
const WIDE = 300;
const NEAR = 44; // closer than this, two words would touch

interface Scale {
  lo: number;
  hi: number;
  from: number;
  to: number;
  X: (v: number) => number;
}

function scaleOf(shown: number[], value: Value | null): Scale {
  const lo = value?.range ? value.range.low : Math.min(...shown);
  const hi = value?.range?.high ?? Math.max(...shown);
  const pad = Math.max((hi - lo) * 0.35, 4);
  const [from, to] = [Math.max(0, lo - pad), hi + pad];
  return { lo, hi, from, to, X: (v) => 14 + ((v - from) / (to - from)) * WIDE };
}

function ticksOf({ from, to }: Scale): number[] {
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500].find((s) => (to - from) / s <= 5) ?? 1000;
  const first = Math.ceil(from / step) * step;
  return Array.from({ length: 9 }, (_, i) => first + i * step).filter((t) => t <= to);
}

/** How high each word stands, so that those of near repeats do not touch. */
function lifts(shown: number[], X: (v: number) => number): number[] {
  const up = shown.map(() => 0);
  const sorted = shown.map((v, i) => ({ v, i })).sort((a, b) => a.v - b.v);
  sorted.forEach((p, k) => {
    const before = sorted[k - 1];
    if (before && X(p.v) - X(before.v) < NEAR && up[before.i] === 0) up[p.i] = 34;
  });
  return up;
}

function Axis({ scale }: { scale: Scale }): ReactElement {
  const { X, from, to } = scale;
  const ticks = ticksOf(scale);
  return (
    <>
      <path d={`M${X(from)},140H${X(to)}`} stroke="var(--ink)" strokeWidth={1.5} />
      {ticks.map((t, i) => (
        <g key={t}>
          <path d={`M${X(t)},140v8`} stroke="var(--ink)" strokeWidth={1.5} />
          <text x={X(t)} y={165} textAnchor="middle" fontSize={14} style={{ fill: "var(--ink-2)" }}>
            {num(t)}
            {i === ticks.length - 1 ? " mg/L" : ""}
          </text>
        </g>
      ))}
    </>
  );
}

function Dot({
  x,
  lift,
  shown,
  order,
  middle,
}: {
  x: number;
  lift: number;
  shown: number;
  order: string;
  middle: boolean;
}): ReactElement {
  const y = 40 - lift;
  return (
    <g>
      <text x={x} y={y} textAnchor="middle" fontSize={13} style={{ fill: "var(--ink-2)" }}>
        {order}
      </text>
      <text x={x} y={y + 16} textAnchor="middle" fontSize={16} fontWeight={600}>
        {num(shown)}
      </text>
      <path d={`M${x},${y + 21}V98`} stroke="var(--ink)" strokeWidth={1} />
      <circle cx={x} cy={109} r={9} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2} />
      {middle && <Pip x={x} y={109} s={5} />}
    </g>
  );
}

function saidOf(shown: number[], value: Value | null, { lo, hi }: Scale): string {
  const repeats = say("Repeats {x} mg/L", { x: shown.join(", ") });
  if (!value?.range) return repeats;
  return say("{repeats}, true value between {lo} and {hi} mg/L", {
    repeats,
    lo: num(lo),
    hi: num(hi),
  });
}

export function Dots({ seen, value }: { seen: Displays; value: Value | null }): ReactElement {
  const shown = seen.displays.map((d) => d * seen.multiplier);
  const scale = scaleOf(shown, value);
  const { X, lo, hi } = scale;
  const up = lifts(shown, X);
  const middle = value?.range ? shown.indexOf(value.range.best) : -1;
  return (
    <svg
      width="100%"
      viewBox="0 -18 330 188"
      style={{ maxWidth: 330 }}
      role="img"
      aria-label={saidOf(shown, value, scale)}
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
      <Axis scale={scale} />
      {shown.map((v, i) => (
        <Dot
          key={i}
          x={X(v)}
          lift={up[i] ?? 0}
          shown={v}
          order={ORDER[i] ?? say("{x}th", { x: i + 1 })}
          middle={i === middle}
        />
      ))}
    </svg>
  );
}
