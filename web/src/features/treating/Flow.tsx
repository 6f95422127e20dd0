/** Water flowing from the source through a line's stages to the taps. */
import { Plus } from "lucide-react";
import type { ReactElement } from "react";

import { useCatalogue } from "../../api/hooks";
import type { Item, LineReport, Option, Quantity, StageReport } from "../../api/types";
import { midSentence, SOURCE_NAMES } from "../../app/names";
import { num, volume } from "../../app/show";
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

function isClock(items: Item[], code: string): boolean {
  const f = items.find((i) => i.code === code)?.figures;
  return f?.kind === "softener" && f.control === "clock";
}

export function Flow({
  line,
  option,
  onSwap,
  onDrop,
  onAdd,
  onChange,
  onTake,
}: {
  line: LineReport;
  option: Option;
  onSwap: (i: Item) => void;
  onDrop: (code: string) => void;
  onAdd: (() => void) | null;
  onChange: (c: Option["stages"][number]) => void;
  onTake: (from: string, to: Item) => void;
}): ReactElement {
  const { view, units, lookOf } = useVisitContext();
  const items = useCatalogue().data ?? [];
  const home = view.visit.home;
  const order = inOrder(view.assessment.meaning?.findings ?? []);
  const raw = view.visit.samples.find((s) => s.raw);
  const rawLook = raw
    ? lookOf(raw)
    : streamLook(line.source.quantities, line.source.particulate_iron);
  const houseLook = streamLook(line.house.quantities, line.house.particulate_iron);
  const tapLook = streamLook(line.tap.quantities, line.tap.particulate_iron);
  const plumbed = line.stages.some((s) => s.scope === "tap");
  const column = (s: StageReport, from: Look): ReactElement => {
    const n = line.stages.indexOf(s);
    const judged = judgedOf(s.code, view);
    const before = (line.stages[n - 1]?.outlet ?? line.source).quantities;
    const owner = ownerOf(option, s.code, items);
    const after = streamLook(s.outlet.quantities, s.outlet.particulate_iron);
    const system = owner !== null && owner.figures.kind === "system" ? owner : null;
    return (
      <Column
        key={s.code}
        wide
        title={
          judged ? (
            judged.name
          ) : (
            <StageMenu
              stage={s}
              part={system?.name ?? null}
              choice={system ? null : (option.stages.find((c) => c.item === s.code) ?? null)}
              index={line.stages.indexOf(s)}
              last={line.stages.length - 1}
              clock={isClock(items, s.code)}
              others={
                system
                  ? []
                  : items
                      .filter(
                        (i) =>
                          i.figures.kind === s.kind &&
                          i.scope === s.scope &&
                          i.code !== s.code &&
                          Number(i.price) > 0,
                      )
                      .sort((a, b) => Number(a.price) - Number(b.price))
              }
              currency={view.visit.settings.currency}
              onTake={(i) => onTake(s.code, i)}
              onChange={onChange}
              onSwap={() => {
                if (owner) onSwap(owner);
              }}
              onDrop={() => onDrop(owner?.code ?? s.code)}
            />
          )
        }
        sub={judged ? `stands there, ${s.summary || "as it is"}` : s.name}
        drawing={
          <Drawing
            kind={
              judged?.drawing ?? (s.scope === "tap" && s.kind === "carbon" ? "tap_carbon" : s.kind)
            }
          />
        }
        from={from}
        to={after}
        glass={after}
        name={`After ${judged ? midSentence(judged.name) : (KIND_NAMES[s.kind] ?? s.kind).toLowerCase()}`}
        small={caption(s.outlet.quantities, order, units, before)}
      >
        {judged ? (
          <>
            <p className="flex gap-2 items-center font-semibold mb-2">
              <StateMark kind={VERDICTS[judged.verdict]?.[1] ?? "say"} size={18} />
              {VERDICTS[judged.verdict]?.[0]}
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
        ) : (
          <StageCard stage={s} />
        )}
      </Column>
    );
  };
  const house = line.stages.filter((s) => s.scope === "house");
  const tap = line.stages.filter((s) => s.scope === "tap");
  const outletOf = (s: StageReport | undefined): Look =>
    s ? streamLook(s.outlet.quantities, s.outlet.particulate_iron) : rawLook;
  const put = (s: StageReport): ReactElement =>
    column(s, outletOf(line.stages[line.stages.indexOf(s) - 1]));
  return (
    <div
      className="absolute inset-0 overflow-x-auto overflow-y-hidden scroll sideways"
      role="group"
      aria-label={`Water flows from the source through ${line.stages.length} stages to the taps`}
      tabIndex={0}
    >
      <div className="flex h-full px-5 w-max min-w-full">
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
            {raw ? caption(line.source.quantities, order, units) : "no raw sample"}
          </p>
          {onAdd && (
            <button className="key mt-3" onClick={onAdd}>
              <Plus size={20} aria-hidden="true" />
              Add a stage
            </button>
          )}
        </Column>
        {house.map(put)}
        <Column
          title="House"
          sub={`${volume(line.demand.house_gal_day.best, units)} a day${line.demand.from_bill ? ", from the bill" : ""}`}
          drawing={<HouseDrawing />}
          from={houseLook}
          to={houseLook}
          glass={houseLook}
          name="House taps"
          small={caption(line.house.quantities, order, units)}
          end={plumbed ? "" : "last"}
        >
          <CheckList checks={line.checks} />
          <p className="text-m text-ink-2">
            Peak {num(line.demand.peak_gpm, 1)} gpm
            {line.demand.capped ? ", the measured flow" : " by bathrooms"}. Lead and copper arise in
            the pipes from here on: only the drinking tap’s stages answer them.
          </p>
        </Column>
        {tap.map(put)}
        {plumbed && (
          <Column
            title="Drinking tap"
            sub={`${num(line.demand.drinking_gal_day, 1)} gal a day drunk`}
            drawing={<TapDrawing />}
            from={tapLook}
            to={tapLook}
            glass={tapLook}
            name="Drinking tap"
            small={caption(line.tap.quantities, order, units)}
            end="last"
          >
            <p className="text-m text-ink-2">
              Predicted from today’s tests; measured after installing.
            </p>
          </Column>
        )}
      </div>
    </div>
  );
}
