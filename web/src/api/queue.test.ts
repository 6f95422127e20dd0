/** A reading on its way is never lost, never sent twice for nothing, never holds back another. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { Reading } from "./types";

type Queue = typeof import("./queue");
type Answer = (id: string) => Response;

const store = new Map<string, string>();
let listeners: Record<string, (event: unknown) => void> = {};
let sent: Reading[] = [];
let answer: Answer;

const entry = (id: string, drops = 3): Parameters<Queue["keep"]>[0] => ({
  visit: "v",
  sample: "s",
  reading: {
    id,
    made_at: "2026-11-20T10:00:00Z",
    observation: { method: "drops", drops, dilution: 1 },
  } as unknown as Reading,
});
const json = (status: number, body: unknown): Response =>
  new Response(JSON.stringify(body), {
    status,
    headers: { "content-type": status < 400 ? "application/json" : "application/problem+json" },
  });
const taken: Answer = (id) => json(200, { id, sample: "s", reading: { id } });
const problem = (status: number): Answer => {
  return () => json(status, { status, code: "x", title: "No.", remedy: "" });
};
const places = (): string[] => [...store.keys()].filter((k) => k.startsWith("zesty.waiting:"));

/** The store as a browser gives it: its keys are its own properties. */
const localStorage = new Proxy(
  {
    getItem: (key: string) => store.get(key) ?? null,
    setItem: (key: string, value: string) => void store.set(key, value),
    removeItem: (key: string) => void store.delete(key),
  },
  {
    ownKeys: () => [...store.keys()],
    getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
  },
);

async function opened(): Promise<Queue> {
  vi.resetModules();
  return import("./queue");
}

async function fetched(request: Request): Promise<Response> {
  if (request.method === "GET") return json(200, { token: "of this page" });
  const reading = (await request.json()) as Reading;
  sent.push(reading);
  return answer(reading.id);
}

beforeEach(() => {
  store.clear();
  sent = [];
  listeners = {};
  answer = taken;
  vi.useFakeTimers();
  vi.stubGlobal("localStorage", localStorage);
  vi.stubGlobal("BroadcastChannel", undefined);
  vi.stubGlobal("navigator", {});
  vi.stubGlobal("window", {
    addEventListener: (kind: string, listener: (event: unknown) => void) => {
      listeners[kind] = listener;
    },
  });
  vi.stubGlobal("location", { origin: "http://here" });
  vi.stubGlobal(
    "Request",
    class extends Request {
      constructor(url: string | URL | Request, init?: RequestInit) {
        super(typeof url === "string" ? `http://here${url}` : url, init);
      }
    },
  );
  vi.stubGlobal("fetch", fetched);
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("a reading", () => {
  it("is written down until the server has it", async () => {
    const { keep } = await opened();
    const kept = keep(entry("a"));
    expect(places()).toEqual(["zesty.waiting:a"]);
    expect((await kept)?.id).toBe("a");
    expect(places()).toEqual([]);
  });

  it("is sent again until the server answers", async () => {
    answer = problem(503);
    const { keep } = await opened();
    expect(await keep(entry("a"))).toBeNull();
    expect(places()).toEqual(["zesty.waiting:a"]);
    answer = taken;
    await vi.advanceTimersByTimeAsync(3100);
    expect(sent.length).toBe(2);
    expect(places()).toEqual([]);
  });

  it("that is refused goes back to where it was typed, and is not tried again", async () => {
    answer = problem(422);
    const { keep } = await opened();
    await expect(keep(entry("a"))).rejects.toThrow("No.");
    await vi.advanceTimersByTimeAsync(10_000);
    expect([sent.length, places()]).toEqual([1, []]);
  });

  it("that the server does not take now does not hold back another", async () => {
    answer = (id) => (id === "a" ? problem(500)(id) : taken(id));
    const { keep } = await opened();
    expect(await keep(entry("a"))).toBeNull();
    expect((await keep(entry("b")))?.id).toBe("b");
  });

  it("goes with its repeat once one was added while it waited", async () => {
    answer = problem(503);
    const { keep } = await opened();
    await keep(entry("a", 3));
    const again = keep(entry("a", 4));
    answer = taken;
    await vi.advanceTimersByTimeAsync(3100);
    expect((await again)?.id).toBe("a");
    const drops = sent.map((r) => (r.observation as { drops: number }).drops);
    expect(drops).toEqual([3, 4]);
  });
});

describe("what was written down", () => {
  it("is sent when the page is opened again", async () => {
    answer = problem(503);
    await (await opened()).keep(entry("a"));
    vi.clearAllTimers(); // the page is closed
    answer = taken;
    sent = [];
    await opened();
    await vi.advanceTimersByTimeAsync(10);
    expect([sent.map((r) => r.id), places()]).toEqual([["a"], []]);
  });

  it("by an older page is read, too", async () => {
    store.set("zesty.waiting:a", JSON.stringify(entry("a")));
    await opened();
    await vi.advanceTimersByTimeAsync(10);
    expect([sent.map((r) => r.id), places()]).toEqual([["a"], []]);
  });

  it("is left alone when it is no reading", async () => {
    store.set("zesty.waiting:a", "{");
    store.set("zesty.waiting:b", JSON.stringify(entry("c")));
    await opened();
    await vi.advanceTimersByTimeAsync(10);
    expect(sent).toEqual([]);
  });

  it("is not sent again once another tab has sent it", async () => {
    answer = problem(503);
    const { keep } = await opened();
    await keep(entry("a"));
    store.delete("zesty.waiting:a");
    await vi.advanceTimersByTimeAsync(3100);
    expect(sent.length).toBe(1);
  });

  it("by another tab is taken up", async () => {
    await opened();
    const newValue = JSON.stringify(entry("a"));
    store.set("zesty.waiting:a", newValue);
    listeners["storage"]?.({ key: "zesty.waiting:a", newValue });
    await vi.advanceTimersByTimeAsync(10);
    expect(sent.map((r) => r.id)).toEqual(["a"]);
  });

  it("and refused stays until it is put right or given up", async () => {
    answer = problem(422);
    store.set("zesty.waiting:a", JSON.stringify(entry("a")));
    const { giveUp, mend } = await opened();
    await vi.advanceTimersByTimeAsync(10_000);
    expect([sent.length, places()]).toEqual([1, ["zesty.waiting:a"]]);
    mend(entry("a"), { method: "drops", drops: 5, dilution: 1 });
    await vi.advanceTimersByTimeAsync(10);
    expect([sent.length, places()]).toEqual([2, ["zesty.waiting:a"]]);
    giveUp(entry("a"));
    expect(places()).toEqual([]);
  });
});
