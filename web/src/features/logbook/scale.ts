/** The time and the scale that a home’s charts share. */
import type { HomeYears } from "./hooks";

const DAY = 86_400_000;

export interface Span {
  from: number;
  to: number;
}

/** The time that all charts of a home share, with a month of air on both sides. */
export function spanOf(home: HomeYears): Span {
  const times = [
    ...home.series.flatMap((s) => s.points.map((p) => Date.parse(p.at))),
    ...home.events.map((e) => Date.parse(e.at)),
  ];
  const from = Math.min(...times, Date.now()) - 30 * DAY;
  const to = Math.max(...times, Date.now() - 30 * DAY) + 30 * DAY;
  return { from, to };
}

/** December to February of each year within a span. */
export function winters(s: Span): [number, number][] {
  const out: [number, number][] = [];
  for (let y = new Date(s.from).getFullYear() - 1; y <= new Date(s.to).getFullYear(); y += 1) {
    const a = Math.max(new Date(y, 11, 1).getTime(), s.from);
    const b = Math.min(new Date(y + 1, 2, 1).getTime(), s.to);
    if (a < b) out.push([a, b]);
  }
  return out;
}

/** A round number at or above a value, for the top of a scale. */
export function roundUp(v: number): number {
  if (!(v > 0)) return 1;
  const p = 10 ** Math.floor(Math.log10(v));
  return ([1, 2, 2.5, 5, 10].find((m) => m * p >= v - 1e-12) ?? 10) * p;
}
