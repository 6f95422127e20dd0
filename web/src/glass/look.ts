/** From numbers to what a glass shows. One mapping for every screen; the legend explains it. */
import type { Quantity, Value } from "../api/types";
import scale from "../../../zesty_glass/documents/glass.json";
import { message, say } from "../app/language";

export interface Tested {
  name: string;
  done: boolean;
}

/**
 * What is drawn: tannin, rusted iron [mg/L], haze [NTU], hardness low and high [mg/L as CaCO3],
 * scale index, chlorine, TDS [mg/L].
 */
export interface Look {
  tannin: number;
  ferric: number;
  ntu: number;
  hard: [number, number] | null;
  ring: number;
  free: number;
  combined: number;
  tds: [number, number] | null;
  tests: Tested[];
  unseen: number;
  predicted: boolean;
}

export const LOOKED_FOR: readonly (readonly [string, string])[] = [
  ["tds", message("TDS")],
  ["hardness", message("hardness")],
  ["iron", message("iron")],
  ["tannin", message("tannin")],
  ["ph", message("pH")],
  ["chlorine_free", message("chlorine")],
  ["coliform", message("bacteria")],
  ["nitrate_n", message("nitrate")],
];
const VISIBLE = ["hardness", "iron", "tannin", "chlorine_free"] as const;

type Known = Pick<Quantity, "range"> | Pick<Value, "range"> | undefined;

function best(q: Known): number {
  return q?.range?.best ?? 0;
}
function ends(q: Known): [number, number] | null {
  if (!q?.range) return null;
  return [q.range.low, q.range.high ?? q.range.low * 1.3];
}

export interface Extra {
  /** Rusted iron is in it: true, false, or nobody looked. */
  ferric?: boolean | null;
  /** Colour seen in the cups as drawn. */
  scale?: number | null;
  predicted?: boolean;
}

/** The look of a water from its values by analyte. */
/** Iron that colours a water: all of it rusted, none, or a tenth where nobody looked. */
function rusted(iron: number, ferric: boolean | null): number {
  if (ferric === null) return iron * 0.1;
  return ferric ? iron : 0;
}

export function look(values: Record<string, Quantity | Value>, extra: Extra = {}): Look {
  const has = (name: string): boolean => {
    const q = values[name];
    return q !== undefined && (q.range !== null || Boolean(q.words));
  };
  const iron = best(values.iron);
  const share = VISIBLE.filter((n) => !has(n)).length / VISIBLE.length;
  return {
    tannin: best(values.tannin),
    ferric: rusted(iron, extra.ferric ?? null),
    ntu: best(values.turbidity),
    hard: ends(values.hardness),
    ring: Math.max(0, extra.scale ?? 0),
    free: best(values.chlorine_free),
    combined: best(values.chlorine_combined),
    tds: ends(values.tds),
    tests: LOOKED_FOR.map(([id, name]) => ({ name, done: has(id) })),
    unseen: share,
    predicted: extra.predicted ?? false,
  };
}

export const EMPTY: Look = look({});

export type Rgb = [number, number, number];
/** Colour of the water: Beer–Lambert by channel on a pale clear water. */
export function tint(l: Pick<Look, "tannin" | "ferric">): Rgb {
  return scale.clear.map((c, i) =>
    Math.round(
      c * Math.exp(-((scale.tannin[i] ?? 0) * l.tannin + (scale.rust[i] ?? 0) * l.ferric)),
    ),
  ) as Rgb;
}
export const rgb = (c: readonly number[]): string => `rgb(${c.join(",")})`;
export const shade = (c: Rgb, by: number): string =>
  rgb(c.map((v) => Math.round(Math.min(255, v * by))));
export const veil = (ntu: number): number => 1 - Math.exp(-scale.haze * ntu);
export const SCALE = scale;

/** Points that look scattered and never change. */
export function halton(index: number, base: number): number {
  let f = 1;
  let r = 0;
  let i = index;
  while (i > 0) {
    f /= base;
    r += f * (i % base);
    i = Math.floor(i / base);
  }
  return r;
}

/** Hardness as one looks at it, by its ends [mg/L as CaCO3]. */
function hardness(low: number, high: number): string {
  if (high < 20) return say("hardly any hardness");
  if (high < 70) return say("some hardness");
  return low > 170 ? say("full of hardness") : say("hard");
}

/** What the picture says, in words: stands beside every glass and in its label. */
export function inWords(l: Look): string[] {
  const out: string[] = [];
  const tests = l.tests.filter((t) => t.done).length;
  if (tests === 0) return [say("nothing tested yet")];
  if (l.tannin >= 0.3) out.push(say("tea-colored"));
  if (l.ferric >= 0.15) out.push(say("rust-colored"));
  if (l.ntu >= 1) out.push(say("hazy"));
  if (l.hard) out.push(hardness(...l.hard));
  if (l.free >= 0.1 || l.combined >= 0.1)
    out.push(l.combined > l.free ? say("chloramine") : say("chlorine"));
  if (l.ring > 0.3) out.push(say("leaves scale when heated"));
  if (out.length === 0) out.push(say("clear to look at"));
  const left = l.tests.filter((t) => !t.done).map((t) => say(t.name));
  if (left.length) out.push(say("not tested: {x}", { x: left.join(", ") }));
  return out;
}
