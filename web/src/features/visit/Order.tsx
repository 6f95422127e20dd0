/** The visit's order: a peel that unwinds and curls at the present step. */
import type { ReactElement } from "react";
import { Link } from "react-router";

import { STEPS, type Step } from "../../app/names";
import { StateMark } from "../../ui/marks";
import { say } from "../../app/language";

export interface Missing {
  name: string;
  why: string;
  to?: string;
}

const ROW = 48;

/** On a phone the strip is wider than the page: the step one is at stays in sight. */
const intoSight = (li: HTMLLIElement | null): void =>
  li?.scrollIntoView({ block: "nearest", inline: "nearest" });

interface Props {
  visit: string;
  current: Step;
  done: ReadonlySet<Step>;
  sub: Partial<Record<Step, string>>;
  missing: Missing[];
  search: string;
}

/** Where the steps lie [px from the top]; what is missing opens room behind the present one. */
function laidOut(at: number, missing: number): number[] {
  const extra = missing * 60 + (missing ? 10 : 0);
  return STEPS.map((_, i) => i * ROW + 24 + (i > at ? extra + 10 : 0));
}

/** The peel: unwound down to the present step, a dotted line below it. */
function Peel({ ys, at, done }: { ys: number[]; at: number; done: Props["done"] }): ReactElement {
  const yc = ys[at] ?? 24;
  const end = ys[ys.length - 1] ?? yc;
  const peel =
    `M10,4 C16,${yc * 0.2} 4,${yc * 0.45} 10,${yc * 0.7} S12,${yc - 8} 12,${yc - 4} ` +
    "c0,9 14,9 14,0 c0,-6 -9,-6 -8,0.5";
  return (
    <svg
      aria-hidden="true"
      width={34}
      height={end + 20}
      style={{ position: "absolute", left: -4, top: 0, overflow: "visible" }}
      fill="none"
      strokeLinecap="round"
    >
      <path
        d={`M12,${yc + 14}V${end}`}
        stroke="var(--ink-3)"
        strokeWidth={1.5}
        strokeDasharray="1 6"
      />
      <path d={peel} stroke="var(--ink)" strokeWidth={8.5} />
      <path d={peel} stroke="var(--yuzu)" strokeWidth={5.5} />
      {STEPS.map(
        ([s], i) =>
          i !== at && (
            <g key={s}>
              <circle
                cx={i < at ? 10.5 : 12}
                cy={ys[i]}
                r={done.has(s) ? 6.5 : 4}
                fill={done.has(s) ? "var(--leaf)" : "var(--paper)"}
                stroke={done.has(s) ? "var(--ink)" : "var(--ink-3)"}
                strokeWidth={1.5}
              />
              {done.has(s) && (
                <path
                  d={`M${i < at ? 7.6 : 9.1} ${(ys[i] ?? 0) + 0.3}l2.1 2.1 3.7-4.2`}
                  stroke="var(--paper)"
                  strokeWidth={1.8}
                />
              )}
            </g>
          ),
      )}
    </svg>
  );
}

function MissingLine({ m }: { m: Missing }): ReactElement {
  return (
    <div className="flex gap-2 h-[60px] pt-1 overflow-hidden">
      <StateMark kind="miss" size={16} />
      <span className="text-s leading-tight">
        {m.to ? (
          <Link className="font-semibold text-ink" to={m.to}>
            {m.name}
          </Link>
        ) : (
          <b>{m.name}</b>
        )}
        <br />
        <span className="text-ink-2">{m.why}</span>
      </span>
    </div>
  );
}

function Unwound({ visit, current, done, sub, missing, search }: Props): ReactElement {
  const at = STEPS.findIndex(([s]) => s === current);
  const ys = laidOut(at, missing.length);
  const end = ys[ys.length - 1] ?? 24;
  const lookOf = (i: number, s: Step): string => {
    if (i === at) return "text-[22px] font-[680] text-ink";
    if (i < at || done.has(s)) return "text-[17px] font-semibold text-ink";
    return "text-[17px] font-medium text-ink-3";
  };
  return (
    <nav
      aria-label={say("The visit’s order")}
      className="hidden wide:block relative w-[196px] shrink-0"
      style={{ minHeight: end + 30 }}
    >
      <Peel ys={ys} at={at} done={done} />
      <ol>
        {STEPS.map(([s, name], i) => (
          <li key={s} className="absolute left-[34px] w-[162px]" style={{ top: (ys[i] ?? 0) - 24 }}>
            <Link
              to={`/visits/${visit}/${s}${search}`}
              aria-current={i === at ? "step" : undefined}
              className={
                "flex flex-col justify-center min-h-12 no-underline font-d " + lookOf(i, s)
              }
            >
              {name}
              {sub[s] !== undefined && (
                <span className="font-t font-normal text-s text-ink-2 leading-tight">{sub[s]}</span>
              )}
            </Link>
            {i === at && missing.map((m) => <MissingLine key={m.name} m={m} />)}
          </li>
        ))}
      </ol>
    </nav>
  );
}

function Strip({ visit, current, search, row }: Props & { row: boolean }): ReactElement {
  const at = STEPS.findIndex(([s]) => s === current);
  return (
    <nav aria-label={say("The visit’s order")} className={`w-full ${row ? "" : "wide:hidden"}`}>
      <ol className="flex border-b-2 border-ink overflow-x-auto">
        {STEPS.map(([s, name], i) => (
          <li key={s} className="flex-1" ref={i === at ? intoSight : undefined}>
            <Link
              to={`/visits/${visit}/${s}${search}`}
              aria-current={i === at ? "step" : undefined}
              className={`step ${i === at ? "bg-yuzu text-on-yuzu font-[680]" : "font-medium"}`}
            >
              {name}
            </Link>
          </li>
        ))}
      </ol>
    </nav>
  );
}

export function Order(props: Props & { row: boolean }): ReactElement {
  return (
    <>
      {!props.row && <Unwound {...props} />}
      <Strip {...props} />
    </>
  );
}
