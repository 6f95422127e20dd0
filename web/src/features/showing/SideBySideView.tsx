/** Waters side by side: bars with their ranges on one scale, and hardness in words beside them. */
import type { ReactElement } from "react";

import type { Range } from "../../api/types";
import { Pip } from "../../ui/marks";
import { useVisitContext } from "../visit/context";
import { Big, FacingView, Outcome, PickLine, Simulated, TwoSentences } from "./parts";
import { useDemo } from "./useDemo";
import { say } from "../../app/language";

type Bars = Extract<
  NonNullable<NonNullable<ReturnType<typeof useDemo<"side_by_side">>["shown"]>["result"]>,
  { kind: "side_by_side" }
>;
type Bar = Bars["bars"][number];

/** The bar and the ends of its range, on a scale of 1000. */
function Drawn({ b, r, X }: { b: Bar; r: Range; X: (v: number) => number }): ReactElement {
  const [low, high] = [X(r.low), r.high == null ? 1000 : X(r.high)];
  return (
    <>
      <rect
        x={0}
        y={14}
        width={X(r.best)}
        height={26}
        fill={b.predicted ? "none" : "var(--water-2)"}
        stroke="var(--ink)"
        strokeWidth={1.8}
        strokeDasharray={b.predicted ? "8 6" : undefined}
        vectorEffect="non-scaling-stroke"
      />
      <path
        d={`M${low},6V20M${high},6V20M${low},13H${high}`}
        stroke="var(--ink)"
        strokeWidth={2.6}
        vectorEffect="non-scaling-stroke"
      />
    </>
  );
}

function OneBar({ b, scale }: { b: Bar; scale: number }): ReactElement {
  const X = (v: number): number => (v / scale) * 1000;
  const said = [
    b.span && say("between {x}", { x: b.span.replace(/ (to|a) /, say(" and ")) }),
    b.hardness && say("hardness {hardness}", { hardness: b.hardness }),
  ].filter(Boolean);
  return (
    <li>
      <div className="flex justify-between items-baseline gap-4">
        <span className="text-[22px] font-semibold">{b.name}</span>
        <span className="num text-[34px] leading-none whitespace-nowrap">{b.shown}</span>
      </div>
      <div className="relative">
        <svg
          width="100%"
          height="44"
          viewBox="0 0 1000 44"
          preserveAspectRatio="none"
          role="img"
          aria-label={`${b.name}: ${b.shown}, ${b.span}`}
        >
          <path
            d="M0,40H1000"
            stroke="var(--ink)"
            strokeWidth={1.5}
            vectorEffect="non-scaling-stroke"
          />
          {b.range && <Drawn b={b} r={b.range} X={X} />}
        </svg>
        {b.range && (
          <svg
            width="14"
            height="18"
            className="absolute top-[4px]"
            style={{ left: `calc(${X(b.range.best) / 10}% - 7px)` }}
            aria-hidden="true"
          >
            <Pip x={7} y={10} s={6.5} />
          </svg>
        )}
      </div>
      <p className="text-[20px] text-ink-2">
        {said.join("; ")}
        {b.beside !== "" && (
          <b className="text-ink">
            {said.length > 0 && "; "}
            {b.beside}
          </b>
        )}
      </p>
    </li>
  );
}

const MOST_WATERS = 6;

export function SideBySideView(): ReactElement {
  const { samples } = useVisitContext().view.visit;
  const { body, shown, simulated, error, save } = useDemo("side_by_side");
  const chosen = body?.samples ?? [];
  const option = body?.option ?? null;
  const bars = shown?.result?.kind === "side_by_side" ? shown.result : null;
  const full = chosen.length >= MOST_WATERS;
  const put = (next: string[], line: string | null, asSimulated?: boolean): void =>
    save({ kind: "side_by_side", samples: next, option: line }, asSimulated);
  const toggle = (id: string): void => {
    const next = chosen.includes(id) ? chosen.filter((s) => s !== id) : [...chosen, id];
    if (next.length) put(next, option);
  };
  const expect = (line: string): void => {
    const first = chosen.length ? chosen : samples.slice(0, 1).map((s) => s.id);
    const off = option === line;
    put(first, off ? null : line, !off);
  };
  return (
    <FacingView
      title={say("Dissolved solids, side by side")}
      side={
        <>
          <TwoSentences kind="side_by_side" />
          <div className="flex flex-wrap gap-2" role="group" aria-label={say("Glasses")}>
            {samples.map((s) => (
              <Big
                key={s.id}
                on={chosen.includes(s.id)}
                disabled={full && !chosen.includes(s.id)}
                onClick={() => toggle(s.id)}
              >
                {s.name}
              </Big>
            ))}
          </div>
          <PickLine
            label={say("Beside them, what a system is expected to give")}
            value={option}
            onPick={expect}
          />
        </>
      }
    >
      {simulated && <Simulated words={say("the dashed bar is expected, not measured")} />}
      {bars ? (
        <ul className="grid gap-5">
          {bars.bars.map((b) => (
            <OneBar key={b.sample || b.name} b={b} scale={bars.scale} />
          ))}
        </ul>
      ) : (
        <p className="text-[24px]">
          {say(
            "Choose two to six glasses to set side by side. The first is held against the others.",
          )}
        </p>
      )}
      <Outcome shown={shown} error={error} />
    </FacingView>
  );
}
