/** This water through a system: today, after each stage, at the tap. No prices. */
import { useEffect, useState, type ReactElement } from "react";
import { lowerFirst } from "../../app/names";

import type { LineReport, Quantity } from "../../api/types";
import { best } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { inWords, look, type Look } from "../../glass/look";
import { KIND_NAMES } from "../treating/kinds";
import { useVisitContext } from "../visit/context";
import { FacingView, Outcome, PickLine, Simulated, TwoSentences, useLines } from "./parts";
import { useDemo } from "./useDemo";
import { say } from "../../app/language";

const TOLD = [
  ["hardness", "hardness"],
  ["iron", "iron"],
  ["tannin", "tannin"],
  ["chlorine_total", "chlorine"],
  ["tds", "dissolved"],
] as const;

interface Step {
  name: string;
  look: Look;
  values: Record<string, Quantity>;
}

/** Today's water, then the water behind each stage. */
function stepsOf(line: LineReport, today: Look): Step[] {
  return [
    { name: say("Today"), look: today, values: line.source.quantities },
    ...line.stages.map((s) => ({
      name: KIND_NAMES[s.kind] ?? s.name,
      look: look(s.outlet.quantities, {
        ferric: s.outlet.particulate_iron ?? null,
        predicted: true,
      }),
      values: s.outlet.quantities,
    })),
  ];
}

function said(analyte: string, q: Quantity, units: string): string {
  return best(analyte, { ...q, words: q.words || q.note || "" }, units);
}

function AtStep({ step, first }: { step: Step; first: boolean }): ReactElement {
  const { units } = useVisitContext();
  const seen = inWords(step.look).filter((w) => !w.startsWith("not tested"));
  return (
    <div className="flex gap-10 items-end flex-wrap">
      <Glass look={step.look} h={320} label={step.name} pouring />
      <div className="grid gap-2 pb-6">
        <b className="font-d text-[34px] leading-tight">
          {first ? say("Today") : say("After: {name}", { name: lowerFirst(step.name) })}
        </b>
        <p className="text-[20px] text-ink-2">{seen.join(", ")}</p>
        <dl className="grid grid-cols-[auto_auto] gap-x-6 gap-y-1 text-[22px] justify-start">
          {TOLD.map(([a, n]) => {
            const q = step.values[a];
            return (
              q && (
                <div key={a} className="contents">
                  <dt>{n}</dt>
                  <dd className="m-0 font-semibold">{said(a, q, units)}</dd>
                </div>
              )
            );
          })}
        </dl>
      </div>
    </div>
  );
}

/** Left and right lead through the stages, as the touches do. */
function useArrows(count: number, move: (f: (at: number) => number) => void): void {
  useEffect(() => {
    const press = (e: KeyboardEvent): void => {
      if (e.key === "ArrowRight") move((at) => Math.min(count - 1, at + 1));
      if (e.key === "ArrowLeft") move((at) => Math.max(0, at - 1));
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, [count, move]);
}

function Stages({
  steps,
  at,
  onStep,
}: {
  steps: Step[];
  at: number;
  onStep: (i: number) => void;
}): ReactElement {
  return (
    <div className="flex gap-2 flex-wrap" role="group" aria-label={say("Stages")}>
      {steps.map((s, i) => (
        <button
          key={i}
          type="button"
          className="grid justify-items-center gap-1 p-1 w-[112px] rounded-[10px]"
          style={i === at ? { background: "var(--yuzu-pale)" } : undefined}
          aria-pressed={i === at}
          onClick={() => onStep(i)}
        >
          <Glass look={s.look} h={70} label={s.name} />
          <span className="text-[20px] leading-tight text-center">{s.name}</span>
        </button>
      ))}
    </div>
  );
}

export function ThroughView(): ReactElement {
  const { view, lookOf } = useVisitContext();
  const { body, shown, error, save } = useDemo("through");
  const [picked, setPicked] = useState(0);
  const lines = useLines();
  const line = lines.find((o) => o.id === body?.option)?.line ?? null;
  const raw = view.visit.samples.find((s) => s.raw);
  const steps = line && raw ? stepsOf(line, lookOf(raw)) : [];
  useArrows(steps.length, setPicked);
  const at = Math.max(0, Math.min(picked, steps.length - 1));
  const step = steps[at];
  return (
    <FacingView
      title={line ? say("Your water, stage by stage") : say("Your water through a system")}
      side={
        <>
          <TwoSentences kind="through" />
          <PickLine
            label={say("System")}
            value={body?.option}
            onPick={(option) => {
              setPicked(0);
              save({ kind: "through", option });
            }}
          />
        </>
      }
    >
      {step && <Simulated words={say("dashed glasses are expected, not measured")} />}
      {!line && (
        <p className="text-[24px]">
          {lines.length ? say("Choose a system.") : say("No system is designed yet.")}
        </p>
      )}
      {step && <AtStep key={at} step={step} first={at === 0} />}
      {step && <Stages steps={steps} at={at} onStep={setPicked} />}
      <Outcome shown={shown} error={error} />
    </FacingView>
  );
}
