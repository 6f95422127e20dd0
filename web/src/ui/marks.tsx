/** State marks: shape first, colour second. And the pip that marks a best value. */
import type { ReactElement } from "react";

import { message, say } from "../app/language";

export type Mark = "done" | "part" | "miss" | "unk" | "no" | "say";
export const MARK_WORDS: Record<Mark, string> = {
  done: message("met"),
  part: message("under way"),
  miss: message("missing"),
  unk: message("not known"),
  no: message("attention"),
  say: message("note"),
};

const SHAPES: Record<Mark, ReactElement> = {
  done: (
    <>
      <circle cx="9" cy="9" r="8" fill="var(--leaf)" />
      <path
        d="M5 9.3l2.8 2.8L13 6.500"
        fill="none"
        stroke="var(--paper)"
        strokeWidth="2"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </>
  ),
  part: (
    <>
      <circle cx="9" cy="9" r="7.2" fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      <path d="M9 9V3.5A5.5 5.5 0 1 1 3.5 9Z" fill="var(--ink)" />
    </>
  ),
  miss: (
    <circle
      cx="9"
      cy="9"
      r="7.2"
      fill="none"
      stroke="var(--ink-2)"
      strokeWidth="1.6"
      strokeDasharray="3.2 2.5"
    />
  ),
  unk: (
    <>
      <circle
        cx="9"
        cy="9"
        r="7.5"
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth="1.6"
        strokeDasharray="3.2 2.3"
      />
      <path
        d="M6.8 7.2a2.3 2.3 0 1 1 3.3 2.2c-.8.4-1.1.8-1.1 1.5"
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.7"
        strokeLinecap="round"
      />
      <circle cx="9" cy="13.2" r="1.1" fill="var(--ink)" />
    </>
  ),
  no: (
    <>
      <path
        d="M9 1L17.3 16.5H.7Z"
        fill="var(--zest)"
        stroke="var(--ink)"
        strokeWidth="1.3"
        strokeLinejoin="round"
      />
      <path d="M9 6.5v4.5" stroke="var(--drawn)" strokeWidth="2" strokeLinecap="round" />
      <circle cx="9" cy="13.7" r="1.2" fill="var(--drawn)" />
    </>
  ),
  say: (
    <>
      <path
        d="M2 3h14v9H9l-4 4v-4H2Z"
        fill="none"
        stroke="var(--ink-2)"
        strokeWidth="1.6"
        strokeLinejoin="round"
      />
    </>
  ),
};

export function StateMark({
  kind,
  size = 18,
  label,
}: {
  kind: Mark;
  size?: number;
  label?: string;
}): ReactElement {
  const text = label ?? say(MARK_WORDS[kind]);
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 18 18"
      role="img"
      aria-label={text}
      style={{ flex: "none" }}
    >
      {SHAPES[kind]}
    </svg>
  );
}

export const STATUS_MARK: Record<string, Mark> = {
  met: "done",
  say: "say",
  warn: "no",
  stop: "no",
  unknown: "unk",
};

/** The seed that marks the best value. */
export function Pip({ x, y, s = 6 }: { x: number; y: number; s?: number }): ReactElement {
  const at = (dx: number, dy: number): string => `${x + s * dx},${y + s * dy}`;
  const right = `C${at(0.95, -0.1)} ${at(0.7, 0.85)} ${at(0, 0.85)}`;
  const left = `C${at(-0.7, 0.85)} ${at(-0.95, -0.1)} ${at(0, -1.25)}`;
  return <path d={`M${at(0, -1.25)} ${right} ${left}Z`} fill="var(--ink)" />;
}
