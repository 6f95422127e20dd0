/** Each drop as a step on a line, in the kit's own unit. */
import type { ReactElement } from "react";

import { num } from "../../app/show";
import { say } from "../../app/language";

export function Ruler({
  n,
  value,
  unit,
}: {
  n: number;
  value: number;
  unit: string;
}): ReactElement {
  const most = Math.max(18, Math.ceil((n + 2) / 6) * 6);
  const X = (v: number): number => (v * 560) / most;
  const step = [5, 10, 20, 50, 100, 200].find((s) => most / s <= 5) ?? 500;
  const marks = Array.from({ length: 6 }, (_, i) => i * step).filter((v) => v <= most - step / 3);
  return (
    <svg viewBox="0 0 570 100" width="100%" style={{ maxWidth: 570 }} aria-hidden="true">
      {Array.from({ length: most }, (_, i) => i + 1).map((i) =>
        i === n ? (
          <rect
            key={i}
            x={X(i - 1) + 1}
            y={36}
            width={X(i) - X(i - 1) - 2}
            height={28}
            fill="var(--yuzu)"
            stroke="var(--drawn)"
            strokeWidth={2}
          />
        ) : (
          <path
            key={i}
            d={`M${X(i - 1) + 2},50H${X(i) - 2}`}
            stroke={i < n ? "var(--ink)" : "var(--rule)"}
            strokeWidth={i < n ? 10 : 4}
          />
        ),
      )}
      {marks.map((v) => (
        <g key={v}>
          <path d={`M${X(v)},70v7`} stroke="var(--ink-2)" strokeWidth={1.5} />
          <text
            x={X(v)}
            y={94}
            textAnchor={v ? "middle" : "start"}
            fontSize={15}
            style={{ fill: "var(--ink-2)" }}
          >
            {num(v * value, 1)}
            {v === 0 ? ` ${unit}` : ""}
          </text>
        </g>
      ))}
      {n > 0 && (
        <text
          x={Math.min(Math.max(X(n - 0.5), 90), 470)}
          y={22}
          textAnchor="middle"
          fontSize={17}
          fontWeight={640}
        >
          {say("between {x} and {x2} {unit}", {
            x: num((n - 1) * value, 1),
            x2: num(n * value, 1),
            unit,
          })}
        </text>
      )}
    </svg>
  );
}
