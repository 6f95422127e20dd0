/** Before and after: chlorine through carbon, colour through a small column of resin. */
import type { ReactElement } from "react";

import type { LineReport, Sample } from "../../api/types";
import { Glass } from "../../glass/Glass";
import { look, type Look } from "../../glass/look";
import { useVisitContext } from "../visit/context";
import {
  Big,
  Cautions,
  FacingView,
  NoGlass,
  Outcome,
  PickGlass,
  PickLine,
  Simulated,
  TwoSentences,
} from "./parts";
import { useDemo, type BodyOf } from "./useDemo";
import { message, say } from "../../app/language";

const NAMES: Record<string, string> = {
  chlorine_free: message("Free chlorine"),
  chlorine_total: message("Total chlorine"),
  tannin: message("Tannin"),
  iron: message("Iron"),
};
const SMELLS = [
  ["none", message("no smell")],
  ["faint", message("faint")],
  ["strong", message("strong")],
] as const;
const LOOKS = [
  ["clear", message("clear")],
  ["faint", message("faint")],
  ["coloured", message("colored")],
] as const;

type Kind = "chlorine" | "colour";
type When = "before" | "after";
type Body = BodyOf<Kind>;

const WORDS = {
  chlorine: {
    title: message("Chlorine, before and after"),
    choose: message("Choose the glass behind the carbon"),
    from: message("Behind carbon"),
    sensed: message("smell"),
    list: SMELLS,
  },
  colour: {
    title: message("Color, before and after"),
    choose: message("Choose the glass from the column"),
    from: message("From the column"),
    sensed: message("color"),
    list: LOOKS,
  },
} as const;

function fresh(kind: Kind, sample: string): Body {
  const both = { sample, after: null, option: null };
  if (kind === "chlorine") return { kind, ...both, smell_before: null, smell_after: null };
  return { kind, ...both, looked_before: null, looked_after: null, equal_volumes: true };
}

function sensed(body: Body, when: When): string | null {
  if (body.kind === "chlorine")
    return (when === "before" ? body.smell_before : body.smell_after) ?? null;
  return (when === "before" ? body.looked_before : body.looked_after) ?? null;
}

function withSensed(body: Body, when: When, v: string): Body {
  const field = body.kind === "chlorine" ? "smell" : "looked";
  return { ...body, [`${field}_${when}`]: v };
}

const expectedLook = (line: LineReport): Look =>
  look(line.tap.quantities, { ferric: line.tap.particulate_iron ?? null, predicted: true });

/** One of the two waters: its glass, its name, and what was smelled or seen. */
function Side({
  when,
  kind,
  sample,
  line,
  chosen,
  onChoose,
}: {
  when: When;
  kind: Kind;
  sample: Sample | null;
  /** The line whose expected water stands in for a glass. */
  line: LineReport | null;
  chosen: string | null;
  /** Null where nothing was smelled or seen: it is expected. */
  onChoose: ((v: string) => void) | null;
}): ReactElement {
  const { lookOf } = useVisitContext();
  const words = WORDS[kind];
  const shown = sample ? lookOf(sample) : line && expectedLook(line);
  const of = sample?.name ?? line?.name;
  const title = when === "before" ? say("Before") : say("After");
  return (
    <div className="grid gap-2 justify-items-center w-[min(340px,100%)]">
      {shown ? (
        <Glass look={shown} h={380} label={sample?.name ?? "expected"} pouring />
      ) : (
        <div className="h-[380px] grid place-items-center text-[24px] text-ink-2 text-center">
          {say(words.choose)}
        </div>
      )}
      <b className="text-[21px]">{of === undefined ? title : `${title}: ${of}`}</b>
      {onChoose && (
        <div className="flex gap-1" role="group" aria-label={`${when}: ${words.sensed}`}>
          {words.list.map(([v, n]) => (
            <Big key={v} on={chosen === v} onClick={() => onChoose(v)}>
              {say(n)}
            </Big>
          ))}
        </div>
      )}
    </div>
  );
}

function Rows({ rows }: { rows: readonly (readonly string[])[] }): ReactElement | null {
  if (rows.length === 0) return null;
  return (
    <table className="text-[22px] max-w-[760px]">
      <tbody>
        {rows.map(([a = "", x, y, said]) => (
          <tr key={a} className="border-b border-rule">
            <th scope="row" className="text-left py-2 pr-5 font-semibold">
              {say(NAMES[a] ?? a)}
            </th>
            <td className="pr-5 whitespace-nowrap">{x}</td>
            <td className="pr-5 whitespace-nowrap">{y}</td>
            <td>{said}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What the three cups said of this water, beside its colour. */
function ByCups({ kind }: { kind: Kind }): ReactElement | null {
  const found = useVisitContext().view.assessment.meaning?.colour;
  if (kind !== "colour" || !found) return null;
  return (
    <p className="text-[21px] font-d font-semibold">
      {say("The three cups: {sentence}", { sentence: found.sentence })}
    </p>
  );
}

export function BeforeAfterView({ kind }: { kind: Kind }): ReactElement {
  const { view } = useVisitContext();
  const { body, shown, simulated, error, save } = useDemo<Kind>(kind);
  const { samples } = view.visit;
  const sample = (id: string | null | undefined): Sample | null =>
    samples.find((s) => s.id === id) ?? null;
  const before = body ? sample(body.sample) : (samples.find((s) => s.raw) ?? null);
  if (!before) return <NoGlass />;
  const base = body ?? fresh(kind, before.id);
  const line = view.assessment.options.find((o) => o.id === base.option)?.line ?? null;
  const rows = shown?.result?.kind === "before_after" ? shown.result.rows : [];
  const side = (when: When, of: Sample | null): ReactElement => (
    <Side
      when={when}
      kind={kind}
      sample={of}
      line={when === "after" ? line : null}
      chosen={sensed(base, when)}
      onChoose={simulated ? null : (v) => save(withSensed(base, when, v))}
    />
  );
  return (
    <FacingView
      title={say(WORDS[kind].title)}
      side={
        <>
          <TwoSentences kind={kind} />
          <PickGlass
            label={say(WORDS[kind].from)}
            value={base.after}
            only={(s) => s.id !== before.id}
            onPick={(after) => save({ ...base, after, option: null }, false)}
          />
          <PickLine
            label={say("Or expected behind")}
            value={base.option}
            onPick={(option) => save({ ...base, after: null, option }, true)}
          />
          <Cautions kind={kind} />
        </>
      }
    >
      {simulated && <Simulated words={say("the dashed glass is expected, not measured")} />}
      <div className="flex gap-10 items-end flex-wrap">
        {side("before", before)}
        {side("after", sample(base.after))}
      </div>
      <Rows rows={rows} />
      <ByCups kind={kind} />
      <Outcome shown={shown} error={error} />
    </FacingView>
  );
}
