/** Readings on their way: kept in the browser until the server has them, sent again until it answers. */
import { useSyncExternalStore } from "react";

import { api, data, Failed } from "./client";
import type { KeptReading, Problem, Reading } from "./types";

export interface Waiting {
  visit: string;
  sample: string;
  reading: Reading;
  refused?: Problem;
}

const KEY = "zesty.waiting";
const listeners = new Set<() => void>();
let waiting: Waiting[] = read();
let savedAt: number | null = null;
let offline = false;
let snapshot: { waiting: Waiting[]; savedAt: number | null; offline: boolean } = {
  waiting,
  savedAt,
  offline,
};
let running: Promise<void> | null = null;
const arrivals = new Set<(kept: KeptReading, visit: string) => void>();

function read(): Waiting[] {
  try {
    const raw = localStorage.getItem(KEY);
    return raw ? (JSON.parse(raw) as Waiting[]) : [];
  } catch {
    return [];
  }
}

function publish(): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(waiting));
  } catch {
    // a full or forbidden store: the reading still waits in memory and is being sent
  }
  snapshot = { waiting, savedAt, offline };
  listeners.forEach((l) => l());
}

/** Keep a reading: first here, then on the server. Resolves when the server has it, rejects when it refuses it. */
export async function keep(entry: Waiting): Promise<KeptReading | null> {
  waiting = [...waiting.filter((w) => w.reading.id !== entry.reading.id), entry];
  publish();
  return new Promise((resolve, reject) => {
    const done = (kept: KeptReading): void => {
      if (kept.id === entry.reading.id) {
        arrivals.delete(done);
        resolve(kept);
      }
    };
    arrivals.add(done);
    void flush().then(() => {
      const left = waiting.find((w) => w.reading.id === entry.reading.id);
      if (!left) return;
      arrivals.delete(done);
      if (left.refused) {
        const { refused } = left;
        waiting = waiting.filter((w) => w !== left);
        publish();
        reject(new Failed(refused));
      } else resolve(null);
    });
  });
}

async function sendAll(): Promise<void> {
  for (const entry of [...waiting]) {
    try {
      const kept = await data(
        api.PUT("/api/visits/{id}/samples/{sample_id}/readings/{reading_id}", {
          params: {
            path: { id: entry.visit, sample_id: entry.sample, reading_id: entry.reading.id },
          },
          body: entry.reading,
        }),
      );
      // the page takes it over first: between "on its way" and "fetched again" a reading is never out of sight
      arrivals.forEach((a) => a(kept, entry.visit));
      waiting = waiting.filter((w) => w !== entry);
      savedAt = Date.now();
      offline = false;
      publish();
    } catch (e) {
      const problem = e instanceof Failed ? e.problem : null;
      if (
        problem &&
        problem.status >= 400 &&
        problem.status < 500 &&
        ![401, 403, 408, 429].includes(problem.status)
      ) {
        waiting = waiting.map((w) => (w === entry ? { ...w, refused: problem } : w));
        publish();
      } else {
        offline = true;
        publish();
        return;
      }
    }
  }
}

/** Send what waits; one round at a time. */
export async function flush(): Promise<void> {
  running ??= sendAll().finally(() => {
    running = null;
  });
  await running;
}

export function onArrival(listener: (kept: KeptReading, visit: string) => void): () => void {
  arrivals.add(listener);
  return () => {
    arrivals.delete(listener);
  };
}

export function useQueue(): { waiting: Waiting[]; savedAt: number | null; offline: boolean } {
  return useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => snapshot,
  );
}

window.addEventListener("online", () => void flush());
window.setInterval(() => {
  if (waiting.some((w) => !w.refused)) void flush();
}, 3000);
