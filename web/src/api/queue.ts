/**
 * Readings on their way: mutations of the one query client, sent again until the server has them.
 *
 * Each is written down in the browser's store under a place of its own as long as it is on its way,
 * so that neither a reload nor a second tab loses it. Every tab takes up what another one wrote
 * down; the one that sends it holds its lock, and the others hear what arrived. A reading that the
 * server cannot take now does not hold back the others; one that it will never take is set aside,
 * shown, and can be mended.
 */
import {
  dehydrate,
  focusManager,
  hydrate,
  useMutationState,
  useQuery,
  type Mutation,
} from "@tanstack/react-query";
import { useMemo } from "react";

import { api, currentToken, data, Failed } from "./client";
import { me, own, queries } from "./hooks";
import type { KeptReading, Observation, Problem, Reading, VisitView } from "./types";

export interface Waiting {
  visit: string;
  sample: string;
  reading: Reading;
}

export interface Refused extends Waiting {
  refused: Problem;
}

/** What an older page wrote down. */
type Older = Waiting & { refused?: Problem };
type OnItsWay = Mutation<KeptReading | null, Error, Waiting>;
type Dehydrated = ReturnType<typeof dehydrate>["mutations"][number];

const KEY = ["reading"] as const;
const PLACE = "zesty.waiting:";
const SAVED_AT = own("when a reading was saved last");
const AGAIN_MS = 3000;
const LATER = new Set([0, 401, 403, 408, 429]);
const cache = queries.getMutationCache();
const channel = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("zesty");

interface Options {
  mutationKey: string[];
  scope: { id: string };
  /** Whether the browser's store has it: if it is gone from there, another tab has sent it. */
  meta: { written: boolean };
}

const optionsOf = (id: string, written = false): Options => ({
  mutationKey: [...KEY, id],
  scope: { id: `reading ${id}` },
  meta: { written },
});

function onTheirWay(id?: string): OnItsWay[] {
  const mutationKey = id === undefined ? KEY : [...KEY, id];
  return cache.findAll({ mutationKey }) as unknown as OnItsWay[];
}

/** What refused it for good; null when the server may take it later. */
function refusal(error: unknown): Problem | null {
  // what was read from the store is no Failed any more, but has its problem still
  const problem = (error as Partial<Failed> | null)?.problem;
  if (!problem || LATER.has(problem.status) || problem.status >= 500) return null;
  return problem;
}

// ---- the browser's store ----

function written(id: string): string | null {
  try {
    return localStorage.getItem(PLACE + id);
  } catch {
    return null; // a forbidden store
  }
}

function writeDown(mutation: OnItsWay, id: string): void {
  const meta = mutation.meta as Options["meta"];
  meta.written = true;
  const [kept] = dehydrate(queries, {
    shouldDehydrateMutation: (m: unknown) => m === mutation,
    shouldDehydrateQuery: () => false,
  }).mutations;
  try {
    localStorage.setItem(PLACE + id, JSON.stringify(kept));
  } catch {
    meta.written = false; // a full or forbidden store: it waits in memory and is being sent
  }
}

function crossOut(id: string): void {
  try {
    localStorage.removeItem(PLACE + id);
  } catch {
    // nothing was written there
  }
}

/** What an older page wrote down: the reading with where it belongs, and why it was refused. */
function fromOlder({ refused, ...variables }: Older): Dehydrated {
  const error = refused ? new Failed(refused) : null;
  return {
    ...optionsOf(variables.reading.id, true),
    state: {
      context: undefined,
      data: undefined,
      error,
      failureCount: 0,
      failureReason: error,
      isPaused: false,
      status: error ? "error" : "pending",
      variables,
      submittedAt: Date.parse(variables.reading.made_at),
    },
  };
}

/** What is written under a place; null where it is no reading on its way. */
function parsed(id: string, raw: string): Dehydrated | null {
  try {
    const found = JSON.parse(raw) as Dehydrated | Older;
    const stored = "state" in found ? found : fromOlder(found);
    return (stored.state.variables as Waiting).reading.id === id ? stored : null;
  } catch {
    return null;
  }
}

/** Take up what another tab, or this one before it was loaded anew, wrote down. */
function takeUp(id: string, raw: string): void {
  const stored = parsed(id, raw);
  if (stored === null) return;
  hydrate(queries, { mutations: [stored], queries: [] });
  const taken = onTheirWay(id).at(-1);
  if (taken?.state.status === "pending") taken.continue().catch(() => undefined);
}

function takeUpAll(): void {
  try {
    for (const place of Object.keys(localStorage)) {
      const raw = place.startsWith(PLACE) ? localStorage.getItem(place) : null;
      if (raw !== null) takeUp(place.slice(PLACE.length), raw);
    }
  } catch {
    // a forbidden store: nothing was written there
  }
}

// ---- sending ----

/** A visit with a reading that the server keeps now: shown at once, the rest follows. */
function withReading(view: VisitView, kept: KeptReading): VisitView {
  const samples = view.visit.samples.map((s) =>
    s.id === kept.sample
      ? { ...s, readings: [...s.readings.filter((r) => r.id !== kept.id), kept.reading] }
      : s,
  );
  return { ...view, visit: { ...view.visit, samples } };
}

function arrived(kept: KeptReading, visit: string): void {
  queries.setQueryData(SAVED_AT, Date.now());
  queries.setQueryData<VisitView>(["visit", visit], (old) => old && withReading(old, kept));
  void queries.invalidateQueries({ queryKey: ["visit", visit] });
}

const put = ({ visit, sample, reading }: Waiting): Promise<KeptReading> =>
  data(
    api.PUT("/api/visits/{id}/samples/{sample_id}/readings/{reading_id}", {
      params: { path: { id: visit, sample_id: sample, reading_id: reading.id } },
      body: reading,
    }),
  );

/** Whether another tab sent it meanwhile, or a repeat was added that goes instead. */
function isSettled(entry: Waiting, meta: Options["meta"]): boolean {
  const raw = written(entry.reading.id);
  if (raw === null) return meta.written;
  const now = parsed(entry.reading.id, raw)?.state.variables as Waiting | undefined;
  return now !== undefined && JSON.stringify(now.reading) !== JSON.stringify(entry.reading);
}

async function send(
  entry: Waiting,
  { meta }: { meta: Record<string, unknown> | undefined },
): Promise<KeptReading | null> {
  if (currentToken() === "") await queries.ensureQueryData(me);
  const once = async (): Promise<KeptReading | null> =>
    isSettled(entry, meta as unknown as Options["meta"]) ? null : put(entry);
  if (!("locks" in navigator)) return once();
  return navigator.locks.request(`zesty.reading ${entry.reading.id}`, once);
}

queries.setMutationDefaults([...KEY], {
  mutationFn: send,
  networkMode: "always",
  gcTime: Infinity,
  retry: (_, error) => refusal(error) === null,
  retryDelay: AGAIN_MS,
  // the page takes it over before it is off the list: a reading is never out of sight
  onSuccess: (kept: KeptReading | null, { visit }: Waiting) => {
    if (kept === null) return;
    arrived(kept, visit);
    channel?.postMessage({ kept, visit });
  },
});

cache.subscribe((event) => {
  if (event.type !== "updated" || event.mutation.options.mutationKey?.[0] !== KEY[0]) return;
  const m = event.mutation as unknown as OnItsWay;
  const id = m.state.variables?.reading.id;
  if (id === undefined) return;
  const last = onTheirWay(id).at(-1) === m; // none that was added meanwhile still has to go
  const { type } = event.action;
  // only what another tab has to know: a further try that failed is not
  if (last && (type === "pending" || type === "error")) writeDown(m, id);
  if (type !== "success") return;
  if (last) crossOut(id);
  cache.remove(event.mutation);
});

function leave(id: string): void {
  crossOut(id);
  for (const m of onTheirWay(id)) cache.remove(m);
}

// ---- what the page calls ----

/**
 * Keep a reading: first here, then on the server. Resolves when the server has it, or null while it
 * does not answer; rejects when the server will not take it.
 */
export function keep(entry: Waiting): Promise<KeptReading | null> {
  const { id } = entry.reading;
  const mutation = cache.build<KeptReading | null, Error, Waiting, unknown>(queries, optionsOf(id));
  return new Promise((resolve, reject) => {
    let listens = true;
    const stop = cache.subscribe((event) => {
      if (event.mutation !== (mutation as unknown)) return;
      if (event.type === "updated" && event.action.type === "failed") end(() => resolve(null));
    });
    const end = (how: () => void): void => {
      if (listens) how();
      listens = false;
      stop();
    };
    mutation.execute(entry).then(
      (kept) => end(() => resolve(kept)),
      (error: unknown) =>
        end(() => {
          leave(id); // it is still on the screen that it was typed on, with the reason
          reject(error instanceof Error ? error : new Error(String(error)));
        }),
    );
  });
}

/** Give up what was set aside; nothing of it was ever kept. */
export function giveUp(entry: Waiting): void {
  leave(entry.reading.id);
}

/** Put right what was set aside, and send it again. */
export function mend({ visit, sample, reading }: Waiting, observation: Observation): void {
  leave(reading.id);
  const mended = { visit, sample, reading: { ...reading, observation } };
  const again = cache.build<KeptReading | null, Error, Waiting, unknown>(
    queries,
    optionsOf(reading.id),
  );
  again.execute(mended).catch(() => undefined); // refused again: it is set aside again
}

interface State {
  entry: Waiting;
  refused: Problem | null;
  offline: boolean;
}

interface Shown {
  waiting: Waiting[];
  aside: Refused[];
  savedAt: number | null;
  offline: boolean;
}

/** All that is on its way or was set aside, the last of each reading, in the order made. */
export function useQueue(): Shown {
  const all = useMutationState({
    filters: { mutationKey: [...KEY], predicate: ({ state }) => state.status !== "idle" },
    select: ({ state }): State => ({
      entry: state.variables as Waiting,
      refused: state.status === "error" ? refusal(state.error) : null,
      offline: state.failureCount > 0,
    }),
  });
  const { data: savedAt = null } = useQuery({ queryKey: SAVED_AT, enabled: false });
  return useMemo(() => shownOf(all, savedAt as number | null), [all, savedAt]);
}

function shownOf(all: State[], savedAt: number | null): Shown {
  const last = [...new Map(all.map((one) => [one.entry.reading.id, one])).values()].sort((a, b) =>
    a.entry.reading.made_at.localeCompare(b.entry.reading.made_at),
  );
  const pending = last.filter((one) => one.refused === null);
  return {
    waiting: pending.map((one) => one.entry),
    aside: last.flatMap(({ entry, refused }) => (refused ? [{ ...entry, refused }] : [])),
    savedAt,
    offline: pending.some((one) => one.offline),
  };
}

// ---- the other tabs ----

interface Told {
  kept: KeptReading;
  visit: string;
}

focusManager.setFocused(true); // a tab that nobody looks at sends, too
channel?.addEventListener("message", (e: MessageEvent<Told>) => {
  arrived(e.data.kept, e.data.visit);
});
window.addEventListener("storage", ({ key, newValue }) => {
  if (!key?.startsWith(PLACE)) return;
  const id = key.slice(PLACE.length);
  for (const m of onTheirWay(id)) cache.remove(m);
  if (newValue !== null) takeUp(id, newValue);
});
takeUpAll();
