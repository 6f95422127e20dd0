/** Scale in the kettle: grams a year, at most, for what is heated. */
import { Minus, Plus } from "lucide-react";
import type { ReactElement } from "react";

import { num } from "../../app/show";
import { useVisitContext } from "../visit/context";
import { FacingView, Outcome, TwoSentences } from "./parts";
import { useDemo } from "./useDemo";
import { say } from "../../app/language";

const FULL_G = 1000; // [g] of scale that fill the kettle as it is drawn
const [LEAST_L, MOST_L, STEP_L] = [0.5, 30, 0.5];

/** The upper edge of the scale, rough as scale is. */
function crust(level: number): string {
  const from = 30 + 9 * level;
  const wide = 132 - 18 * level;
  const edge = Array.from(
    { length: 13 },
    (_, i) => `L${from + (i * wide) / 12},${178 - 70 * level - ((i * 37) % 7)}`,
  );
  return `M${27.5 + 9 * level},${179 - 70 * level} ${edge.join(" ")} L165,179H28Z`;
}

function Kettle({ most }: { most: number | null }): ReactElement {
  const level = most === null ? 0 : Math.min(1, most / FULL_G);
  const wall = {
    fill: "var(--glass-body)",
    stroke: "var(--ink)",
    strokeWidth: 3,
    strokeLinejoin: "round",
  } as const;
  const said =
    most === null
      ? say("A kettle")
      : say("A kettle with the scale of a year, at most {most} grams", { most: num(most) });
  return (
    <svg width="320" height="320" viewBox="0 0 200 200" role="img" aria-label={said}>
      <path d="M40,60H150L166,180H26Z" {...wall} />
      <path d="M150,76 L186,56 L190,66 L158,100Z" {...wall} />
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
          d={crust(level)}
          fill="var(--gloss)"
          stroke="var(--ink)"
          strokeWidth={2}
          strokeLinejoin="round"
        />
      )}
    </svg>
  );
}

function Litres({
  litres,
  onLitres,
}: {
  litres: number;
  onLitres: (n: number) => void;
}): ReactElement {
  const step = (by: number, label: string, sign: ReactElement): ReactElement => (
    <button
      className="key"
      style={{ minHeight: 60, minWidth: 60 }}
      aria-label={label}
      onClick={() => onLitres(litres + by)}
    >
      {sign}
    </button>
  );
  return (
    <div className="flex items-center gap-4" role="group" aria-label={say("Heated on a day")}>
      {step(-STEP_L, say("Less"), <Minus aria-hidden="true" />)}
      <span className="text-[26px] font-semibold min-w-[260px] text-center">
        {say("{litres} L heated a day", { litres: num(litres, 1) })}
      </span>
      {step(STEP_L, say("More"), <Plus aria-hidden="true" />)}
    </div>
  );
}

export function KettleView(): ReactElement {
  const { view, picked } = useVisitContext();
  const { body, shown, error, save } = useDemo("kettle");
  const raw = view.visit.samples.find((s) => s.raw) ?? picked;
  const litres = body?.litres_day ?? 4;
  const scale = shown?.result?.kind === "kettle" ? shown.result.scale : null;
  const most = scale ? (scale.grams.high ?? scale.grams.best) : null;
  const set = (n: number): void => {
    const litres_day = Math.max(LEAST_L, Math.min(MOST_L, n));
    if (raw) save({ kind: "kettle", sample: raw.id, litres_day });
  };
  return (
    <FacingView title={say("Scale in the kettle")} side={<TwoSentences kind="kettle" />}>
      <div className="flex gap-10 items-end flex-wrap">
        <Kettle most={most} />
        {most !== null && (
          <div className="grid gap-2">
            <span className="text-[24px]">{say("at most")}</span>
            <span className="num text-[96px] leading-[0.85]">{num(most)}</span>
            <span className="text-[24px]">{say("grams a year")}</span>
          </div>
        )}
      </div>
      <div className="flex items-center gap-4 flex-wrap">
        <Litres litres={litres} onLitres={set} />
        {!body && (
          <button className="key go" onClick={() => set(litres)}>
            {say("Work it out")}
          </button>
        )}
      </div>
      <Outcome shown={shown} error={error} />
    </FacingView>
  );
}
