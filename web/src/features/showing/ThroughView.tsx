/** This water through a system: today, after each stage, at the tap. No prices. */
import { useState, type ReactElement } from "react";

import type { Quantity } from "../../api/types";
import { best } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { inWords, look, type Look } from "../../glass/look";
import { KIND_NAMES } from "../treating/kinds";
import { useVisitContext } from "../visit/context";
import { Big, Outcome, Simulated, TwoSentences } from "./parts";
import { useDemo } from "./useDemo";

const TOLD = [
  ["hardness", "hardness"],
  ["iron", "iron"],
  ["tannin", "tannin"],
  ["chlorine_total", "chlorine"],
  ["tds", "dissolved"],
] as const;

export function ThroughView(): ReactElement {
  const { view, lookOf, units } = useVisitContext();
  const { body, shown, error, save } = useDemo("through");
  const [at, setAt] = useState(0);
  const lines = view.assessment.options.filter((o) => o.line && o.line.stages.length > 0);
  const option = lines.find((o) => o.id === body?.option) ?? null;
  const raw = view.visit.samples.find((s) => s.raw);
  const steps: { name: string; look: Look; values: Record<string, Quantity> }[] = [];
  if (option?.line && raw) {
    steps.push({ name: "Today", look: lookOf(raw), values: option.line.source.quantities });
    for (const s of option.line.stages)
      steps.push({
        name: KIND_NAMES[s.kind] ?? s.name,
        look: look(s.outlet.quantities, {
          ferric: s.outlet.particulate_iron ?? null,
          predicted: true,
        }),
        values: s.outlet.quantities,
      });
  }
  const step = steps[Math.min(at, steps.length - 1)];
  return (
    <div className="grid wide:grid-cols-[minmax(0,1fr)_400px] gap-x-12 gap-y-8 content-start">
      <div className="grid gap-5 content-start">
        <h1 className="text-[46px] leading-none">
          {option ? "Your water, stage by stage" : "Your water through a system"}
        </h1>
        {step && <Simulated words="dashed glasses are expected, not measured" />}
        {!option && (
          <p className="text-[24px]">
            {lines.length ? "Choose a system." : "No system is designed yet."}
          </p>
        )}
        {step && (
          <div className="flex gap-10 items-end flex-wrap">
            <Glass key={at} look={step.look} h={310} label={step.name} pouring />
            <div className="grid gap-2 pb-6">
              <b className="font-d text-[34px] leading-tight">
                {at === 0 ? "Today" : `After: ${step.name.toLowerCase()}`}
              </b>
              <p className="text-[20px] text-ink-2">
                {inWords(step.look)
                  .filter((w) => !w.startsWith("not tested"))
                  .join(", ")}
              </p>
              <dl className="grid grid-cols-[auto_auto] gap-x-6 gap-y-1 text-[22px] justify-start">
                {TOLD.map(
                  ([a, n]) =>
                    step.values[a] && (
                      <div key={a} className="contents">
                        <dt>{n}</dt>
                        <dd className="m-0 font-semibold">
                          {best(
                            a,
                            {
                              ...step.values[a],
                              words: step.values[a].words || step.values[a].note || "",
                            },
                            units,
                          )}
                        </dd>
                      </div>
                    ),
                )}
              </dl>
            </div>
          </div>
        )}
        {steps.length > 0 && (
          <div className="flex gap-2 flex-wrap" role="group" aria-label="Stages">
            {steps.map((s, i) => (
              <button
                key={i}
                type="button"
                className="grid justify-items-center gap-1 p-1 w-[100px] rounded-[10px]"
                style={i === at ? { background: "var(--yuzu-pale)" } : undefined}
                aria-pressed={i === at}
                onClick={() => setAt(i)}
              >
                <Glass look={s.look} h={70} label={s.name} />
                <span className="text-m leading-tight text-center">{s.name}</span>
              </button>
            ))}
          </div>
        )}
        <Outcome shown={shown} error={error} />
      </div>
      <div className="grid gap-6 content-start">
        <TwoSentences kind="through" />
        {lines.length > 0 && (
          <div className="flex flex-wrap gap-2" role="group" aria-label="Systems">
            {lines.map((o) => (
              <Big
                key={o.id}
                on={body?.option === o.id}
                onClick={() => {
                  setAt(0);
                  save({ kind: "through", option: o.id });
                }}
              >
                {o.name}
              </Big>
            ))}
          </div>
        )}
      </div>
    </div>
  );
}
