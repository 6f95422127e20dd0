import { dayOfYear, dayShort } from "../../app/when";
import { say } from "../../app/language";
/** Days as they are said, and the day as a form wants it. */

/** A day of the server's as this page's local date. */
export function dayOf(iso: string): Date {
  const [y, m, d] = iso.split("-").map(Number);
  return new Date(y ?? 1970, (m ?? 1) - 1, d ?? 1);
}

export function iso(d: Date): string {
  const two = (n: number): string => String(n).padStart(2, "0");
  return `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}`;
}

export const today = (): string => iso(new Date());

export function said(day: string): string {
  const d = dayOf(day);
  return d.getFullYear() === new Date().getFullYear() ? dayOfYear(d) : dayShort(d);
}

/** Whole days from one day to another. */
export function daysBetween(from: string, to: string): number {
  return Math.round((dayOf(to).getTime() - dayOf(from).getTime()) / 86_400_000);
}

/** How far a day is from today, in words: "7 days over", "today", "in 9 days". */
export function fromToday(day: string, now: string = today()): string {
  const n = daysBetween(now, day);
  if (n === 0) return "today";
  const days = (k: number): string => (k === 1 ? say("1 day") : say("{k} days", { k }));
  if (n < 0) return say("{x} over", { x: days(-n) });
  if (n <= 60) return say("in {n}", { n: days(n) });
  return said(day);
}
