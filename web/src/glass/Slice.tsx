/** The wheel on the rim: whole = first chosen, half = second. Shape, not colour. */
import { useId, type ReactElement } from "react";

function segments(x: number, y: number, r: number, n = 9): string {
  const R = r * 0.74;
  const q = r * 0.16;
  return Array.from({ length: n }, (_, i) => {
    const a = (i / n) * 6.2832 + 0.2;
    const b = ((i + 1) / n) * 6.2832 + 0.08;
    const m = (a + b) / 2;
    const at = (d: number, t: number): string => `${x + d * Math.cos(t)},${y + d * Math.sin(t)}`;
    return `M${at(q, m)} L${at(R, a + 0.05)} A${R},${R} 0 0 1 ${at(R, b)}Z`;
  }).join("");
}

export function Slice({
  x,
  y,
  r,
  half = false,
  width,
}: {
  x: number;
  y: number;
  r: number;
  half?: boolean;
  width: number;
}): ReactElement {
  const id = useId();
  const wheel = (
    <>
      <circle cx={x} cy={y} r={r} fill="var(--yuzu)" stroke="var(--drawn)" strokeWidth={width} />
      <circle cx={x} cy={y} r={r * 0.84} fill="var(--flesh)" />
      <path
        d={segments(x, y, r)}
        fill="var(--yuzu)"
        stroke="var(--drawn)"
        strokeOpacity={0.55}
        strokeWidth={0.5}
        strokeLinejoin="round"
      />
    </>
  );
  if (!half) return wheel;
  return (
    <g transform={`rotate(35 ${x} ${y})`}>
      <clipPath id={id}>
        <rect x={x - r - 3} y={y - r - 3} width={2 * r + 6} height={r + 3} />
      </clipPath>
      <g clipPath={`url(#${id})`}>{wheel}</g>
      <path d={`M${x - r},${y}H${x + r}`} stroke="var(--drawn)" strokeWidth={width} />
    </g>
  );
}

/** A citrus wheel that fills segment by segment: a timer, or progress of so many. */
export function Wheel({
  done,
  of,
  r = 30,
  label,
}: {
  done: number;
  of: number;
  r?: number;
  label: string;
}): ReactElement {
  return (
    <svg
      width={2 * r}
      height={2 * r}
      role="img"
      aria-label={label}
      style={{ overflow: "visible", flex: "none" }}
    >
      <circle cx={r} cy={r} r={r - 1.2} fill="var(--slip)" stroke="var(--ink)" strokeWidth={2} />
      {Array.from({ length: of }, (_, i) => {
        const a = (i / of) * 6.2832 - 1.5708 + 0.05;
        const b = ((i + 1) / of) * 6.2832 - 1.5708 - 0.05;
        const R = r * 0.8;
        const q = r * 0.2;
        const at = (d: number, t: number): string =>
          `${r + d * Math.cos(t)},${r + d * Math.sin(t)}`;
        return (
          <path
            key={i}
            d={`M${at(q, (a + b) / 2)}L${at(R, a)}A${R},${R} 0 0 1 ${at(R, b)}Z`}
            fill={i < done ? "var(--yuzu)" : "none"}
            stroke="var(--ink)"
            strokeWidth={1.3}
            strokeLinejoin="round"
          />
        );
      })}
    </svg>
  );
}
