/** What was promised and what was measured, as ranges on one scale, and the word for it. */
import type { ReactElement } from "react";

import type { Proved } from "./hooks";
import { message, say } from "../../app/language";

type Range = NonNullable<Proved["promise"]["predicted"]>;

export const VERDICT: Record<Proved["verdict"], string> = {
  "as promised": message("as promised"),
  better: message("better"),
  short: message("short"),
  "laboratory only": message("a laboratory decides"),
  "not promised": message("was not promised"),
};

/** Both ranges on one scale from 0 to the largest end there is. */
export function ProvedBars({ p }: { p: Proved }): ReactElement | null {
  const promised = p.promise.predicted;
  const ends = [promised, p.measured, p.promise.before].flatMap((r) =>
    r ? [r.best, r.high ?? r.best] : [],
  );
  const top = Math.max(...ends, 1e-9) * 1.05;
  const at = (v: number): number => (v / top) * 300;
  const bar = (r: Range, y: number, fill: string): ReactElement => (
    <rect
      x={at(r.low)}
      y={y}
      width={Math.max(3, at(r.high ?? top) - at(r.low))}
      height="10"
      fill={fill}
      stroke="var(--ink)"
      strokeWidth="1.2"
    />
  );
  if (!promised || !p.measured) return null;
  const word = say("promised {said}, measured {said2}", { said: p.promise.said, said2: p.said });
  return (
    <svg viewBox="-2 0 306 34" width="100%" role="img" aria-label={word}>
      <path d="M0,32H302" stroke="var(--ink)" strokeWidth="1.2" />
      {p.promise.before && (
        <path
          d={`M${at(p.promise.before.best)},4V32`}
          stroke="var(--ink-3)"
          strokeDasharray="2 3"
        />
      )}
      {bar(promised, 4, "var(--water-2)")}
      {bar(p.measured, 19, p.verdict === "short" ? "var(--zest)" : "var(--yuzu)")}
    </svg>
  );
}
