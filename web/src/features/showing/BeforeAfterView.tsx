/** Before and after: chlorine through carbon, colour through a small column of resin. */
import type { ReactElement } from "react";

import { Glass } from "../../glass/Glass";
import { look } from "../../glass/look";
import { useVisitContext } from "../visit/context";
import { Big, Cautions, Outcome, PickGlass, Simulated, TwoSentences } from "./parts";
import { useDemo } from "./useDemo";

const NAMES: Record<string, string> = {
  chlorine_free: "Free chlorine",
  chlorine_total: "Total chlorine",
  tannin: "Tannin",
  iron: "Iron",
};
const SMELLS = [
  ["none", "no smell"],
  ["faint", "faint"],
  ["strong", "strong"],
] as const;
const LOOKS = [
  ["clear", "clear"],
  ["faint", "faint"],
  ["coloured", "coloured"],
] as const;

export function BeforeAfterView({ kind }: { kind: "chlorine" | "colour" }): ReactElement {
  const { view, lookOf } = useVisitContext();
  const { body, shown, simulated, error, save } = useDemo(kind);
  const samples = view.visit.samples;
  const before =
    samples.find((s) => s.id === (body?.sample ?? samples.find((x) => x.raw)?.id)) ?? null;
  const after = samples.find((s) => s.id === body?.after) ?? null;
  const line = view.assessment.options.find((o) => o.id === body?.option)?.line ?? null;
  const lines = view.assessment.options.filter((o) => o.line && o.line.stages.length > 0);
  const rows = shown?.result?.kind === "before_after" ? shown.result.rows : [];
  if (!before) return <h1 className="text-[44px]">No glass drawn yet</h1>;
  const base =
    body ??
    (kind === "chlorine"
      ? {
          kind: "chlorine" as const,
          sample: before.id,
          after: null,
          option: null,
          smell_before: null,
          smell_after: null,
        }
      : {
          kind: "colour" as const,
          sample: before.id,
          after: null,
          option: null,
          looked_before: null,
          looked_after: null,
          equal_volumes: true,
        });
  const chosen = (when: "before" | "after"): string | null =>
    base.kind === "chlorine"
      ? ((when === "before" ? base.smell_before : base.smell_after) ?? null)
      : ((when === "before" ? base.looked_before : base.looked_after) ?? null);
  const choose = (when: "before" | "after", v: string): void =>
    save(
      base.kind === "chlorine"
        ? { ...base, [`smell_${when}`]: v }
        : { ...base, [`looked_${when}`]: v },
    );
  const list = kind === "chlorine" ? SMELLS : LOOKS;
  return (
    <div className="grid wide:grid-cols-[minmax(0,1fr)_400px] gap-x-12 gap-y-8 content-start">
      <div className="grid gap-5 content-start">
        <h1 className="text-[46px] leading-none">
          {kind === "chlorine" ? "Chlorine, before and after" : "Colour, before and after"}
        </h1>
        {simulated && <Simulated words="the dashed glass is expected, not measured" />}
        <div className="flex gap-14 items-end flex-wrap">
          {(["before", "after"] as const).map((when) => {
            const s = when === "before" ? before : after;
            const l = s
              ? lookOf(s)
              : when === "after" && line
                ? look(line.tap.quantities, {
                    ferric: line.tap.particulate_iron ?? null,
                    predicted: true,
                  })
                : null;
            return (
              <div key={when} className="grid gap-2 justify-items-center w-[270px]">
                {l ? (
                  <Glass look={l} h={250} label={s?.name ?? "expected"} pouring />
                ) : (
                  <div className="h-[250px] grid place-items-center text-[19px] text-ink-2 text-center">
                    {kind === "chlorine"
                      ? "Choose the glass behind the carbon"
                      : "Choose the glass from the column"}
                  </div>
                )}
                <b className="text-[21px]">
                  {when === "before" ? "Before" : "After"}
                  {s ? `: ${s.name}` : line ? `: ${line.name}` : ""}
                </b>
                {!simulated && (
                  <div
                    className="flex gap-1"
                    role="group"
                    aria-label={`${when}: ${kind === "chlorine" ? "smell" : "colour"}`}
                  >
                    {list.map(([v, n]) => (
                      <button
                        key={v}
                        type="button"
                        className="key"
                        style={{
                          minHeight: 50,
                          padding: "0 12px",
                          ...(chosen(when) === v
                            ? { background: "var(--yuzu)", color: "var(--on-yuzu)" }
                            : {}),
                        }}
                        aria-pressed={chosen(when) === v}
                        onClick={() => choose(when, v)}
                      >
                        {n}
                      </button>
                    ))}
                  </div>
                )}
              </div>
            );
          })}
        </div>
        {rows.length > 0 && (
          <table className="text-[21px] max-w-[760px]">
            <tbody>
              {rows.map(([a, x, y, said]) => (
                <tr key={a} className="border-b border-rule">
                  <th scope="row" className="text-left py-2 pr-5 font-semibold">
                    {NAMES[a] ?? a}
                  </th>
                  <td className="pr-5 whitespace-nowrap">{x}</td>
                  <td className="pr-5 whitespace-nowrap">{y}</td>
                  <td>{said}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {kind === "colour" && view.assessment.meaning?.colour && (
          <p className="text-[21px] font-d font-semibold">
            The three cups: {view.assessment.meaning.colour.sentence}
          </p>
        )}
        <Outcome shown={shown} error={error} />
      </div>
      <div className="grid gap-5 content-start">
        <TwoSentences kind={kind} />
        <PickGlass
          label={kind === "chlorine" ? "Behind carbon" : "From the column"}
          value={base.after}
          only={(s) => s.id !== before.id}
          onPick={(after) => save({ ...base, after, option: null }, false)}
        />
        {lines.length > 0 && (
          <div>
            <p className="text-[17px] font-semibold mb-1">Or expected behind</p>
            <div className="flex flex-wrap gap-2">
              {lines.map((o) => (
                <Big
                  key={o.id}
                  on={base.option === o.id}
                  onClick={() => save({ ...base, after: null, option: o.id }, true)}
                >
                  {o.name}
                </Big>
              ))}
            </div>
          </div>
        )}
        <Cautions kind={kind} />
      </div>
    </div>
  );
}
