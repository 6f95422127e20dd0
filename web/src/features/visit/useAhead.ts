/**
 * What was changed here and is on its way: it stands on the page until what the server sent back
 * holds it, so that a touch in between is put on top of it and not on what was there before.
 */
import { useState } from "react";

import { Failed } from "../../api/client";

interface Way<T> {
  value: T;
  /** The version the server gave it, once it did. */
  kept: number | null;
}

export interface Ahead<T> {
  /** What stands until the server's answer holds it; null when there is nothing to wait for. */
  value: T | null;
  goes: (value: T) => void;
  arrived: (value: T, version: number) => void;
  /** What the server refused is given up; what did not get there stays, to be sent again. */
  failed: (error: unknown) => void;
}

/** A request that did not get through, or met a server that could not take it just now. */
const notTaken = (error: unknown): boolean =>
  error instanceof Failed && (error.problem.status === 0 || error.problem.status >= 500);

/** ``known`` tells which version of a value the view holds. */
export function useAhead<T>(known: (value: T) => number): Ahead<T> {
  const [way, setWay] = useState<Way<T> | null>(null);
  const stands = way !== null && (way.kept === null || way.kept > known(way.value));
  return {
    value: stands ? way.value : null,
    goes: (value) => setWay({ value, kept: null }),
    arrived: (value, version) => setWay((w) => (w?.value === value ? { value, kept: version } : w)),
    failed: (error) => {
      if (!notTaken(error)) setWay(null);
    },
  };
}
