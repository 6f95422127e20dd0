/** Scale in the kettle: grams a year, at most, for what is heated. */
import { Minus, Plus } from "lucide-react";
import type { ReactElement } from "react";

import { num } from "../../app/show";
import { useVisitContext } from "../visit/context";
import { Outcome, TwoSentences } from "./parts";
import { useDemo } from "./useDemo";

export function KettleView(): ReactElement {
  const { view, picked } = useVisitContext();
  const { body, shown, error, save } = useDemo("kettle");
  const raw = view.visit.samples.find((s) => s.raw) ?? picked;
  const litres = body?.litres_day ?? 4;
  const scale = shown?.result?.kind === "kettle" ? shown.result.scale : null;
  const set = (n: number): void => {
    if (raw) save({ kind: "kettle", sample: raw.id, litres_day: Math.max(0.5, Math.min(30, n)) });
  };
  const most = scale ? (scale.grams.high ?? scale.grams.best) : null;
  const level = most === null ? 0 : Math.min(1, most / 1000);
  return (
    <div className="grid wide:grid-cols-[minmax(0,1fr)_400px] gap-x-12 gap-y-8 content-start">
      <div className="grid gap-6 content-start">
        <h1 className="text-[46px] leading-none">Scale in the kettle</h1>
        <div className="flex gap-10 items-end flex-wrap">
          <svg
            width="300"
            height="300"
            viewBox="0 0 200 200"
            role="img"
            aria-label={
              most === null
                ? "A kettle"
                : `A kettle with the scale of a year, at most ${num(most)} grams`
            }
          >
            <path
              d="M40,60H150L166,180H26Z"
              fill="var(--glass-body)"
              stroke="var(--ink)"
              strokeWidth={3}
              strokeLinejoin="round"
            />
            <path
              d="M150,76 L186,56 L190,66 L158,100Z"
              fill="var(--glass-body)"
              stroke="var(--ink)"
              strokeWidth={3}
              strokeLinejoin="round"
            />
            <path
              d="M40,66C4,70 4,140 30,150"
              fill="none"
              stroke="var(--ink)"
              strokeWidth={9}
              strokeLinecap="round"
            />
            <path d="M70,60Q95,38 120,60" fill="none" stroke="var(--ink)" strokeWidth={3} />
            {level > 0 && (
              <path
                d={`M${27.5 + 9 * level},${179 - 70 * level} ${Array.from({ length: 13 }, (_, i) => `L${30 + 9 * level + (i * (132 - 18 * level)) / 12},${178 - 70 * level - ((i * 37) % 7)}`).join(" ")} L165,179H28Z`}
                fill="#FFFFFC"
                stroke="var(--ink)"
                strokeWidth={2}
                strokeLinejoin="round"
              />
            )}
          </svg>
          <div className="grid gap-2">
            {most !== null && (
              <>
                <span className="text-[24px]">at most</span>
                <span className="num text-[96px] leading-[0.85]">{num(most)}</span>
                <span className="text-[24px]">grams a year</span>
              </>
            )}
          </div>
        </div>
        <div className="flex items-center gap-4" role="group" aria-label="Heated on a day">
          <button
            className="key"
            style={{ minHeight: 60, minWidth: 60 }}
            aria-label="Less"
            onClick={() => set(litres - 0.5)}
          >
            <Minus aria-hidden="true" />
          </button>
          <span className="text-[26px] font-semibold min-w-[260px] text-center">
            {num(litres, 1)} L heated a day
          </span>
          <button
            className="key"
            style={{ minHeight: 60, minWidth: 60 }}
            aria-label="More"
            onClick={() => set(litres + 0.5)}
          >
            <Plus aria-hidden="true" />
          </button>
          {!body && (
            <button className="key go" onClick={() => set(litres)}>
              Work it out
            </button>
          )}
        </div>
        <Outcome shown={shown} error={error} />
      </div>
      <div>
        <TwoSentences kind="kettle" />
      </div>
    </div>
  );
}
