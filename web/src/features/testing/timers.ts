/**
 * Timers that keep running while another test is done, and through a reload. No sound unless it is
 * asked for.
 */
import { useEffect, useState, useSyncExternalStore } from "react";

import { newId } from "../../app/names";

export interface Timer {
  id: string;
  label: string;
  visit: string;
  startedAt: number;
  endsAt: number;
}

const KEY = "zesty.timers";
const listeners = new Set<() => void>();
let timers: Timer[] = read();

function read(): Timer[] {
  try {
    const old = JSON.parse(localStorage.getItem(KEY) ?? "[]") as Timer[];
    return old.filter((t) => Date.now() - t.endsAt < 3_600_000);
  } catch {
    return [];
  }
}

function publish(next: Timer[]): void {
  timers = next;
  try {
    localStorage.setItem(KEY, JSON.stringify(timers));
  } catch {
    // they run on this page only
  }
  listeners.forEach((l) => l());
}

/** Start a timer of so many seconds; one with the same label starts anew. */
export function startTimer(label: string, seconds: number, visit: string): void {
  const now = Date.now();
  publish([
    ...timers.filter((t) => t.label !== label || t.visit !== visit),
    { id: newId(), label, visit, startedAt: now, endsAt: now + seconds * 1000 },
  ]);
}

export function stopTimer(id: string): void {
  publish(timers.filter((t) => t.id !== id));
}

export function useTimers(visit: string): Timer[] {
  const all = useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => timers,
  );
  return all.filter((t) => t.visit === visit);
}

/** The time, four times a second while something runs. */
export function useNow(running: boolean): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!running) return;
    const id = window.setInterval(() => setNow(Date.now()), 250);
    return () => window.clearInterval(id);
  }, [running]);
  return now;
}

export function clock(ms: number): string {
  const s = Math.max(0, Math.ceil(ms / 1000));
  const two = (n: number): string => String(n % 60).padStart(2, "0");
  const minutes = Math.floor(s / 60);
  const hours = Math.floor(minutes / 60);
  return hours > 0 ? `${hours}:${two(minutes)}:${two(s)}` : `${minutes}:${two(s)}`;
}

/** The time with its offset from UTC, to the second. */
export function exactNow(at: Date = new Date()): string {
  const d = at;
  const off = -d.getTimezoneOffset();
  const p = (n: number): string => String(Math.floor(Math.abs(n))).padStart(2, "0");
  const local = new Date(d.getTime() + off * 60_000).toISOString().slice(0, 19);
  return `${local}${off < 0 ? "-" : "+"}${p(off / 60)}:${p(Math.abs(off) % 60)}`;
}
