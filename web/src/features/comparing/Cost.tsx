/** Cumulative cost curves with their steps and crossings. */
import type { ReactElement } from "react";
import { say } from "../../app/language";

export interface Curve {
  id: string;
  letter: string;
  name: string;
  monthly: readonly (string | number)[];
  cheaper: readonly (readonly [string, number])[];
  recommended: boolean;
  band?: { low: string | number; high: string | number } | null;
  /** Costs more than is known: its curve is drawn open. */
  open?: boolean;
}

const W = 400;
const H = 330;
const BOX = { left: 46, right: 352, top: 14, bottom: 296 };
const STYLE = [
  { stroke: "var(--ink-3)", width: 1.8, dash: "2 4" },
  { stroke: "var(--lake)", width: 3, dash: undefined },
  { stroke: "var(--ink)", width: 3, dash: undefined },
  { stroke: "var(--ink-2)", width: 3, dash: "9 4" },
  { stroke: "var(--lake)", width: 3, dash: "3 3" },
];

const STEPS = [100, 200, 500, 1000, 2000, 4000, 5000, 10000, 20000, 50000];
const MOST_LINES = 5.2; // of the scale of money
const OPEN_DASH = "2 6"; // of a curve that costs more than is known
const APART = 24; // between the names at the ends of the curves

const lastOf = (c: Curve): number => Number(c.monthly[c.monthly.length - 1] ?? 0);

interface Scale {
  step: number;
  top: number;
  years: number;
  X: (month: number) => number;
  Y: (money: number) => number;
}

function scaleOf(curves: Curve[], years: number): Scale {
  const most = Math.max(1, ...curves.map(lastOf));
  const step = STEPS.find((s) => most / s <= MOST_LINES) ?? 100000;
  const top = Math.ceil(most / step) * step;
  return {
    step,
    top,
    years,
    X: (m) => BOX.left + (m / (12 * years)) * (BOX.right - BOX.left),
    Y: (v) => BOX.bottom - (v / top) * (BOX.bottom - BOX.top),
  };
}

function MoneyAxis({ s, currency }: { s: Scale; currency: string }): ReactElement {
  const lines = Array.from({ length: Math.round(s.top / s.step) + 1 }, (_, i) => i * s.step);
  const words = (v: number): string => {
    if (v === 0) return `${currency}0`;
    return s.step >= 500 && s.top > 1000 ? `${v / 1000}k` : String(v);
  };
  return (
    <>
      {lines.map((v) => (
        <g key={v}>
          <path
            d={`M${BOX.left},${s.Y(v)}H${BOX.right}`}
            stroke={v ? "var(--rule)" : "var(--ink)"}
            strokeWidth={v ? 1 : 1.5}
          />
          <text
            x={BOX.left - 6}
            y={s.Y(v) + 5}
            textAnchor="end"
            fontSize={14}
            style={{ fill: "var(--ink-2)" }}
          >
            {words(v)}
          </text>
        </g>
      ))}
    </>
  );
}

function YearAxis({ s }: { s: Scale }): ReactElement {
  const marks = [0, 1, 2, 3, 4, 5].map((k) => Math.round((k * s.years) / 5));
  const words = (y: number): string => {
    if (y === 0) return "now";
    return y === s.years ? say("{y} years", { y }) : String(y);
  };
  return (
    <>
      {marks.map((y) => (
        <g key={y}>
          <path d={`M${s.X(12 * y)},${BOX.bottom}v6`} stroke="var(--ink)" strokeWidth={1.5} />
          <text
            x={s.X(12 * y)}
            y={BOX.bottom + 22}
            textAnchor="middle"
            fontSize={14}
            style={{ fill: "var(--ink-2)" }}
          >
            {words(y)}
          </text>
        </g>
      ))}
    </>
  );
}

function CurveLine({ c, i, s }: { c: Curve; i: number; s: Scale }): ReactElement {
  const style = STYLE[i % STYLE.length] ?? STYLE[0]!;
  const d =
    `M${s.X(0)},${s.Y(0)}` +
    c.monthly.map((v, m) => `L${s.X(m).toFixed(1)},${s.Y(Number(v)).toFixed(1)}`).join("");
  if (c.recommended && !c.open)
    return (
      <g fill="none">
        <path d={d} stroke="var(--ink)" strokeWidth={7.4} strokeLinejoin="round" />
        <path d={d} stroke="var(--yuzu)" strokeWidth={4} strokeLinejoin="round" />
      </g>
    );
  return (
    <path
      d={d}
      fill="none"
      stroke={style.stroke}
      strokeWidth={style.width}
      strokeDasharray={c.open ? OPEN_DASH : style.dash}
      strokeLinejoin="round"
    />
  );
}

/** Where one curve becomes, and stays, cheaper than another. */
function Crossings({ curves, s }: { curves: Curve[]; s: Scale }): ReactElement {
  const known = new Set(curves.map((c) => c.id));
  const all = curves.flatMap((c) =>
    c.cheaper.filter(([other, m]) => known.has(other) && m > 0).map(([, m]) => ({ c, m })),
  );
  return (
    <>
      {all.map(({ c, m }) => (
        <circle
          key={`${c.id}${m}`}
          cx={s.X(m)}
          cy={s.Y(Number(c.monthly[m] ?? 0))}
          r={6.5}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={2}
        />
      ))}
    </>
  );
}

function EndName({ c, y }: { c: Curve; y: number }): ReactElement {
  if (!c.letter)
    return (
      <text x={BOX.right + 6} y={y + 5} fontSize={14} style={{ fill: "var(--ink-2)" }}>
        {say("Today")}
      </text>
    );
  const fill = c.recommended ? "var(--drawn)" : "var(--ink)";
  return (
    <>
      <circle
        cx={BOX.right + 20}
        cy={y}
        r={11}
        fill={c.recommended ? "var(--yuzu)" : "var(--paper)"}
        stroke="var(--ink)"
        strokeWidth={1.6}
      />
      <text
        x={BOX.right + 20}
        y={y + 5.4}
        textAnchor="middle"
        fontSize={15}
        style={{ fontFamily: "var(--f-d)", fontWeight: 600, fill }}
      >
        {c.letter}
      </text>
    </>
  );
}

/** Heights of the names at the ends, moved apart where curves end close together. */
function endsOf(curves: Curve[], s: Scale): { c: Curve; y: number }[] {
  const ends = curves.map((c) => ({ c, y: s.Y(lastOf(c)) })).sort((a, b) => a.y - b.y);
  ends.forEach((e, k) => {
    const before = ends[k - 1];
    if (before && e.y - before.y < APART) e.y = before.y + APART;
  });
  return ends;
}

export function CostChart({
  curves,
  years,
  currency,
}: {
  curves: Curve[];
  years: number;
  currency: string;
}): ReactElement {
  const s = scaleOf(curves, years);
  const words = curves.map((c) => {
    const sum = `${currency}${Math.round(lastOf(c))}`;
    return `${c.letter || say("today")} ${c.open ? say("at least {sum}", { sum }) : sum}`;
  });
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      style={{ maxWidth: 440 }}
      role="img"
      aria-label={say("Paid so far over {years} years: {x}", { years, x: words.join(", ") })}
      data-testid="cost-chart"
    >
      <MoneyAxis s={s} currency={currency} />
      <YearAxis s={s} />
      {curves.map((c, i) => (
        <CurveLine key={c.id} c={c} i={i} s={s} />
      ))}
      <Crossings curves={curves} s={s} />
      {endsOf(curves, s).map(({ c, y }) => (
        <EndName key={c.id} c={c} y={y} />
      ))}
    </svg>
  );
}

export function crossingWords(curves: Curve[]): string[] {
  return curves.flatMap((c) =>
    c.cheaper.map(([other, m]) => {
      const b = curves.find((x) => x.id === other);
      const name = (x: Curve | undefined): string => (x?.letter ? x.letter : say("today"));
      const from = say("from year {x}", { x: (m / 12).toFixed(1) });
      return say("{c} is dearer to begin with, and stays cheaper than {b} {from}.", {
        c: name(c),
        b: name(b),
        from,
      });
    }),
  );
}
