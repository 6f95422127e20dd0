/** What falls due, put together: by home, by day, and as what is loaded. */
import type { DueLine } from "./hooks";

export interface AtHome {
  job: string;
  customer: string;
  home: string;
  place: string;
  lines: DueLine[];
}

/** Lines by home, in the order in which their first one falls due. */
export function byHome(lines: DueLine[]): AtHome[] {
  const out = new Map<string, AtHome>();
  for (const x of lines) {
    const { job, customer, home, place } = x;
    const have = out.get(job) ?? { job, customer, home, place, lines: [] };
    have.lines.push(x);
    out.set(job, have);
  }
  return [...out.values()];
}

/** Parts of one home that fall due on one day and are one person's work, as one line. */
export function byDay(lines: DueLine[]): DueLine[] {
  const out = new Map<string, DueLine>();
  for (const x of lines) {
    const key = `${x.due_on} ${x.own}`;
    const have = out.get(key);
    out.set(key, have ? { ...have, label: `${have.label}, ${x.label}` } : x);
  }
  return [...out.values()];
}

/** What the list is narrowed to; an empty text lets everything through. */
export interface Narrowed {
  area: string;
  part: string;
  person: string;
}

/** Lines of one area, one kind of part and one person, as far as they are asked. */
export function narrowed(lines: DueLine[], to: Narrowed): DueLine[] {
  return lines.filter(
    (x) =>
      (to.area === "" || x.place === to.area) &&
      (to.part === "" || x.label === to.part) &&
      (to.person === "" || x.person === to.person),
  );
}

/** Areas in the order in which one drives; those that nobody ordered follow as they come. */
export function inDrivingOrder(places: string[], driven: string[]): string[] {
  const at = (p: string): number => (driven.includes(p) ? driven.indexOf(p) : driven.length);
  return [...places].sort((a, b) => at(a) - at(b));
}

/** What can be chosen of something: each once, in the order of the alphabet. */
export function choices(lines: DueLine[], of: "place" | "label" | "person"): string[] {
  return [...new Set(lines.map((x) => x[of]))].filter(Boolean).sort();
}

/** Work without a part. */
const WORK = new Set(["service", "test", "sanitising"]);

/** What is taken along: each part once, with how many. */
export function toLoad(lines: DueLine[]): { label: string; kind: string; n: number }[] {
  const out = new Map<string, { label: string; kind: string; n: number }>();
  for (const { label, kind } of lines) {
    if (WORK.has(kind)) continue;
    const have = out.get(label) ?? { label, kind, n: 0 };
    have.n += 1;
    out.set(label, have);
  }
  return [...out.values()].sort((a, b) => b.n - a.n);
}
