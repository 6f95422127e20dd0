/** A water drawn as a glass from its own numbers: the product's face, from 24 px to full screen. */
import { useId, type ReactElement, type ReactNode } from "react";

import { halton, inWords, rgb, SCALE, shade, tint, veil, type Look, type Rgb } from "./look";
import { Slice } from "./Slice";

const G = { rim: 8, foot: 129, deep: 137, floor: 116, rw: 36, fw: 29, fill: 29 };
const outerHalf = (y: number): number => G.rw - ((G.rw - G.fw) * (y - G.rim)) / (G.foot - G.rim);
const half = (y: number): number => outerHalf(y) - 2.9;
const EDGE = "#10302A";
const OUTER = [
  `M${50 - G.rw},${G.rim} L${50 - outerHalf(126)},126`,
  `Q${50 - outerHalf(129) + 0.3},${G.foot + 3.4} 28,${G.deep - 2.2}`,
  `Q50,${G.deep + 1.6} 72,${G.deep - 2.2}`,
  `Q${50 + outerHalf(129) - 0.3},${G.foot + 3.4} ${50 + outerHalf(126)},126`,
  `L${50 + G.rw},${G.rim}`,
].join(" ");
const YS = G.fill;
const BODY = [
  `M${50 - half(YS)},${YS} L${50 - half(G.floor)},${G.floor - 2}`,
  `Q${50 - half(G.floor) + 1},${G.floor + 2.4} 31,${G.floor + 3.6}`,
  `Q50,${G.floor + 5.6} 69,${G.floor + 3.6}`,
  `Q${50 + half(G.floor) - 1},${G.floor + 2.4} ${50 + half(G.floor)},${G.floor - 2}`,
  `L${50 + half(YS)},${YS} Z`,
].join(" ");
const HEEL = [
  `M0,${G.floor - 2} H14 Q${50 - half(G.floor) + 1},${G.floor + 2.4} 31,${G.floor + 3.6}`,
  `Q50,${G.floor + 5.6} 69,${G.floor + 3.6}`,
  `Q${50 + half(G.floor) - 1},${G.floor + 2.4} 86,${G.floor - 2} H100 V150 H0Z`,
].join(" ");

interface Size {
  k: number;
  big: boolean;
  mid: boolean;
  chip: boolean;
  line: number;
  fine: number;
}

type Fits = Pick<Size, "chip" | "mid" | "big">;

/** One of four, for a glass that is a chip, small, middling or big. */
function bySize(s: Fits, [chip, small, middling, big]: [number, number, number, number]): number {
  if (s.chip) return chip;
  if (s.big) return big;
  return s.mid ? middling : small;
}

function sizeOf(h: number): Size {
  const k = h / 140;
  const big = h >= 300;
  const chip = h < 40;
  return {
    k,
    big,
    chip,
    mid: h >= 70,
    line: bySize({ chip, big, mid: true }, [1.5, 1.9, 1.9, 2.4]) / k,
    fine: (big ? 1.3 : 1) / k,
  };
}

function Feet({ look, s, hatch }: { look: Look; s: Size; hatch: string }): ReactElement | null {
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

function Haze({ ntu, s, blur }: { ntu: number; s: Size; blur: string }): ReactElement | null {
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
      <rect x={0} y={YS} width={100} height={100} fill="#F6F2E6" opacity={v * 0.55} />
      {Array.from({ length: 7 }, (_, i) => (
        <ellipse
          key={i}
          cx={22 + halton(i + 1, 3) * 56}
          cy={YS + 12 + halton(i + 1, 2) * (G.floor - YS - 16)}
          rx={15 + 8 * halton(i + 2, 5)}
          ry={4 + 3 * halton(i + 3, 7)}
          fill="#FBF7EA"
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

function Crystals({ hard, s }: { hard: [number, number]; s: Size }): ReactElement {
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
            fill={solid ? "#FFFFFC" : "none"}
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

function Fizz({
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
      const style = { fill: "#FFFFFC", fillOpacity: 0.6, stroke: EDGE, strokeWidth: s.fine * 0.9 };
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

function Crust({ ring, s }: { ring: number; s: Size }): ReactElement | null {
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
      fill="#FFFFFC"
      stroke={EDGE}
      strokeWidth={s.fine * 0.9}
      strokeLinejoin="round"
    />
  );
}

function TdsMark({ tds, s }: { tds: [number, number]; s: Size }): ReactElement {
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

function Shadow({
  colour,
  predicted,
  blur,
}: {
  colour: Rgb;
  predicted: boolean;
  blur: string;
}): ReactElement {
  return (
    <g filter={`url(#${blur})`} style={{ opacity: "var(--shade)" }}>
      <ellipse
        cx={73}
        cy={G.deep - 0.5}
        rx={38}
        ry={4.6}
        fill={shade(colour, 0.82)}
        opacity={predicted ? 0.45 : 0.8}
      />
      <ellipse
        cx={52}
        cy={G.deep - 1}
        rx={29}
        ry={3}
        fill={EDGE}
        opacity={predicted ? 0.22 : 0.42}
      />
    </g>
  );
}

export interface GlassProps {
  look: Look;
  h?: number;
  label: string;
  pick?: 0 | 1 | 2;
  /** Drawn inside the water and above it (a probe). */
  inside?: ReactNode;
  above?: ReactNode;
  pouring?: boolean;
}

/** Names of the patterns and clips of one glass, unlike those of any other on the page. */
interface Ids {
  water: string;
  outside: string;
  rule: string;
  hatch: string;
  blur: string;
  cloud: string;
  air: string;
}

function idsOf(id: string): Ids {
  return {
    water: `${id}w`,
    outside: `${id}o`,
    rule: `${id}h`,
    hatch: `${id}k`,
    blur: `${id}b`,
    cloud: `${id}c`,
    air: `${id}a`,
  };
}

function Hatch({ id, stroke, s }: { id: string; stroke: string; s: Size }): ReactElement {
  const tile = s.big ? 5 : 6;
  return (
    <pattern
      id={id}
      width={tile}
      height={tile}
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <path
        d={`M0,0V${tile}`}
        stroke={stroke}
        strokeWidth={s.chip ? 2.4 : 1.3 / Math.max(s.k, 0.7)}
      />
    </pattern>
  );
}

function Defs({ ids, s }: { ids: Ids; s: Size }): ReactElement {
  return (
    <defs>
      <clipPath id={ids.water}>
        <path d={BODY} />
      </clipPath>
      <clipPath id={ids.outside}>
        <path d={`${OUTER}Z`} />
      </clipPath>
      <Hatch id={ids.rule} stroke="var(--glass-ink)" s={s} />
      <Hatch id={ids.hatch} stroke={EDGE} s={s} />
      <filter id={ids.blur} x="-60%" y="-200%" width="220%" height="500%">
        <feGaussianBlur stdDeviation={s.big ? 2.6 : 2.2} />
      </filter>
      <filter id={ids.cloud} x="-60%" y="-60%" width="220%" height="220%">
        <feGaussianBlur stdDeviation={4.5} />
      </filter>
    </defs>
  );
}

/** The thick foot of the glass, with a square for each test. */
function Heel({ l, s, ids, colour }: { l: Look; s: Size; ids: Ids; colour: Rgb }): ReactElement {
  return (
    <g clipPath={`url(#${ids.outside})`}>
      <path
        d={HEEL}
        fill={l.predicted ? "var(--glass-body)" : shade(colour, 0.86)}
        opacity={l.predicted ? 0.2 : 0.55}
      />
      <Feet look={l} s={s} hatch={ids.rule} />
    </g>
  );
}

const SHADE = `M${50 + half(YS) - 7},${YS} L${50 + half(G.floor) - 7},${G.floor + 6} H100 V${YS}Z`;

/** Oxidised iron, settled on the floor. */
function Rust({ ferric, s }: { ferric: number; s: Size }): ReactElement | null {
  if (ferric <= 0.15 || !s.mid) return null;
  const most = Math.min(3, ferric);
  const from =
    `M${50 - half(G.floor)},${G.floor + 8} ` + `Q30,${G.floor - 2 - 3 * most} 46,${G.floor - 0.5}`;
  return (
    <path
      d={`${from} T74,${G.floor - 1 - most} L90,${G.floor + 8}Z`}
      fill="#8A4A1D"
      opacity={0.55}
    />
  );
}

/** What was not tested, hatched from the floor up. */
function Unseen({ share, s, ids }: { share: number; s: Size; ids: Ids }): ReactElement | null {
  if (share <= 0) return null;
  const height = (G.floor + 6 - YS) * share;
  return (
    <rect
      x={0}
      y={G.floor + 6 - height}
      width={100}
      height={height}
      fill={`url(#${ids.hatch})`}
      opacity={s.chip ? 0.75 : 0.42}
    />
  );
}

function Surface({ colour, s }: { colour: Rgb; s: Size }): ReactElement {
  if (s.chip)
    return (
      <path
        d={`M${50 - half(YS)},${YS}H${50 + half(YS)}`}
        stroke={EDGE}
        strokeWidth={s.line * 0.8}
      />
    );
  return (
    <ellipse
      cx={50}
      cy={YS}
      rx={half(YS)}
      ry={(4.2 * half(YS)) / 33}
      fill={shade(colour, 1.03)}
      stroke={EDGE}
      strokeWidth={s.fine}
    />
  );
}

/** The water: its tint, and all that is in it. */
function Water({
  l,
  s,
  ids,
  colour,
  inside,
}: {
  l: Look;
  s: Size;
  ids: Ids;
  colour: Rgb;
  inside: ReactNode;
}): ReactElement {
  return (
    <>
      <path d={BODY} fill={rgb(colour)} style={{ transition: "fill var(--settle)" }} />
      <g clipPath={`url(#${ids.water})`}>
        <path d={SHADE} fill={shade(colour, 0.9)} opacity={0.55} />
        <Rust ferric={l.ferric} s={s} />
        <Haze ntu={l.ntu} s={s} blur={ids.cloud} />
        {inside}
        {inside !== undefined && (
          <rect x={0} y={YS} width={100} height={110} fill={rgb(colour)} opacity={0.5} />
        )}
        {l.hard && <Crystals hard={l.hard} s={s} />}
        <Fizz free={l.free} combined={l.combined} s={s} />
        <Unseen share={l.unseen} s={s} ids={ids} />
      </g>
      <Surface colour={colour} s={s} />
      <Crust ring={l.ring} s={s} />
    </>
  );
}

/** A predicted water stands in a dashed glass. */
function dashOf(l: Look, s: Size): string | undefined {
  if (!l.predicted) return undefined;
  if (s.chip) return "9 7";
  if (!s.mid) return "9 6";
  return s.big ? "3.6 2.6" : "5 3.6";
}

function Rim({ s, dash }: { s: Size; dash: string | undefined }): ReactElement {
  if (s.chip)
    return (
      <path
        d={`M${50 - G.rw},${G.rim}H${50 + G.rw}`}
        stroke="var(--glass-ink)"
        strokeWidth={s.line * 0.6}
        opacity={0.5}
      />
    );
  return (
    <ellipse
      cx={50}
      cy={G.rim}
      rx={G.rw}
      ry={4.8}
      fill="none"
      stroke="var(--glass-ink)"
      strokeWidth={s.line}
      strokeDasharray={dash}
    />
  );
}

/** What stands out of the water: the upper end of a probe. */
function Above({ id, children }: { id: string; children: ReactNode }): ReactElement {
  return (
    <>
      <clipPath id={id}>
        <rect x={-60} y={-200} width={220} height={200 + YS + 0.6} />
      </clipPath>
      <g clipPath={`url(#${id})`}>{children}</g>
    </>
  );
}

const GLEAM =
  `M${50 - half(44) + 5},44 L${50 - half(92) + 5},92` +
  `M${50 - half(98) + 5},98 L${50 - half(103) + 5},103`;

/** The glass itself: wall, rim and the light on it. */
function Wall({ s, dash }: { s: Size; dash: string | undefined }): ReactElement {
  return (
    <>
      <path
        d={OUTER}
        fill="none"
        stroke="var(--glass-ink)"
        strokeWidth={s.line}
        strokeLinejoin="round"
        strokeDasharray={dash}
      />
      <Rim s={s} dash={dash} />
      {s.mid && (
        <path d={GLEAM} stroke="#FFFFFC" strokeWidth={2.6} strokeLinecap="round" opacity={0.92} />
      )}
    </>
  );
}

export function Glass({
  look: l,
  h = 112,
  label,
  pick = 0,
  inside,
  above,
  pouring = false,
}: GlassProps): ReactElement {
  const ids = idsOf(useId());
  const s = sizeOf(h);
  const colour = tint(l);
  return (
    <svg
      className="glass"
      width={100 * s.k}
      height={h}
      viewBox="0 0 100 140"
      overflow="visible"
      role="img"
      aria-label={`${label}: ${inWords(l).join("; ")}`}
    >
      <Defs ids={ids} s={s} />
      {!s.chip && <Shadow colour={colour} predicted={l.predicted} blur={ids.blur} />}
      <path d={`${OUTER}Z`} fill="var(--glass-body)" fillOpacity={0.72} />
      <Heel l={l} s={s} ids={ids} colour={colour} />
      <g className={pouring ? "pour" : undefined}>
        <Water l={l} s={s} ids={ids} colour={colour} inside={inside} />
      </g>
      {!s.chip && (
        <path d={BODY} fill="none" stroke={EDGE} strokeWidth={s.fine * 0.9} opacity={0.55} />
      )}
      {l.tds && s.mid && <TdsMark tds={l.tds} s={s} />}
      {above && <Above id={ids.air}>{above}</Above>}
      <Wall s={s} dash={dashOf(l, s)} />
      {pick > 0 && <Slice x={84} y={9} r={s.chip ? 26 : 16} half={pick === 2} width={s.line} />}
    </svg>
  );
}
