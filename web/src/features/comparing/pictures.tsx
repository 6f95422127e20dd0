/**
 * Ranges as bars, waste as bathtubs, chores as a year's strip, evidence as shapes with words
 * beside.
 */
import type { ReactElement } from "react";

import type { Cell, Row } from "../../api/types";
import { volume } from "../../app/show";
import { Pip, StateMark } from "../../ui/marks";
import { message, say } from "../../app/language";

export function EvidenceMark({ level }: { level: string | null | undefined }): ReactElement | null {
  const box = (children: ReactElement, label: string): ReactElement => (
    <svg
      width={18}
      height={18}
      viewBox="-9 -9 18 18"
      role="img"
      aria-label={label}
      style={{ flex: "none" }}
    >
      {children}
    </svg>
  );
  switch (level) {
    case "measured_here":
      return box(<Pip x={0} y={0} s={6} />, say("measured here"));
    case "certified":
      return box(
        <>
          <path
            d={`${Array.from({ length: 10 }, (_, i) => {
              const a = (i / 10) * 6.283;
              const b = ((i + 0.5) / 10) * 6.283;
              const [out, back] = [a, b].map((t, k) => {
                const r = k === 0 ? 7.5 : 5.8;
                return `${r * Math.cos(t)},${r * Math.sin(t)}`;
              });
              return `${i ? "L" : "M"}${out ?? ""}L${back ?? ""}`;
            }).join("")}Z`}
            fill="var(--ink)"
          />
          <path d="M-3,.2l2,2.2l4,-4.4" stroke="var(--paper)" strokeWidth={1.7} fill="none" />
        </>,
        "certified",
      );
    case "tested":
      return box(
        <>
          <path
            d="M-2,-7v4.500l-4,8.500h12l-4,-8.500v-4.500"
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.6}
            strokeLinejoin="round"
          />
          <path d="M-4,2.500h8l1.500,3.500h-11Z" fill="var(--ink)" />
        </>,
        "tested",
      );
    case "maker_states":
      return box(
        <path
          d="M-6,-6h12v8h-6l-4,4v-4h-2Z"
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.6}
          strokeLinejoin="round"
        />,
        say("maker states"),
      );
    case "typical":
      return box(
        <path
          d="M-6,1q3,-5 6,-1t6,-1"
          fill="none"
          stroke="var(--ink)"
          strokeWidth={2.2}
          strokeLinecap="round"
        />,
        "typical",
      );
    default:
      return null;
  }
}

const BAR = 150; // width of the scale in its drawing

type Ends = [low: number, high: number];

function Bar({ ends, X, solid }: { ends: Ends; X: Place; solid: boolean }): ReactElement {
  return (
    <rect
      x={X(ends[0])}
      y={9}
      width={Math.max(4, X(ends[1]) - X(ends[0]))}
      height={11}
      fill={solid ? "var(--ink)" : "var(--paper)"}
      stroke="var(--ink)"
      strokeWidth={1.5}
    />
  );
}

type Place = (v: number) => number;

/** The part of the scale that is wanted. */
function Wanted({ row, X }: { row: Row; X: Place }): ReactElement | null {
  if (row.target == null || row.target <= 0) return null;
  const at = X(row.target);
  const most = row.op === "at_most";
  return (
    <>
      <rect x={most ? 0 : at} y={2} width={most ? at : BAR - at} height={22} fill="var(--water)" />
      <path d={`M${at},1V25`} stroke="var(--leaf)" strokeWidth={2} />
    </>
  );
}

/** An arrow from what was to what is, where there is room for one. */
function Fall({ from, to }: { from: number; to: number }): ReactElement | null {
  if (from - to <= 12) return null;
  return (
    <path
      d={`M${from - 2},14.500H${to + 4}M${to + 9},10l-5.500,4.500l5.500,4.500`}
      fill="none"
      stroke="var(--ink)"
      strokeWidth={1.4}
    />
  );
}

/** Ends of a range as they are drawn; one without an upper end is drawn a tenth longer. */
const endsOf = (r: NonNullable<Cell["range"]>, open: number): Ends => [
  r.low,
  r.high ?? r.best * open,
];

export function RangeBar({
  row,
  cell,
  today,
}: {
  row: Row;
  cell: Cell;
  today: Cell | undefined;
}): ReactElement | null {
  if (!cell.range) return null;
  const was: Ends = today?.range ? endsOf(today.range, 1) : [0, 0];
  const now = endsOf(cell.range, 1.1);
  const top = Math.max(was[1], endsOf(cell.range, 1)[1], row.target ?? 0) * 1.12 || 1;
  const X: Place = (v) => (v / top) * BAR;
  const moved = cell.change !== "today" && cell.change !== "stays" && today?.range != null;
  return (
    <svg
      viewBox="-1 0 154 28"
      width="100%"
      height={28}
      preserveAspectRatio="none"
      aria-hidden="true"
      style={{ display: "block", maxWidth: 170 }}
    >
      <Wanted row={row} X={X} />
      <path d={`M0,25H${BAR}`} stroke="var(--ink-3)" strokeWidth={1} />
      {moved && <Bar ends={was} X={X} solid={false} />}
      {moved && now[1] < was[0] && <Fall from={X(was[0])} to={X(now[1])} />}
      <Bar ends={now} X={X} solid />
    </svg>
  );
}

export function Tubs({
  gallons,
  units,
}: {
  gallons: { kind: string; gal: number }[];
  units: string;
}): ReactElement {
  const total = gallons.reduce((a, g) => a + g.gal, 0);
  const per = tubSize(total);
  const fills: Record<string, string> = {
    membrane: "var(--water-2)",
    regeneration: "var(--water-3)",
    backwash: "var(--backwash)",
    distiller: "var(--water-2)",
  };
  const tubs = gallons.flatMap((g) =>
    Array.from({ length: Math.ceil(g.gal / per - 0.04) }, (_, i) => ({
      kind: g.kind,
      full: Math.min(1, g.gal / per - i),
    })),
  );
  return (
    <svg
      viewBox={`0 0 156 ${Math.ceil(tubs.length / 6) * 17 + 2}`}
      width={156}
      role="img"
      aria-label={say("{total}, drawn as {length} tubs of {per}", {
        total: volume(total, units),
        length: tubs.length,
        per: volume(per, units),
      })}
    >
      {tubs.map((t, i) => (
        <g key={i} transform={`translate(${(i % 6) * 25.5} ${Math.floor(i / 6) * 17})`}>
          <clipPath id={`tub${per}${i}${t.kind}`}>
            <rect x={0} y={12 - 10 * t.full} width={20} height={20} />
          </clipPath>
          <path
            d="M1,2.500h17.500l-1.600,6.200q-.6,2.300 -3,2.300h-8.300q-2.400,0 -3,-2.300Z"
            fill={fills[t.kind] ?? "var(--water-2)"}
            clipPath={`url(#tub${per}${i}${t.kind})`}
          />
          <path
            d={
              "M0,2.5h19.5M1,2.5l1.6,6.2q.6,2.3 3,2.3h8.3q2.4,0 3,-2.3L18.5,2.5" +
              "M5,11v1.8M14.5,11v1.8"
            }
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.3}
            strokeLinecap="round"
          />
          {t.full > 0.5 && t.kind === "regeneration" && (
            <>
              <circle cx={7} cy={6.5} r={1.2} fill="var(--ink)" />
              <circle cx={12.5} cy={6.5} r={1.2} fill="var(--ink)" />
            </>
          )}
          {t.full > 0.5 && t.kind === "backwash" && (
            <path d="M6,7h7.5" stroke="var(--ink)" strokeWidth={2} />
          )}
        </g>
      ))}
    </svg>
  );
}

/** What a tub stands for from so many gallons on, the most first. */
const TUBS = [
  [24000, 4000],
  [8000, 1600],
  [2000, 400],
] as const;

export const tubSize = (gallons: number): number =>
  TUBS.find(([over]) => gallons > over)?.[1] ?? 160;

/** A chore of a month: a bag of salt, a heap of media, or a part. */
function Chore({ kind, x, y }: { kind: string; x: number; y: number }): ReactElement {
  if (kind === "salt")
    return (
      <path
        d={`M${x - 4},${y}l.8,-7h6.400l.8,7Z`}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth={1.2}
        strokeLinejoin="round"
      />
    );
  if (kind === "media")
    return (
      <path
        d={`M${x - 4},${y}l4,-7.500l4,7.500Z`}
        fill="var(--water-3)"
        stroke="var(--ink)"
        strokeWidth={1.1}
      />
    );
  return <rect x={x - 3} y={y - 8} width={6} height={8} fill="var(--ink)" />;
}

export function YearStrip({ strip }: { strip: readonly (readonly string[])[] }): ReactElement {
  return (
    <svg viewBox="0 0 150 54" width={150} aria-hidden="true">
      <path d="M0,50H150" stroke="var(--ink)" strokeWidth={1.2} />
      {strip.map((month, m) => {
        const shown = month.slice(0, 5);
        return shown.map((k, i) => {
          const x = 6 + m * 12.4;
          const y = 49 - i * 9.6;
          return <Chore key={`${m}${i}`} kind={k} x={x} y={y} />;
        });
      })}
    </svg>
  );
}

export function MeetsMark({ cell }: { cell: Cell }): ReactElement | null {
  if (cell.change === "not_tested" || cell.change === "unknown")
    return <StateMark kind="unk" size={17} />;
  if (!cell.established && cell.change === "less")
    return <StateMark kind="unk" size={17} label={say("not proven")} />;
  if (cell.meets === "met")
    return <StateMark kind="done" size={17} label={say("meets what was wanted")} />;
  if (cell.meets === "not_met")
    return <StateMark kind="no" size={17} label={say("does not meet what was wanted")} />;
  return null;
}

const COST_WORDS: Record<string, string> = {
  equipment: message("equipment"),
  installation: message("installing"),
  rent: message("rent"),
  filter: message("filters"),
  part: message("other parts"),
  membrane: message("membranes"),
  resin: message("resin"),
  media: message("media"),
  lamp: message("lamps"),
  salt: message("salt"),
  water: message("water"),
  power: message("electricity"),
  service: message("service"),
  sanitise: message("sanitizing"),
  bottled: message("bottled water"),
  soap: message("soap"),
};
const FILLS = [
  "var(--ink)",
  "var(--lake)",
  "var(--water)",
  "var(--yuzu)",
  "var(--leaf)",
  "var(--ink-3)",
  "var(--paper)",
];

/** All that is paid, stacked by kind, the most first; the words say what the colours do. */
export function CostStack({
  kinds,
  shown,
}: {
  kinds: Record<string, string | number>;
  shown: (amount: number) => string;
}): ReactElement | null {
  const parts = Object.entries(kinds)
    .map(([kind, v]) => ({ kind, amount: Number(v) }))
    .filter((p) => p.amount > 0)
    .sort((a, b) => b.amount - a.amount);
  const all = parts.reduce((a, p) => a + p.amount, 0);
  if (all <= 0) return null;
  const starts = parts.map((_, i) => parts.slice(0, i).reduce((a, p) => a + p.amount, 0));
  return (
    <div className="mb-3" data-testid="cost-stack">
      <svg
        viewBox="0 0 300 26"
        width="100%"
        height={26}
        preserveAspectRatio="none"
        aria-hidden="true"
      >
        {parts.map((p, i) => (
          <rect
            key={p.kind}
            x={(300 * starts[i]!) / all}
            y={1}
            width={(300 * p.amount) / all}
            height={24}
            fill={FILLS[i % FILLS.length]}
            stroke="var(--ink)"
            strokeWidth={1}
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </svg>
      <ul className="text-m mt-1 grid gap-[2px]">
        {parts.map((p, i) => (
          <li key={p.kind} className="flex gap-2 items-center">
            <svg width={13} height={13} aria-hidden="true">
              <rect
                x={0.5}
                y={0.5}
                width={12}
                height={12}
                fill={FILLS[i % FILLS.length]}
                stroke="var(--ink)"
              />
            </svg>
            <span className="flex-1">{say(COST_WORDS[p.kind] ?? p.kind)}</span>
            <span>{shown(p.amount)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
