/** A file as the body of a request. */
import { currentToken, Failed } from "./client";
import type { Problem } from "./types";

export async function upload<T>(
  path: string,
  file: Blob,
  type: string,
  method: "POST" | "PUT" = "POST",
): Promise<T> {
  let r: Response;
  try {
    r = await fetch(path, {
      method,
      body: file,
      headers: { "X-Zesty-Token": currentToken(), "Content-Type": type },
    });
  } catch {
    throw new Failed({
      type: "about:blank",
      status: 0,
      code: "offline",
      title: "The server does not answer.",
      where: "",
      remedy: "Try again when it does; the file was not read.",
      changed: [],
      by: "",
      version: null,
      request: "",
      also: [],
    });
  }
  const body: unknown = await r.json();
  if (!r.ok) throw new Failed(body as Problem);
  return body as T;
}
