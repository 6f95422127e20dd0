/** Water flowing from the source through a line's stages to the taps. */
import { Plus } from "lucide-react";
import type { ReactElement } from "react";

import { useCatalogue } from "../../api/hooks";
import type { Item, LineReport, Option, Quantity, StageReport } from "../../api/types";
import { DOES } from "../../app/technologies.generated";
import { midSentence, SOURCE_NAMES } from "../../app/names";
import { flow, sip, volume } from "../../app/show";
import { look, type Look } from "../../glass/look";
import { StateMark } from "../../ui/marks";
import { VERDICTS } from "../in-place/JudgedCard";
import { judgedOf } from "../in-place/kept";
import { useVisitContext } from "../visit/context";
import { caption, inOrder } from "./caption";
import { CheckList, StageCard } from "./Checks";
import { Column } from "./Column";
import { Drawing, HouseDrawing, SourceDrawing, TapDrawing } from "./drawings";
import { KIND_NAMES } from "./kinds";
import { StageMenu } from "./StageMenu";
import { spoken, say } from "../../app/language";

function streamLook(q: Record<string, Quantity>, ferric: boolean | null | undefined): Look {
  return look(q, { ferric: ferric ?? null, predicted: true });
}

/** Which of the option's items a stage belongs to: itself, or the system that holds it. */
function ownerOf(option: Option, code: string, items: Item[]): Item | null {
  const direct = option.stages.find((s) => s.item === code);
  if (direct) return items.find((i) => i.code === code) ?? null;
  return (
    items.find(
      (i) =>
        option.stages.some((s) => s.item === i.code) &&
        i.figures.kind === "system" &&
        i.figures.parts.includes(code),
    ) ?? null
  );
}

const sentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

interface FlowProps {
  line: LineReport;
  option: Option;
  onSwap: (i: Item) => void;
  onDrop: (code: string) => void;
  onAdd: (() => void) | null;
  onChange: (c: Option["stages"][number]) => void;
  onTake: (from: string, to: Item) => void;
}

/**
 * Others of a stage's kind and place, the cheapest first; those of price 0 come in systems only.
 */
function othersOf(s: StageReport, items: Item[]): Item[] {
  return items
    .filter((i) => i.figures.kind === s.kind && i.scope === s.scope && i.code !== s.code)
    .filter((i) => Number(i.price) > 0)
    .sort((a, b) => Number(a.price) - Number(b.price));
}

/** A stage's name, which opens its menu. */
function Title({ s, flow }: { s: StageReport; flow: FlowProps }): ReactElement {
  const { view } = useVisitContext();
  const items = useCatalogue().data ?? [];
  const { line, option } = flow;
  const owner = ownerOf(option, s.code, items);
  const system = owner?.figures.kind === "system" ? owner : null;
  return (
    <StageMenu
      stage={s}
      part={system?.name ?? null}
      choice={system ? null : (option.stages.find((c) => c.item === s.code) ?? null)}
      had={option.stages.find((c) => c.item === owner?.code) ?? null}
      lets={owner?.lets ?? []}
      index={line.stages.indexOf(s)}
      last={line.stages.length - 1}
      figures={items.find((i) => i.code === s.code)?.figures ?? null}
      others={system ? [] : othersOf(s, items)}
      currency={view.visit.settings.currency}
      onTake={(i) => flow.onTake(s.code, i)}
      onChange={flow.onChange}
      onSwap={() => {
        if (owner) flow.onSwap(owner);
      }}
      onDrop={() => flow.onDrop(owner?.code ?? s.code)}
    />
  );
}

type Judged = NonNullable<ReturnType<typeof judgedOf>>;

/** What stands there already, as it was judged. */
function JudgedBody({ judged, s }: { judged: Judged; s: StageReport }): ReactElement {
  const [words, mark] = VERDICTS[judged.verdict] ?? ["", "say"];
  return (
    <>
      <p className="flex gap-2 items-center font-semibold mb-2">
        <StateMark kind={mark} size={18} />
        {words}
      </p>
      <p className="text-m mb-2">{judged.advice}</p>
      <ul className="text-m">
        {judged.facts.map((f) => (
          <li key={f} className="py-1 border-t border-rule">
            {f}
          </li>
        ))}
      </ul>
      <CheckList checks={s.checks} />
    </>
  );
}

const outletLook = (s: StageReport): Look =>
  streamLook(s.outlet.quantities, s.outlet.particulate_iron);

const kindOf = (s: StageReport): string =>
  s.scope === "tap" && DOES[s.kind]?.includes("takes chlorine") ? "tap_carbon" : s.kind;

/** An iron filter that tannin stops: the tannin bed of the line goes ahead of it, at one touch. */
function OrderThatWorks({ s, flow }: { s: StageReport; flow: FlowProps }): ReactElement | null {
  const { line, option } = flow;
  const bound = s.checks.some((c) => c.id === "iron.tannin" && c.status === "stop");
  const bed = line.stages.find(
    (x) => x.scope === s.scope && DOES[x.kind]?.includes("against tannin"),
  );
  const choice = option.stages.find((c) => c.item === bed?.code);
  if (!bound) return null;
  if (!choice)
    return (
      flow.onAdd && <p className="text-m mt-2">{say("Add a tannin filter to the system first.")}</p>
    );
  return (
    <button
      className="key small mt-2 whitespace-normal"
      onClick={() =>
        flow.onChange({
          ...choice,
          position: line.stages.indexOf(s),
          reason: say("Tannin binds iron: its bed goes first."),
        })
      }
    >
      {say("Put the tannin bed ahead")}
    </button>
  );
}

function Stage({ s, from, flow }: { s: StageReport; from: Look; flow: FlowProps }): ReactElement {
  const { view, units } = useVisitContext();
  const { line } = flow;
  const judged = judgedOf(s.code, view);
  const before = (line.stages[line.stages.indexOf(s) - 1]?.outlet ?? line.source).quantities;
  const order = inOrder(view.assessment.meaning?.findings ?? []);
  const after = outletLook(s);
  const name = judged ? midSentence(judged.name) : midSentence(KIND_NAMES[s.kind] ?? s.kind);
  return (
    <Column
      wide
      title={judged ? judged.name : <Title s={s} flow={flow} />}
      sub={judged ? say("stands there, {x}", { x: s.summary || "as it is" }) : s.name}
      drawing={<Drawing kind={judged?.drawing ?? kindOf(s)} />}
      from={from}
      to={after}
      glass={after}
      name={`After ${name}`}
      small={caption(s.outlet.quantities, order, units, before)}
    >
      {judged ? <JudgedBody judged={judged} s={s} /> : <StageCard stage={s} />}
      <OrderThatWorks s={s} flow={flow} />
    </Column>
  );
}

/** Where a line begins: the source, and the raw sample it is designed from. */
function Source({ rawLook, flow }: { rawLook: Look; flow: FlowProps }): ReactElement {
  const { view, units } = useVisitContext();
  const { home, samples } = view.visit;
  const order = inOrder(view.assessment.meaning?.findings ?? []);
  const drawn = samples.some((s) => s.raw);
  return (
    <Column
      title={sentence(SOURCE_NAMES[home.source] ?? "source")}
      sub={home.place}
      drawing={<SourceDrawing source={home.source} />}
      from={rawLook}
      to={rawLook}
      glass={rawLook}
      name="Raw"
      small="measured"
      end="first"
    >
      <p className="text-m text-ink-2">
        {drawn ? caption(flow.line.source.quantities, order, units) : say("no raw sample")}
      </p>
      {flow.onAdd && (
        <button className="key mt-3" onClick={flow.onAdd}>
          <Plus size={20} aria-hidden="true" />
          {say("Add a stage")}
        </button>
      )}
    </Column>
  );
}

const PEAK_BY = spoken({
  told: ", as its designer says",
  pipe: ", what its pipe carries",
  bathrooms: " by bathrooms",
} as const);

function House({ line, last }: { line: LineReport; last: boolean }): ReactElement {
  const { view, units } = useVisitContext();
  const order = inOrder(view.assessment.meaning?.findings ?? []);
  const { demand } = line;
  const water = streamLook(line.house.quantities, line.house.particulate_iron);
  const bill = demand.from_bill ? say(", from the bill") : "";
  return (
    <Column
      title={say("House")}
      sub={say("{best} a day{bill}", { best: volume(demand.house_gal_day.best, units), bill })}
      drawing={<HouseDrawing />}
      from={water}
      to={water}
      glass={water}
      name="House taps"
      small={caption(line.house.quantities, order, units)}
      end={last ? "last" : ""}
    >
      <CheckList checks={line.checks} />
      <p className="text-m text-ink-2">
        {say(
          "Peak {peak_gpm}{x}. Lead and copper arise in the pipes from here on: only the " +
            "drinking tap’s stages answer them.",
          {
            peak_gpm: flow(demand.peak_gpm, units),
            x: demand.capped ? ", the measured flow" : PEAK_BY[demand.peak_by],
          },
        )}
      </p>
    </Column>
  );
}

function DrinkingTap({ line }: { line: LineReport }): ReactElement {
  const { view, units } = useVisitContext();
  const order = inOrder(view.assessment.meaning?.findings ?? []);
  const water = streamLook(line.tap.quantities, line.tap.particulate_iron);
  return (
    <Column
      title={say("Drinking tap")}
      sub={say("{drinking_gal_day} a day drunk", {
        drinking_gal_day: sip(line.demand.drinking_gal_day, units),
      })}
      drawing={<TapDrawing />}
      from={water}
      to={water}
      glass={water}
      name="Drinking tap"
      small={caption(line.tap.quantities, order, units)}
      end="last"
    >
      <p className="text-m text-ink-2">
        {say("Predicted from today’s tests; measured after installing.")}
      </p>
    </Column>
  );
}

export function Flow(props: FlowProps): ReactElement {
  const { view, lookOf } = useVisitContext();
  const { line } = props;
  const raw = view.visit.samples.find((s) => s.raw);
  const rawLook = raw
    ? lookOf(raw)
    : streamLook(line.source.quantities, line.source.particulate_iron);
  const put = (s: StageReport): ReactElement => {
    const ahead = line.stages[line.stages.indexOf(s) - 1];
    return <Stage key={s.code} s={s} from={ahead ? outletLook(ahead) : rawLook} flow={props} />;
  };
  const tap = line.stages.filter((s) => s.scope === "tap");
  return (
    <div
      className="absolute inset-0 overflow-x-auto overflow-y-hidden scroll sideways"
      role="group"
      aria-label={say("Water flows from the source through {length} stages to the taps", {
        length: line.stages.length,
      })}
      tabIndex={0}
    >
      <div className="flex h-full px-5 w-max min-w-full">
        <Source rawLook={rawLook} flow={props} />
        {line.stages.filter((s) => s.scope === "house").map(put)}
        <House line={line} last={tap.length === 0} />
        {tap.map(put)}
        {tap.length > 0 && <DrinkingTap line={line} />}
      </div>
    </div>
  );
}
