/** What a total does not hold yet, on its face. */
import type { ReactElement } from "react";

import { say } from "../app/language";

/** A total, or the least that it comes to while something has no price yet. */
export const atLeast = (sum: string, missing: readonly string[]): string =>
  missing.length > 0 ? say("at least {sum}", { sum }) : sum;

export function Missing({ what }: { what: readonly string[] }): ReactElement | null {
  if (what.length === 0) return null;
  return (
    <span className="block text-s text-zest-ink font-semibold mt-1">
      {say("not priced: {x}", { x: what.join(", ") })}
    </span>
  );
}
