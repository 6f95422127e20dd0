/** One column of a line: what stands there, the pipe through it, and the glass behind it. */
import type { ReactElement, ReactNode } from "react";

import { Glass } from "../../glass/Glass";
import { halton, rgb, tint, type Look } from "../../glass/look";
import { say } from "../../app/language";

function Pipe({
  from,
  to,
  end,
}: {
  from: Look;
  to: Look;
  end: "first" | "last" | "";
}): ReactElement {
  const [x0, x1] = [end === "first" ? 90 : 0, end === "last" ? 90 : 180];
  const specks = from.hard ? Math.min(9, Math.round(from.hard[1] / 40)) : 0;
  const after = to.hard ? Math.min(9, Math.round(to.hard[1] / 40)) : 0;
  return (
    <svg
      viewBox="0 0 180 24"
      preserveAspectRatio="none"
      className="absolute left-0 right-0 top-[16px] w-full h-6"
      aria-hidden="true"
    >
      <path d={`M${x0},12H${x1}`} stroke="var(--ink)" strokeWidth="19" />
      {x0 < 90 && <path d={`M${x0},12H91`} stroke={rgb(tint(from))} strokeWidth="15" />}
      {x1 > 90 && <path d={`M90,12H${x1}`} stroke={rgb(tint(to))} strokeWidth="15" />}
      <path
        className="stream"
        d={`M${x0},12H${x1}`}
        stroke="var(--drawn)"
        strokeWidth="2"
        strokeLinecap="round"
        opacity="0.4"
      />
      <g className="drift">
        {Array.from({ length: specks }, (_, i) => (
          <circle
            key={i}
            cx={x0 + 4 + halton(i + 1, 2) * (90 - x0 - 8)}
            cy={7 + halton(i + 1, 3) * 10}
            r="1.7"
            fill="var(--gloss)"
            stroke="var(--drawn)"
            strokeWidth="0.8"
          />
        ))}
        {Array.from({ length: after }, (_, i) => (
          <circle
            key={`a${i}`}
            cx={94 + halton(i + 2, 2) * (x1 - 98)}
            cy={7 + halton(i + 2, 3) * 10}
            r="1.7"
            fill="var(--gloss)"
            stroke="var(--drawn)"
            strokeWidth="0.8"
          />
        ))}
      </g>
    </svg>
  );
}

interface ColumnProps {
  title: ReactNode;
  sub: ReactNode;
  drawing: ReactElement;
  from: Look;
  to: Look;
  children: ReactNode;
  glass: Look;
  name: string;
  small: string;
  wide?: boolean;
  end?: "first" | "last" | "";
}

export function Column({
  title,
  sub,
  drawing,
  from,
  to,
  children,
  glass,
  name,
  small,
  wide = false,
  end = "",
}: ColumnProps): ReactElement {
  return (
    <div
      className={`line-column ${wide ? "w-[236px]" : "w-[208px]"}`}
      role="group"
      aria-label={name}
    >
      <div className="px-3 min-w-0">
        <div className="font-d font-[640] text-[19px] leading-tight">{title}</div>
        <div className="text-m text-ink-2 leading-tight mt-[2px]">{sub}</div>
      </div>
      <div className="relative h-full overflow-visible">
        <Pipe from={from} to={to} end={end} />
        <svg
          viewBox="0 0 180 190"
          preserveAspectRatio="xMidYMin meet"
          className="absolute inset-x-0 top-[2px] w-full h-[154px] overflow-visible"
          aria-hidden="true"
        >
          {drawing}
        </svg>
      </div>
      <div
        className="scroll px-3 min-h-0 pt-1"
        tabIndex={0}
        role="group"
        aria-label={say("{name}: checks", { name })}
      >
        {children}
      </div>
      <div className="token self-end mx-2" style={{ maxWidth: "none" }}>
        <Glass look={glass} h={44} label={name} />
        <span>
          {name}
          <small>{small}</small>
        </span>
      </div>
    </div>
  );
}
