/** Cumulative cost curves with their steps and crossings. */
import type { ReactElement } from "react";

export interface Curve {
  id: string;
  letter: string;
  name: string;
  monthly: readonly (string | number)[];
  cheaper: readonly (readonly [string, number])[];
  recommended: boolean;
  band?: { low: string | number; high: string | number } | null;
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

export function CostChart({
  curves,
  years,
  currency,
}: {
  curves: Curve[];
  years: number;
  currency: string;
}): ReactElement {
  const most = Math.max(1, ...curves.map((c) => Number(c.monthly[c.monthly.length - 1] ?? 0)));
  const step =
    [100, 200, 500, 1000, 2000, 4000, 5000, 10000, 20000, 50000].find((s) => most / s <= 5.2) ??
    100000;
  const top = Math.ceil(most / step) * step;
  const X = (m: number): number => BOX.left + (m / (12 * years)) * (BOX.right - BOX.left);
  const Y = (v: number): number => BOX.bottom - (v / top) * (BOX.bottom - BOX.top);
  const path = (c: Curve): string =>
    `M${X(0)},${Y(0)}` +
    c.monthly.map((v, m) => `L${X(m).toFixed(1)},${Y(Number(v)).toFixed(1)}`).join("");
  const ends = curves
    .map((c, i) => ({ c, i, y: Y(Number(c.monthly[c.monthly.length - 1] ?? 0)) }))
    .sort((a, b) => a.y - b.y);
  ends.forEach((e, k) => {
    const before = ends[k - 1];
    if (before && e.y - before.y < 24) e.y = before.y + 24;
  });
  const crossings = curves
    .flatMap((c) =>
      c.cheaper.map(([other, m]) => ({ a: c, b: curves.find((x) => x.id === other), m })),
    )
    .filter((x) => x.b !== undefined && x.m > 0);
  const words = curves
    .map(
      (c) =>
        `${c.letter || "today"} ${currency}${Math.round(Number(c.monthly[c.monthly.length - 1] ?? 0))}`,
    )
    .join(", ");
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      width="100%"
      style={{ maxWidth: 440 }}
      role="img"
      aria-label={`Paid so far over ${years} years: ${words}`}
      data-testid="cost-chart"
    >
      {Array.from({ length: Math.round(top / step) + 1 }, (_, i) => i * step).map((v) => (
        <g key={v}>
          <path
            d={`M${BOX.left},${Y(v)}H${BOX.right}`}
            stroke={v ? "var(--rule)" : "var(--ink)"}
            strokeWidth={v ? 1 : 1.5}
          />
          <text
            x={BOX.left - 6}
            y={Y(v) + 5}
            textAnchor="end"
            fontSize={14}
            style={{ fill: "var(--ink-2)" }}
          >
            {v === 0 ? `${currency}0` : v % 1000 === 0 ? `${v / 1000}k` : v}
          </text>
        </g>
      ))}
      {[0, 1, 2, 3, 4, 5]
        .map((k) => Math.round((k * years) / 5))
        .map((y) => (
          <g key={y}>
            <path d={`M${X(12 * y)},${BOX.bottom}v6`} stroke="var(--ink)" strokeWidth={1.5} />
            <text
              x={X(12 * y)}
              y={BOX.bottom + 22}
              textAnchor="middle"
              fontSize={14}
              style={{ fill: "var(--ink-2)" }}
            >
              {y === 0 ? "now" : y === years ? `${y} years` : y}
            </text>
          </g>
        ))}
      {curves.map((c, i) => {
        const s = STYLE[i % STYLE.length] ?? STYLE[0]!;
        return c.recommended ? (
          <g key={c.id} fill="none">
            <path d={path(c)} stroke="var(--ink)" strokeWidth={7.4} strokeLinejoin="round" />
            <path d={path(c)} stroke="var(--yuzu)" strokeWidth={4} strokeLinejoin="round" />
          </g>
        ) : (
          <path
            key={c.id}
            d={path(c)}
            fill="none"
            stroke={s.stroke}
            strokeWidth={s.width}
            strokeDasharray={s.dash}
            strokeLinejoin="round"
          />
        );
      })}
      {crossings.map(({ a, m }) => (
        <circle
          key={`${a.id}${m}`}
          cx={X(m)}
          cy={Y(Number(a.monthly[m] ?? 0))}
          r={6.5}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={2}
        />
      ))}
      {ends.map((e) => (
        <g key={e.c.id}>
          {e.c.letter ? (
            <>
              <circle
                cx={BOX.right + 20}
                cy={e.y}
                r={11}
                fill={e.c.recommended ? "var(--yuzu)" : "var(--paper)"}
                stroke="var(--ink)"
                strokeWidth={1.6}
              />
              <text
                x={BOX.right + 20}
                y={e.y + 5.4}
                textAnchor="middle"
                fontSize={15}
                style={{
                  fontFamily: "var(--f-d)",
                  fontWeight: 600,
                  fill: e.c.recommended ? "#10302A" : "var(--ink)",
                }}
              >
                {e.c.letter}
              </text>
            </>
          ) : (
            <text x={BOX.right + 6} y={e.y + 5} fontSize={14} style={{ fill: "var(--ink-2)" }}>
              Today
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}

export function crossingWords(curves: Curve[]): string[] {
  return curves.flatMap((c) =>
    c.cheaper.map(([other, m]) => {
      const b = curves.find((x) => x.id === other);
      const name = (x: Curve | undefined): string => (x?.letter ? x.letter : "today");
      return `${name(c)} is dearer to begin with, and stays cheaper than ${name(b)} from year ${(m / 12).toFixed(1)}.`;
    }),
  );
}
