/** What stands in the water and at its foot: each drawn from one test. */
import { type ReactElement } from "react";

import { halton, SCALE, veil, type Look } from "./look";

import { G, outerHalf, half, EDGE, YS, type Size, bySize } from "./shape";

export function Feet({
  look,
  s,
  hatch,
}: {
  look: Look;
  s: Size;
  hatch: string;
}): ReactElement | null {
  const n = look.tests.length;
  if (!n || !s.mid) return null;
  const x0 = 50 - outerHalf(126) + 2.2;
  const dx = (100 - 2 * x0) / n;
  return (
    <>
      {look.tests.map((t, i) => {
        const f = Math.abs(i - (n - 1) / 2) / (n / 2);
        const box = {
          x: x0 + i * dx + dx * 0.13,
          y: 125 - f * f * 2.2,
          width: dx * 0.74,
          height: 6.4,
          rx: 1,
        };
        return (
          <g key={t.name}>
            <rect
              {...box}
              fill={t.done ? "var(--glass-ink)" : "var(--glass-body)"}
              stroke="var(--glass-ink)"
              strokeWidth={s.fine * 0.8}
            />
            {!t.done && <rect {...box} fill={`url(#${hatch})`} />}
          </g>
        );
      })}
    </>
  );
}

export function Haze({
  ntu,
  s,
  blur,
}: {
  ntu: number;
  s: Size;
  blur: string;
}): ReactElement | null {
  if (ntu <= 0) return null;
  const v = veil(ntu);
  const n =
    ntu >= 0.8 && !s.chip
      ? Math.min(
          s.mid ? SCALE.dots_most : 60,
          Math.round(SCALE.dots_per_ntu * ntu * (s.mid ? 1 : 0.4)),
        )
      : 0;
  const dots = Array.from({ length: n }, (_, i) => {
    const y = YS + 5 + halton(i + 11, 2) * (G.floor - YS - 5);
    return `M${(50 + (halton(i + 11, 3) * 2 - 1) * (half(y) - 2)).toFixed(1)},${y.toFixed(1)}h.01`;
  }).join("");
  return (
    <>
      <rect x={0} y={YS} width={100} height={100} fill="var(--haze)" opacity={v * 0.55} />
      {Array.from({ length: 7 }, (_, i) => (
        <ellipse
          key={i}
          cx={22 + halton(i + 1, 3) * 56}
          cy={YS + 12 + halton(i + 1, 2) * (G.floor - YS - 16)}
          rx={15 + 8 * halton(i + 2, 5)}
          ry={4 + 3 * halton(i + 3, 7)}
          fill="var(--suds)"
          opacity={v * 0.7}
          filter={`url(#${blur})`}
        />
      ))}
      <path
        d={dots}
        stroke={EDGE}
        strokeWidth={(s.big ? 1.5 : 1.15) / s.k}
        strokeLinecap="round"
        opacity={0.34}
      />
    </>
  );
}

export function Crystals({ hard, s }: { hard: [number, number]; s: Size }): ReactElement {
  const unit = bySize(s, [60, 30, SCALE.crystal_mg_l, SCALE.crystal_mg_l]);
  const low = Math.min(SCALE.crystals_most, Math.round(hard[0] / unit));
  const high = Math.min(SCALE.crystals_most, Math.round(hard[1] / unit));
  const r = bySize(s, [7, 2.9, 2.15, 1.75]);
  return (
    <g className={s.mid ? "drift" : undefined}>
      {Array.from({ length: high }, (_, i) => {
        const y = YS + 9 + halton(i + 3, 2) * (G.floor - YS - 13);
        const x = 50 + (halton(i + 3, 3) * 2 - 1) * (half(y) - 7);
        const a = r * (0.85 + 0.35 * halton(i + 1, 7));
        const solid = i < low;
        return (
          <path
            key={i}
            transform={
              `translate(${x.toFixed(2)} ${y.toFixed(2)}) ` +
              `rotate(${(halton(i + 1, 5) * 70 - 35).toFixed(0)})`
            }
            d={
              `M${-a},${a * 0.55}L${-a * 0.45},${-a * 0.75}` +
              `L${a},${-a * 0.55}L${a * 0.45},${a * 0.75}Z`
            }
            fill={solid ? "var(--gloss)" : "none"}
            stroke={EDGE}
            strokeWidth={s.fine * (solid ? 0.95 : 0.8)}
            strokeDasharray={solid ? undefined : "1.3 1"}
            strokeLinejoin="round"
          />
        );
      })}
    </g>
  );
}

export function Fizz({
  free,
  combined,
  s,
}: {
  free: number;
  combined: number;
  s: Size;
}): ReactElement | null {
  if (s.chip) return null;
  const bubbles = (n: number, pair: boolean, seed: number): ReactElement[] =>
    Array.from({ length: n }, (_, i) => {
      const y = G.floor - 4 - halton(i + 1 + seed, 2) * (G.floor - YS - 6);
      const x =
        50 + ([-0.62, 0.1, 0.66][i % 3] ?? 0) * (half(y) - 6) + (halton(i + 2 + seed, 3) - 0.5) * 9;
      const r = (s.big ? 1.7 : 2.1) * (0.7 + (0.7 * (G.floor - y)) / (G.floor - YS));
      const style = {
        fill: "var(--gloss)",
        fillOpacity: 0.6,
        stroke: EDGE,
        strokeWidth: s.fine * 0.9,
      };
      return (
        <g key={`${seed}-${i}`}>
          <circle cx={x} cy={y} r={r} {...style} />
          {pair && <circle cx={x + r * 1.7} cy={y - 0.6} r={r * 0.75} {...style} />}
        </g>
      );
    });
  return (
    <g className={s.mid ? "rise" : undefined}>
      {bubbles(Math.min(SCALE.bubbles_most, Math.round(free / SCALE.bubble_mg_l)), false, 0)}
      {bubbles(Math.min(12, Math.round(combined / SCALE.bubble_mg_l)), true, 9)}
    </g>
  );
}

export function Crust({ ring, s }: { ring: number; s: Size }): ReactElement | null {
  if (ring <= 0 || s.chip) return null;
  const e = (4.2 * half(YS)) / 33;
  const n = bySize(s, [14, 14, 24, 44]);
  const T = (s.big ? 2.6 : 3.2) * (0.2 + 0.85 * Math.min(2, ring));
  let up = "";
  let down = "";
  for (let i = 0; i <= n; i++) {
    const a = (Math.PI * i) / n;
    const x = (50 - Math.cos(a) * half(YS)).toFixed(1);
    const y = YS + Math.sin(a) * e;
    const f = Math.sin(a) * 0.5 + 0.5;
    up += `${i ? "L" : "M"}${x},${(y - T * f * (0.25 + 0.95 * halton(i + 1, 2))).toFixed(1)}`;
    down = `L${x},${(y + T * f * (0.1 + 0.45 * halton(i + 4, 3))).toFixed(1)}${down}`;
  }
  return (
    <path
      d={`${up}${down}Z`}
      fill="var(--gloss)"
      stroke={EDGE}
      strokeWidth={s.fine * 0.9}
      strokeLinejoin="round"
    />
  );
}

export function TdsMark({ tds, s }: { tds: [number, number]; s: Size }): ReactElement {
  const Y = (v: number): number => G.floor - (G.floor - YS - 8) * Math.min(1, v / SCALE.tds_top);
  const step = s.big ? 100 : 250;
  let ticks = "";
  for (let v = 0; v <= SCALE.tds_top; v += step) {
    const x = 50 + half(Y(v));
    ticks += `M${x - (v % 500 ? 3 : 5)},${Y(v)}H${x - 0.6}`;
  }
  const y = Y((tds[0] + tds[1]) / 2);
  const x = 50 + outerHalf(y);
  return (
    <>
      <path d={ticks} stroke={EDGE} strokeWidth={s.fine * 0.85} opacity={0.6} />
      <path d={`M${x + 1.4},${y} l5.5,-3.2 v6.4Z`} fill="var(--glass-ink)" />
      {s.big && (
        <path
          d={`M${x + 8},${Y(tds[0])}V${Y(tds[1])}`}
          stroke="var(--glass-ink)"
          strokeWidth={s.fine * 2}
        />
      )}
    </>
  );
}
