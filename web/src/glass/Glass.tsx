/** A water drawn as a glass from its own numbers: the product's face, from 24 px to full screen. */
import { useId, type ReactElement, type ReactNode } from "react";

import { inWords, rgb, shade, tint, type Look, type Rgb } from "./look";
import { Slice } from "./Slice";
import { Feet, Haze, Crystals, Fizz, Crust, TdsMark } from "./Contents";
import { G, half, EDGE, OUTER, YS, BODY, HEEL, type Size, sizeOf } from "./shape";

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
      fill="var(--flakes)"
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
        <path
          d={GLEAM}
          stroke="var(--gloss)"
          strokeWidth={2.6}
          strokeLinecap="round"
          opacity={0.92}
        />
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
