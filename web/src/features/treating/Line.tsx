/** The line: water flowing from the source to the taps, the glass after each stage, the checks at the stage that asks. */
import { Ellipsis, Plus } from "lucide-react";
import { Popover } from "radix-ui";
import { useState, type ReactElement, type ReactNode } from "react";
import { Link, useSearchParams } from "react-router";

import {
  useCatalogue,
  useDropOption,
  useEditOption,
  usePutOption,
  useReference,
} from "../../api/hooks";
import type { Check, Item, LineReport, Option, Quantity, StageReport } from "../../api/types";
import { newId, SOURCE_NAMES } from "../../app/names";
import { best, num, volume } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { halton, look, rgb, tint, type Look } from "../../glass/look";
import { StateMark, STATUS_MARK } from "../../ui/marks";
import { OpensWorking } from "../../ui/Slip";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { ChooseItem } from "./ChooseItem";
import { Drawing, HouseDrawing, SourceDrawing, TapDrawing } from "./drawings";
import { KIND_NAMES } from "./kinds";
import { StageMenu } from "./StageMenu";
import { Suggest } from "./Suggest";
import { WhatIf } from "./WhatIf";

const LETTER = (i: number): string => String.fromCharCode(65 + i);
const RANK: Record<string, number> = { stop: 0, unknown: 1, warn: 2, say: 3, met: 4 };

function Pipe({
  from,
  to,
  end,
}: {
  from: Look;
  to: Look;
  end: "first" | "last" | "";
}): ReactElement {
  const [x0, x1] = [end === "first" ? 90 : 0, end === "last" ? 90 : 180];
  const specks = from.hard ? Math.min(9, Math.round(from.hard[1] / 40)) : 0;
  const after = to.hard ? Math.min(9, Math.round(to.hard[1] / 40)) : 0;
  return (
    <svg
      viewBox="0 0 180 24"
      preserveAspectRatio="none"
      className="absolute left-0 right-0 top-[16px] w-full h-6"
      aria-hidden="true"
    >
      <path d={`M${x0},12H${x1}`} stroke="var(--ink)" strokeWidth="19" />
      {x0 < 90 && <path d={`M${x0},12H91`} stroke={rgb(tint(from))} strokeWidth="15" />}
      {x1 > 90 && <path d={`M90,12H${x1}`} stroke={rgb(tint(to))} strokeWidth="15" />}
      <path
        className="stream"
        d={`M${x0},12H${x1}`}
        stroke="#10302A"
        strokeWidth="2"
        strokeLinecap="round"
        opacity="0.4"
      />
      <g className="drift">
        {Array.from({ length: specks }, (_, i) => (
          <circle
            key={i}
            cx={x0 + 4 + halton(i + 1, 2) * (90 - x0 - 8)}
            cy={7 + halton(i + 1, 3) * 10}
            r="1.7"
            fill="#FFFFFC"
            stroke="#10302A"
            strokeWidth="0.8"
          />
        ))}
        {Array.from({ length: after }, (_, i) => (
          <circle
            key={`a${i}`}
            cx={94 + halton(i + 2, 2) * (x1 - 98)}
            cy={7 + halton(i + 2, 3) * 10}
            r="1.7"
            fill="#FFFFFC"
            stroke="#10302A"
            strokeWidth="0.8"
          />
        ))}
      </g>
    </svg>
  );
}

function CheckList({ checks }: { checks: Check[] }): ReactElement {
  const sorted = [...checks].sort((a, b) => (RANK[a.status] ?? 5) - (RANK[b.status] ?? 5));
  return (
    <ul className="text-m leading-snug">
      {sorted.map((c, i) => (
        <li
          key={`${c.id}${i}`}
          className="flex gap-2 mb-[7px] items-start"
          data-check={c.id}
          data-status={c.status}
        >
          <span className="pt-[1px]">
            <StateMark
              kind={STATUS_MARK[c.status] ?? "say"}
              size={17}
              label={c.status === "stop" ? "stop" : undefined}
            />
          </span>
          <span className={c.status === "stop" ? "font-semibold" : ""}>
            {c.status === "stop" && <b className="text-zest-ink">Stop. </b>}
            {c.sentence}
            {c.status === "unknown" && c.test !== "" && !c.sentence.includes(c.test) && (
              <span className="text-ink-2"> Test: {c.test}.</span>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}

interface ColumnProps {
  title: ReactNode;
  sub: ReactNode;
  drawing: ReactElement;
  from: Look;
  to: Look;
  children: ReactNode;
  glass: Look;
  name: string;
  small: string;
  wide?: boolean;
  end?: "first" | "last" | "";
}

function Column({
  title,
  sub,
  drawing,
  from,
  to,
  children,
  glass,
  name,
  small,
  wide = false,
  end = "",
}: ColumnProps): ReactElement {
  return (
    <section
      className={`${wide ? "w-[236px]" : "w-[208px]"} shrink-0 h-full grid grid-rows-[66px_156px_minmax(0,1fr)_72px]`}
      aria-label={name}
    >
      <div className="px-3 min-w-0">
        <div className="font-d font-[640] text-[19px] leading-tight">{title}</div>
        <div className="text-m text-ink-2 leading-tight mt-[2px]">{sub}</div>
      </div>
      <div className="relative h-full overflow-visible">
        <Pipe from={from} to={to} end={end} />
        <svg
          viewBox="0 0 180 190"
          preserveAspectRatio="xMidYMin meet"
          className="absolute inset-x-0 top-[2px] w-full h-[154px] overflow-visible"
          aria-hidden="true"
        >
          {drawing}
        </svg>
      </div>
      <div
        className="scroll px-3 min-h-0 pt-1"
        tabIndex={0}
        role="group"
        aria-label={`${name}: checks`}
      >
        {children}
      </div>
      <div className="token self-end mx-2" style={{ maxWidth: "none" }}>
        <Glass look={glass} h={44} label={name} />
        <span>
          {name}
          <small>{small}</small>
        </span>
      </div>
    </section>
  );
}

function Figures({ stage }: { stage: StageReport }): ReactElement | null {
  if (stage.figures.length === 0) return null;
  return (
    <ul className="text-m mb-2 border-b border-rule pb-2">
      {stage.figures.map((f) => (
        <li key={f.id} className="mb-[9px] leading-snug" data-figure={f.id}>
          {f.label}{" "}
          <OpensWorking working={f.working}>
            {f.value} {f.unit}
          </OpensWorking>
          {f.worst !== "" && <span className="block text-s text-ink-3">{f.worst}</span>}
        </li>
      ))}
    </ul>
  );
}

function streamLook(q: Record<string, Quantity>, ferric: boolean | null | undefined): Look {
  return look(q, { ferric: ferric ?? null, predicted: true });
}

function shortly(q: Record<string, Quantity>, units: string): string {
  const say = (a: string, lead: string): string[] => {
    const x = q[a];
    return x?.range ? [`${lead}${best(a, x, units)}`] : [];
  };
  const out = [
    ...say("hardness", ""),
    ...((q.iron?.range?.best ?? 0) >= 0.1 ? say("iron", "iron ") : say("tds", "TDS ")),
  ];
  return out.length ? out.join(", ") : "not tested";
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

function isClock(items: Item[], code: string): boolean {
  const f = items.find((i) => i.code === code)?.figures;
  return f?.kind === "softener" && f.control === "clock";
}

function Flow({
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
  onAdd: () => void;
  onChange: (c: Option["stages"][number]) => void;
  onTake: (from: string, to: Item) => void;
}): ReactElement {
  const { view, units, lookOf } = useVisitContext();
  const items = useCatalogue().data ?? [];
  const home = view.visit.home;
  const raw = view.visit.samples.find((s) => s.raw);
  const rawLook = raw
    ? lookOf(raw)
    : streamLook(line.source.quantities, line.source.particulate_iron);
  const houseLook = streamLook(line.house.quantities, line.house.particulate_iron);
  const tapLook = streamLook(line.tap.quantities, line.tap.particulate_iron);
  const plumbed = line.stages.some((s) => s.scope === "tap");
  const column = (s: StageReport, before: Look): ReactElement => {
    const owner = ownerOf(option, s.code, items);
    const after = streamLook(s.outlet.quantities, s.outlet.particulate_iron);
    const system = owner !== null && owner.figures.kind === "system" ? owner : null;
    return (
      <Column
        key={s.code}
        wide={s.figures.length > 1}
        title={
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
        }
        sub={s.name}
        drawing={
          <Drawing kind={s.scope === "tap" && s.kind === "carbon" ? "tap_carbon" : s.kind} />
        }
        from={before}
        to={after}
        glass={after}
        name={`After ${(KIND_NAMES[s.kind] ?? s.kind).toLowerCase()}`}
        small={shortly(s.outlet.quantities, units)}
      >
        <Figures stage={s} />
        <CheckList checks={s.checks} />
        {s.settings.length > 0 && (
          <p className="text-s text-ink-2 mt-1">
            Set: {s.settings.map(([k, w]) => `${k.toLowerCase()} ${w}`).join("; ")}.
          </p>
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
          title={SOURCE_NAMES[home.source] ?? "Source"}
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
            {raw ? shortly(line.source.quantities, units) : "no raw sample"}
          </p>
          <button className="key mt-3" onClick={onAdd}>
            <Plus size={20} aria-hidden="true" />
            Add a stage
          </button>
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
          small={shortly(line.house.quantities, units)}
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
            small={shortly(line.tap.quantities, units)}
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

export function Line(): ReactElement {
  const { id, view } = useVisitContext();
  const [search, setSearch] = useSearchParams();
  const put = usePutOption(id);
  const change = useEditOption(id);
  const drop = useDropOption(id);
  const [adding, setAdding] = useState(false);
  const [asking, setAsking] = useState<"suggest" | "what-if" | null>(null);
  const analytes = useReference().data?.analytes ?? [];
  const [swapping, setSwapping] = useState<Item | null>(null);
  const options = view.visit.options;
  const option = options.find((o) => o.id === search.get("line")) ?? options[0];
  const report = view.assessment.options.find((o) => o.id === option?.id);
  const choose = (o: string): void => {
    const next = new URLSearchParams(search);
    next.set("line", o);
    setSearch(next, { replace: true });
  };
  const currency = view.visit.settings.currency;
  const edit = (how: (o: Option) => Option): void => {
    if (option) change.mutate({ option, version: view.versions[option.id] ?? 1, edit: how });
  };
  const create = (item: Item): void => {
    const o: Option = {
      id: newId(),
      name: item.name,
      stages: [{ item: item.code, overrides: {}, position: null, reason: "" }],
      note: "",
    };
    put.mutate({ option: o }, { onSuccess: () => choose(o.id) });
  };
  const add = (item: Item): void => {
    if (!option) create(item);
    else
      edit((o) => ({
        ...o,
        name: o.stages.length ? o.name : item.name,
        stages: [...o.stages, { item: item.code, overrides: {}, position: null, reason: "" }],
      }));
  };
  const swap = (from: string, to: Item): void =>
    edit((o) => ({
      ...o,
      stages: o.stages.map((s) => (s.item === from ? { ...s, item: to.code } : s)),
    }));
  const takeOut = (code: string): void =>
    edit((o) => ({ ...o, stages: o.stages.filter((s) => s.item !== code) }));
  const fresh = (): void => {
    const o: Option = { id: newId(), name: `Line ${LETTER(options.length)}`, stages: [], note: "" };
    put.mutate(
      { option: o },
      {
        onSuccess: () => {
          choose(o.id);
          setAdding(true);
        },
      },
    );
  };
  const copy = (): void => {
    if (!option) return;
    const o: Option = { ...option, id: newId(), name: `${option.name}, other` };
    put.mutate({ option: o }, { onSuccess: () => choose(o.id) });
  };
  if (!view.assessment.raw)
    return (
      <div className="p-2">
        <h1>Line</h1>
        <p className="text-l mt-2">
          A line is designed from the raw sample. Draw a glass ahead of all treatment and test it
          first.
        </p>
        <Link className="key mt-4" to={`/visits/${id}/test`}>
          To the test
        </Link>
      </div>
    );
  return (
    <div className="absolute inset-0 grid grid-rows-[auto_minmax(0,1fr)]">
      <div
        className="fixed left-0 right-0 bottom-0 h-[64px] bg-ledge border-t border-rule"
        aria-hidden="true"
      >
        <div className="absolute inset-x-0 bottom-0 h-[7px] bg-face border-t-2 border-ink" />
      </div>
      <div className="flex items-center gap-2 py-2 flex-wrap">
        <div className="flex gap-2 flex-wrap" role="group" aria-label="Lines">
          {options.map((o, i) => {
            const r = view.assessment.options.find((x) => x.id === o.id);
            const status = r?.line
              ? [...r.line.stages.flatMap((s) => s.checks), ...r.line.checks].reduce(
                  (w, c) => ((RANK[c.status] ?? 5) < (RANK[w] ?? 5) ? c.status : w),
                  "met",
                )
              : "stop";
            return (
              <button
                key={o.id}
                className="key"
                style={{
                  minHeight: 46,
                  padding: "0 11px",
                  fontSize: 15,
                  gap: 8,
                  ...(o.id === option?.id
                    ? { background: "var(--yuzu)", color: "var(--on-yuzu)" }
                    : {}),
                }}
                aria-pressed={o.id === option?.id}
                onClick={() => choose(o.id)}
              >
                <span className="num">{LETTER(i)}</span>
                {o.name}
                <StateMark kind={STATUS_MARK[status] ?? "say"} size={17} label={status} />
              </button>
            );
          })}
          <button
            className="key bare"
            aria-label="New line"
            disabled={put.isPending || options.length >= 6}
            onClick={fresh}
          >
            <Plus size={20} aria-hidden="true" />
            New
          </button>
        </div>
        <span className="flex-1" />
        <button className="key" style={{ minHeight: 46 }} onClick={() => setAsking("suggest")}>
          Propose lines
        </button>
        {option && option.stages.length > 0 && report?.line && (
          <button className="key" style={{ minHeight: 46 }} onClick={() => setAsking("what-if")}>
            What if?
          </button>
        )}
        {option && (
          <Popover.Root>
            <Popover.Trigger
              className="key"
              style={{ minHeight: 46, padding: "0 12px" }}
              aria-label={`Line ${LETTER(options.indexOf(option))}: copy it or take it away`}
            >
              <Ellipsis size={22} aria-hidden="true" />
            </Popover.Trigger>
            <Popover.Portal>
              <Popover.Content
                className="slip z-50 p-3 grid gap-2"
                style={{ borderBottom: "1.5px solid var(--ink)" }}
                sideOffset={8}
                collisionPadding={16}
                aria-label={option.name}
              >
                <Popover.Close asChild>
                  <button className="key" onClick={copy} disabled={options.length >= 6}>
                    Copy line {LETTER(options.indexOf(option))}
                  </button>
                </Popover.Close>
                <Popover.Close asChild>
                  <button className="key bare" onClick={() => drop.mutate(option.id)}>
                    Take line {LETTER(options.indexOf(option))} away
                  </button>
                </Popover.Close>
              </Popover.Content>
            </Popover.Portal>
          </Popover.Root>
        )}
        <Link
          className="key"
          style={{ background: "var(--ink)", color: "var(--paper)" }}
          to={`/visits/${id}/compare`}
        >
          Compare
        </Link>
      </div>
      <div className="relative min-h-0 -mx-8">
        {option && report?.line && (
          <Flow
            line={report.line}
            option={option}
            onAdd={() => setAdding(true)}
            onSwap={setSwapping}
            onDrop={takeOut}
            onTake={swap}
            onChange={(c) =>
              edit((o) => ({ ...o, stages: o.stages.map((x) => (x.item === c.item ? c : x)) }))
            }
          />
        )}
        {option && report && !report.line && (
          <div className="p-8 grid gap-4 justify-items-start">
            <p className="flex gap-3 text-l">
              <StateMark kind="no" size={24} />
              {report.error}
            </p>
            {option.stages.map((s, i) => (
              <button key={i} className="key" onClick={() => takeOut(s.item)}>
                Take out {s.item}
              </button>
            ))}
          </div>
        )}
        {!option && (
          <div className="px-8 pt-6 max-w-[760px]">
            <h1>No line yet</h1>
            <p className="text-l mt-2 mb-4">
              {view.assessment.nothing_needed
                ? "The readings give no reason to buy anything: “do nothing” is a good answer, and can be proposed as it stands. "
                : ""}
              Start one with what the findings ask for; the rules put its stages in order and check
              each of them against this water and this house.
            </p>
            <div className="flex gap-3 flex-wrap">
              <button className="key go" onClick={() => setAsking("suggest")}>
                Let the tool propose lines
              </button>
              <button className="key" style={{ minHeight: 60 }} onClick={() => setAdding(true)}>
                Choose the first stage
              </button>
            </div>
          </div>
        )}
        <div className="absolute left-8 bottom-[190px] z-10">
          <Trouble error={change.error ?? put.error ?? drop.error} />
        </div>
      </div>
      {asking === "suggest" && (
        <Suggest
          full={options.length >= 6}
          names={(a) => analytes.find((x) => x.id === a)?.name ?? a}
          onClose={() => setAsking(null)}
          onTake={(o) =>
            put.mutate(
              { option: o },
              {
                onSuccess: () => {
                  choose(o.id);
                  setAsking(null);
                },
              },
            )
          }
        />
      )}
      {asking === "what-if" && option && (
        <WhatIf
          option={option}
          onClose={() => setAsking(null)}
          onTake={(o) => {
            edit(() => o);
            setAsking(null);
          }}
        />
      )}
      <ChooseItem
        open={adding}
        onOpen={setAdding}
        onChoose={add}
        currency={currency}
        title={option ? `Add to “${option.name}”` : "The first stage"}
      />
      {swapping && (
        <ChooseItem
          open
          onOpen={(o) => {
            if (!o) setSwapping(null);
          }}
          onChoose={(i) => swap(swapping.code, i)}
          currency={currency}
          only={swapping.figures.kind}
          title={`In place of ${swapping.name}`}
        />
      )}
    </div>
  );
}
