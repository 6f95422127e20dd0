/**
 * Readings on their way: kept in the browser until the server has them, sent again until it
 * answers.
 *
 * Each reading has a place of its own in the browser's store, so that two tabs never overwrite each
 * other's; only one
 * tab at a time sends (Web Locks), and all of them hear what arrived (BroadcastChannel). A reading
 * that the server
 * cannot take now does not hold back the others; one that it will never take is set aside, shown,
 * and can be mended.
 */
import { useSyncExternalStore } from "react";

import { api, data, Failed } from "./client";
import type { KeptReading, Observation, Problem, Reading } from "./types";

export interface Waiting {
  visit: string;
  sample: string;
  reading: Reading;
  refused?: Problem;
}

interface Shown {
  waiting: Waiting[];
  aside: Waiting[];
  savedAt: number | null;
  offline: boolean;
}

const PLACE = "zesty.waiting:";
const OLD = "zesty.waiting";
const listeners = new Set<() => void>();
const arrivals = new Set<(kept: KeptReading, visit: string) => void>();
const refusals = new Set<(entry: Waiting) => void>();
const memory = new Map<string, Waiting>();
const channel = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("zesty");
let savedAt: number | null = null;
let offline = false;
let running: Promise<void> | null = null;

function stored(): Map<string, Waiting> {
  const out = new Map(memory);
  try {
    for (let i = 0; i < localStorage.length; i++) {
      const key = localStorage.key(i);
      const raw = key?.startsWith(PLACE) ? localStorage.getItem(key) : null;
      if (key && raw) out.set(key.slice(PLACE.length), JSON.parse(raw) as Waiting);
    }
  } catch {
    // a forbidden store: what is in memory is being sent
  }
  return out;
}

function put(entry: Waiting): void {
  try {
    localStorage.setItem(PLACE + entry.reading.id, JSON.stringify(entry));
    memory.delete(entry.reading.id);
  } catch {
    memory.set(entry.reading.id, entry); // a full store: it waits in memory and is being sent
  }
}

function drop(id: string): void {
  memory.delete(id);
  try {
    localStorage.removeItem(PLACE + id);
  } catch {
    // nothing was kept there
  }
}

/** What an older page left under one key, each in a place of its own. */
function moveOld(): void {
  try {
    const raw = localStorage.getItem(OLD);
    if (raw) for (const w of JSON.parse(raw) as Waiting[]) put(w);
    localStorage.removeItem(OLD);
  } catch {
    // nothing of it can be read
  }
}

moveOld();
let snapshot: Shown = shown();

function shown(): Shown {
  const all = [...stored().values()].sort((a, b) =>
    a.reading.made_at.localeCompare(b.reading.made_at),
  );
  return {
    waiting: all.filter((w) => !w.refused),
    aside: all.filter((w) => w.refused),
    savedAt,
    offline,
  };
}

function publish(elsewhere = true): void {
  snapshot = shown();
  listeners.forEach((l) => l());
  if (elsewhere) channel?.postMessage({ kind: "changed" });
}

function arrived(kept: KeptReading, visit: string): void {
  arrivals.forEach((a) => a(kept, visit));
}

/**
 * Keep a reading: first here, then on the server. Resolves when the server has it, or null while it
 * does not answer.
 */
export async function keep(entry: Waiting): Promise<KeptReading | null> {
  put(entry);
  publish();
  const { id } = entry.reading;
  return new Promise((resolve, reject) => {
    const done = (): void => {
      arrivals.delete(got);
      refusals.delete(not);
    };
    const got = (kept: KeptReading): void => {
      if (kept.id !== id) return;
      done();
      resolve(kept);
    };
    const not = (refused: Waiting): void => {
      if (refused.reading.id !== id || !refused.refused) return;
      done();
      drop(id); // it is still on the screen that it was typed on, with the reason
      publish();
      reject(new Failed(refused.refused));
    };
    arrivals.add(got);
    refusals.add(not);
    void flush().then(() => {
      if (!arrivals.has(got)) return;
      done();
      resolve(null);
    });
  });
}

const LATER = new Set([401, 403, 408, 429]);

type Sent = "kept" | "aside" | "later" | "stop";

async function send(entry: Waiting): Promise<Sent> {
  try {
    const kept = await data(
      api.PUT("/api/visits/{id}/samples/{sample_id}/readings/{reading_id}", {
        params: {
          path: { id: entry.visit, sample_id: entry.sample, reading_id: entry.reading.id },
        },
        body: entry.reading,
      }),
    );
    // the page takes it over first: between "on its way" and "fetched again" a reading is never out
    // of sight
    arrived(kept, entry.visit);
    channel?.postMessage({ kind: "kept", kept, visit: entry.visit });
    const now = stored().get(entry.reading.id);
    // a repeat that was added meanwhile still has to go
    if (now && JSON.stringify(now.reading) === JSON.stringify(entry.reading)) {
      drop(entry.reading.id);
    }
    savedAt = Date.now();
    return "kept";
  } catch (e) {
    const problem = e instanceof Failed ? e.problem : null;
    if (!problem || problem.status === 0 || LATER.has(problem.status)) return "stop";
    if (problem.status >= 500) return "later";
    const refused = { ...entry, refused: problem };
    put(refused);
    refusals.forEach((r) => r(refused));
    return "aside";
  }
}

async function sendAll(): Promise<void> {
  let held = false;
  for (const entry of [...stored().values()].filter((w) => !w.refused)) {
    const how = await send(entry);
    held ||= how === "later" || how === "stop";
    offline = held;
    publish();
    if (how === "stop") return;
  }
  offline = held;
}

/** Send what waits; one round at a time, in one tab at a time. */
export async function flush(): Promise<void> {
  const round = async (): Promise<void> => {
    await sendAll();
  };
  const inTurn = async (): Promise<void> => {
    if ("locks" in navigator) await navigator.locks.request("zesty.queue", round);
    else await round();
  };
  running ??= inTurn().finally(() => {
    running = null;
  });
  await running;
}

/** Put right what was set aside, and send it again. */
export function mend(entry: Waiting, observation: Observation): void {
  put({ ...entry, reading: { ...entry.reading, observation }, refused: undefined });
  publish();
  void flush();
}

/** Give up what was set aside; nothing of it was ever kept. */
export function giveUp(entry: Waiting): void {
  drop(entry.reading.id);
  publish();
}

export function onArrival(listener: (kept: KeptReading, visit: string) => void): () => void {
  arrivals.add(listener);
  return () => {
    arrivals.delete(listener);
  };
}

export function useQueue(): Shown {
  return useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => snapshot,
  );
}

interface Told {
  kind: "kept" | "changed";
  kept?: KeptReading;
  visit?: string;
}

channel?.addEventListener("message", (e: MessageEvent<Told>) => {
  if (e.data.kind === "kept" && e.data.kept && e.data.visit) {
    savedAt = Date.now();
    arrived(e.data.kept, e.data.visit);
  }
  publish(false);
});
window.addEventListener("storage", () => publish(false));
window.addEventListener("online", () => void flush());
window.setInterval(() => {
  if (shown().waiting.length > 0) void flush();
}, 3000);
