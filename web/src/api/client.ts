/** Calls to the server: one client, typed by the generated schema; every failure is a Problem. */
import createClient, { type Middleware } from "openapi-fetch";

import type { paths } from "./schema.generated";
import type { Problem } from "./types";

let token = "";
export function setToken(value: string): void {
  token = value;
}
export function currentToken(): string {
  return token;
}

/** What went wrong, in the server's words: what, where, what to do. */
export class Failed extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title);
  }
}

const OFFLINE: Problem = {
  type: "about:blank",
  status: 0,
  code: "offline",
  title: "The server does not answer.",
  where: "",
  remedy: "What you typed is kept on this device and sent when it answers again.",
  changed: [],
  by: "",
  version: null,
  request: "",
  also: [],
};

const guard: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET" && token) request.headers.set("X-Zesty-Token", token);
    return request;
  },
};

export const api = createClient<paths>({ baseUrl: "/", credentials: "same-origin" });
api.use(guard);

function isProblem(value: unknown): value is Problem {
  return typeof value === "object" && value !== null && "title" in value && "code" in value;
}

/** The data of a call, or a thrown Failed. */
export async function data<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let result;
  try {
    result = await call;
  } catch {
    throw new Failed(OFFLINE);
  }
  if (result.response.ok) return result.data as T;
  const error = result.error;
  throw new Failed(
    isProblem(error)
      ? error
      : {
          ...OFFLINE,
          status: result.response.status,
          code: "unreadable",
          title: "The server’s answer could not be read.",
          remedy: "Try again.",
        },
  );
}

type Call<T> = Promise<{ data?: T; error?: unknown; response: Response }>;

/** Where the next page of a list begins, as its answer says; null on the last one. */
function nextOf(response: Response): string | null {
  const link = /<([^>]*)>;\s*rel="next"/.exec(response.headers.get("Link") ?? "")?.[1];
  return link === undefined ? null : new URL(link, location.href).searchParams.get("after");
}

/** Every row of a list that comes a page at a time. */
export async function every<T>(ask: (page: { after?: string }) => Call<T[]>): Promise<T[]> {
  const rows: T[] = [];
  for (let after: string | null = ""; after !== null;) {
    const call = ask(after === "" ? {} : { after });
    rows.push(...(await data(call)));
    after = nextOf((await call).response);
  }
  return rows;
}

/**
 * What was fetched last by a name, with its tag: asked for again, the server says when it still
 * holds.
 */
const held = new Map<string, { tag: string; value: unknown }>();
const MOST_HELD = 8;

export async function dataOnce<T>(
  name: string,
  call: (headers: Record<string, string>) => Call<T>,
): Promise<T> {
  const known = held.get(name);
  const result = await call(known ? { "If-None-Match": known.tag } : {}).catch(() => {
    throw new Failed(OFFLINE);
  });
  if (result.response.status === 304 && known) return known.value as T;
  const value = await data(Promise.resolve(result));
  const tag = result.response.headers.get("ETag");
  held.delete(name);
  if (tag !== null) held.set(name, { tag, value });
  const oldest = held.keys().next();
  if (held.size > MOST_HELD && oldest.done === false) held.delete(oldest.value);
  return value;
}

export function problemOf(error: unknown): Problem | null {
  if (error === null || error === undefined) return null;
  return error instanceof Failed
    ? error.problem
    : {
        ...OFFLINE,
        code: "page",
        title: "Something went wrong on this page.",
        remedy: "Reload it; what was saved is kept.",
      };
}
