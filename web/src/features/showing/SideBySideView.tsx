/** Waters side by side: bars with their ranges on one scale. */
import type { ReactElement } from "react";

import { Pip } from "../../ui/marks";
import { useVisitContext } from "../visit/context";
import { Big, Outcome, Simulated, TwoSentences } from "./parts";
import { useDemo } from "./useDemo";

export function SideBySideView(): ReactElement {
  const { view } = useVisitContext();
  const { body, shown, simulated, error, save } = useDemo("side_by_side");
  const samples = view.visit.samples;
  const chosen = body?.samples ?? [];
  const bars = shown?.result?.kind === "side_by_side" ? shown.result : null;
  const toggle = (id: string): void => {
    const next = chosen.includes(id) ? chosen.filter((s) => s !== id) : [...chosen, id];
    if (next.length) save({ kind: "side_by_side", samples: next, option: body?.option ?? null });
  };
  const lines = view.assessment.options.filter((o) => o.line && o.line.stages.length > 0);
  const expect = (option: string): void =>
    save(
      {
        kind: "side_by_side",
        samples: chosen.length ? chosen : samples.slice(0, 1).map((s) => s.id),
        option: body?.option === option ? null : option,
      },
      body?.option !== option,
    );
  return (
    <div className="grid wide:grid-cols-[minmax(0,1fr)_400px] gap-x-12 gap-y-8 content-start">
      <div className="grid gap-6 content-start">
        <h1 className="text-[46px] leading-none">Dissolved matter, side by side</h1>
        {simulated && <Simulated words="the dashed bar is expected, not measured" />}
        {bars ? (
          <ul className="grid gap-5">
            {bars.bars.map((b) => {
              const x = (v: number): number => (v / bars.scale) * 100;
              return (
                <li key={b.sample || b.name}>
                  <div className="flex justify-between items-baseline gap-4">
                    <span className="text-[22px] font-semibold">{b.name}</span>
                    <span className="num text-[34px] leading-none whitespace-nowrap">
                      {b.shown}
                    </span>
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
                      {b.range && (
                        <rect
                          x={0}
                          y={14}
                          width={10 * x(b.range.best)}
                          height={26}
                          fill={b.predicted ? "none" : "var(--water-2)"}
                          stroke="var(--ink)"
                          strokeWidth={1.8}
                          strokeDasharray={b.predicted ? "8 6" : undefined}
                          vectorEffect="non-scaling-stroke"
                        />
                      )}
                      {b.range && (
                        <path
                          d={`M${10 * x(b.range.low)},6V20M${10 * x(b.range.high ?? bars.scale)},6V20M${10 * x(b.range.low)},13H${10 * x(b.range.high ?? bars.scale)}`}
                          stroke="var(--ink)"
                          strokeWidth={2.6}
                          vectorEffect="non-scaling-stroke"
                        />
                      )}
                    </svg>
                    {b.range && (
                      <svg
                        width="14"
                        height="18"
                        className="absolute top-[4px]"
                        style={{ left: `calc(${x(b.range.best)}% - 7px)` }}
                        aria-hidden="true"
                      >
                        <Pip x={7} y={10} s={6.5} />
                      </svg>
                    )}
                  </div>
                  <p className="text-[18px] text-ink-2">
                    <span>
                      {b.span ? `between ${b.span.replace(" to ", " and ")}` : ""}
                      {b.beside !== "" && (
                        <b className="text-ink">
                          {b.span ? "; " : ""}
                          {b.beside}
                        </b>
                      )}
                    </span>
                  </p>
                </li>
              );
            })}
          </ul>
        ) : (
          <p className="text-[24px]">
            Choose the glasses to set side by side. The first is held against the others.
          </p>
        )}
        <Outcome shown={shown} error={error} />
      </div>
      <div className="grid gap-6 content-start">
        <TwoSentences kind="side_by_side" />
        <div className="flex flex-wrap gap-2" role="group" aria-label="Glasses">
          {samples.map((s) => (
            <Big key={s.id} on={chosen.includes(s.id)} onClick={() => toggle(s.id)}>
              {s.name}
            </Big>
          ))}
        </div>
        {lines.length > 0 && (
          <div>
            <p className="text-[17px] mb-1">Beside them, what a system is expected to give:</p>
            <div className="flex flex-wrap gap-2">
              {lines.map((o) => (
                <Big key={o.id} on={body?.option === o.id} onClick={() => expect(o.id)}>
                  {o.name}
                </Big>
              ))}
            </div>
          </div>
        )}
      </div>
    </div>
  );
}
