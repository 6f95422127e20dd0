/** Compare: pictures first; each option's column stands on its glasses, everything above is about it. */
import { useState, type ReactElement } from "react";
import { Link } from "react-router";

import { useChangeVisit, useComparison, type Comparison, type Use } from "../../api/hooks";
import type { Cell, ComparedOption, Lifetime, Row } from "../../api/types";
import { midSentence } from "../../app/names";
import { money, num, volume, sumOver } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { look, type Look } from "../../glass/look";
import { STATUS_MARK, StateMark } from "../../ui/marks";
import { Opens } from "../../ui/Slip";
import { Seg } from "../../ui/fields";
import { Trouble, Waiting } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { CostChart, crossingWords, type Curve } from "./Cost";
import { CostStack, EvidenceMark, MeetsMark, RangeBar, Tubs, tubSize, YearStrip } from "./pictures";

const LETTER = (i: number): string => (i === 0 ? "" : String.fromCharCode(64 + i));
const WASTE_WORDS: Record<string, string> = {
  membrane: "membrane",
  regeneration: "renewing resin",
  backwash: "backwash",
  distiller: "distiller",
};

type Steps = ComparedOption["steps"][string];

function CellView({
  row,
  cell,
  today,
  o,
}: {
  row: Row;
  cell: Cell;
  today: Cell | undefined;
  o: ComparedOption;
}): ReactElement {
  const steps: Steps | undefined = o.steps[row.analyte];
  const stays = cell.change === "stays" || cell.change === "no_claim";
  const text =
    cell.change === "not_tested"
      ? "not tested"
      : cell.change === "stays"
        ? `stays ${cell.shown}`
        : cell.shown;
  const words = cell.change === "no_claim" ? "no claim" : cell.evidence;
  return (
    <div className="min-w-0">
      <div className="flex items-center gap-[6px] min-h-6">
        <MeetsMark cell={cell} />
        {steps ? (
          <Opens
            title={`${row.name}: ${o.name}`}
            className="text-b leading-tight"
            slip={<StepsSlip steps={steps} where={cell.where} />}
          >
            {text}
          </Opens>
        ) : (
          <span className={`text-b leading-tight ${stays ? "text-ink-2" : "font-[640]"}`}>
            {text}
          </span>
        )}
      </div>
      <RangeBar row={row} cell={cell} today={today} />
      {cell.change !== "today" && words !== "" && (
        <span className="flex items-center gap-1 text-s text-ink-2">
          <EvidenceMark level={cell.level} />
          {words}
          {!cell.established && <b className="text-zest-ink">not established</b>}
        </span>
      )}
      {cell.note !== "" && cell.note !== words && cell.change !== "no_claim" && (
        <span className="block text-s text-ink-2 leading-tight">{cell.note}</span>
      )}
    </div>
  );
}

function StepsSlip({ steps, where }: { steps: Steps; where: string }): ReactElement {
  return (
    <>
      <ol className="grid gap-2 text-m">
        {steps.map((s, i) => (
          <li key={i} className="border-b border-rule pb-1">
            <span className="block text-ink-2">{i === 0 ? s.stage : `behind ${s.stage}`}</span>
            <b>{s.shown}</b>
            {s.evidence !== "" && <span className="text-s text-ink-2"> {s.evidence}</span>}
          </li>
        ))}
      </ol>
      <p className="text-s text-ink-2 mt-2">
        Ranges go through every stage, end by end. It is judged{" "}
        {where === "tap" ? "at the drinking tap" : "at the house’s taps"}.
      </p>
    </>
  );
}

function CostSlip({ cost, currency }: { cost: Lifetime; currency: string }): ReactElement {
  return (
    <>
      <CostStack kinds={cost.by_kind} shown={(n) => money(n, currency)} />
      <table className="w-full text-m">
        <thead className="sr-only">
          <tr>
            <th>What</th>
            <th>Total</th>
          </tr>
        </thead>
        <tbody>
          {cost.lines.map((l, i) => (
            <tr key={i} className="border-b border-rule align-top">
              <td className="py-1 pr-2">
                {l.label}
                <span className="block text-s text-ink-2">
                  {l.interval_months === null
                    ? `${money(l.price, currency, true)} ${l.why}`
                    : `${money(l.price, currency, true)} every ${num(l.interval_months, 1)} months, ${l.times} times; ${l.why}`}
                </span>
              </td>
              <td className="py-1 text-right font-semibold whitespace-nowrap">
                {money(l.total, currency, true)}
              </td>
            </tr>
          ))}
          <tr>
            <td className="pt-2 font-semibold">All in, {cost.years} years</td>
            <td className="pt-2 text-right num text-[19px]">{money(cost.total, currency, true)}</td>
          </tr>
        </tbody>
      </table>
      <div className="sum mt-2">
        <span>the first year</span>
        <span className="v">{money(cost.first_year, currency, true)}</span>
        <span className="u" />
        <span>the worst later year</span>
        <span className="v">{money(cost.worst_year, currency, true)}</span>
        <span className="u" />
        {cost.per_gallon_tap !== null && (
          <>
            <span>a gallon drunk</span>
            <span className="v">{money(cost.per_gallon_tap, currency, true)}</span>
            <span className="u" />
          </>
        )}
        {cost.per_gallon_house !== null && Number(cost.per_gallon_house) > 0 && (
          <>
            <span>a 1,000 gal of the house</span>
            <span className="v">{money(Number(cost.per_gallon_house) * 1000, currency, true)}</span>
            <span className="u" />
          </>
        )}
      </div>
      <p className="text-s text-ink-2 mt-2">
        Each price falls due at its interval, grown by the firm’s yearly rate, rounded to the cent;
        what is left at the end has no value.
      </p>
    </>
  );
}

function Legend(): ReactElement {
  return (
    <ul className="text-m grid gap-2">
      {[
        ["measured_here", "measured here, before and after"],
        ["certified", "certified for this contaminant"],
        ["tested", "tested, not certified"],
        ["maker_states", "the maker states it"],
        ["typical", "typical of the technology"],
      ].map(([l, w]) => (
        <li key={l} className="flex gap-2 items-center">
          <EvidenceMark level={l} />
          {w}
        </li>
      ))}
      <li className="flex gap-2 items-center">
        <svg width={40} height={16} aria-hidden="true">
          <rect
            x={1}
            y={2}
            width={14}
            height={11}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
          <rect x={22} y={2} width={14} height={11} fill="var(--ink)" />
        </svg>
        open: today; full: after
      </li>
      <li className="flex gap-2 items-center">
        <svg width={40} height={18} aria-hidden="true">
          <rect x={0} y={1} width={24} height={16} fill="var(--water)" />
          <path d="M24,0V18" stroke="var(--leaf)" strokeWidth={2} />
        </svg>
        what is wanted
      </li>
      <li>Tubs: plain, membrane; two dots, renewing resin; a bar, backwash.</li>
      <li>
        Strip of twelve months: a bag is 40 lb of salt, a block a filter or part, a triangle media.
      </li>
    </ul>
  );
}

function waterLooks(o: ComparedOption, raw: Look): [Look, Look | null] {
  const seen = (w: ComparedOption["house"]): Look | null =>
    w ? look(w.quantities, { ferric: w.particulate_iron ?? null, predicted: true }) : null;
  return [seen(o.house) ?? raw, seen(o.tap)];
}

function Header({
  o,
  i,
  currency,
  recommended,
}: {
  o: ComparedOption;
  i: number;
  currency: string;
  recommended: boolean;
}): ReactElement {
  return (
    <div className="min-w-0">
      <div className="flex items-center gap-2 min-w-0">
        {i > 0 && (
          <span
            className="num w-7 h-7 shrink-0 rounded-full border-[1.6px] border-ink grid place-items-center text-[15px]"
            style={recommended ? { background: "var(--yuzu)", color: "#10302A" } : undefined}
          >
            {LETTER(i)}
          </span>
        )}
        <b className="text-b leading-tight line-clamp-2">{o.name}</b>
      </div>
      <p className="text-s text-ink-2">
        {i === 0
          ? "as it stands, nothing bought"
          : `${money(o.bought, currency)} to buy and install`}
      </p>
      {o.stops && i > 0 && (
        <p className="flex gap-1 items-center text-s font-semibold text-zest-ink">
          <StateMark kind="no" size={16} />
          cannot work as it stands
        </p>
      )}
    </div>
  );
}

function Waste({
  o,
  units,
  currency,
}: {
  o: ComparedOption;
  units: string;
  currency: string;
}): ReactElement {
  const w = o.waste;
  if (!w || w.total_gal_year === 0)
    return <b className="text-b">{w?.unknown ? "not known" : "nothing to drain"}</b>;
  const parts = Object.entries(w.by_kind).map(([kind, gal]) => ({ kind, gal }));
  return (
    <div>
      <div className="flex justify-between gap-2 items-baseline">
        <b className="text-b">{num(w.bathtubs)} baths</b>
        <Opens
          title="To the drain, a year"
          className="text-s"
          slip={
            <div className="sum">
              {parts.map((p) => (
                <div key={p.kind} className="contents">
                  <span>{WASTE_WORDS[p.kind]}</span>
                  <span className="v">{volume(p.gal, units)}</span>
                  <span className="u" />
                </div>
              ))}
              {w.per_gallon_tap !== null && w.tap_gal_year > 0 && (
                <>
                  <span>a gallon at the drinking tap</span>
                  <span className="v">{num(w.per_gallon_tap, 1)} gal</span>
                  <span className="u" />
                </>
              )}
              {w.per_gallon_house !== null && w.house_gal_year > 0 && (
                <>
                  <span>a gallon of the house’s use</span>
                  <span className="v">{num(w.per_gallon_house, 2)} gal</span>
                  <span className="u" />
                </>
              )}
              <span>largest at once</span>
              <span className="v">{volume(w.largest_gal, units)}</span>
              <span className="u" />
              <span>in a week</span>
              <span className="v">{volume(w.week_gal, units)}</span>
              <span className="u" />
              <span>share of the house’s use</span>
              <span className="v">
                {w.share_of_use === null ? "not known" : `${num(w.share_of_use * 100, 1)} %`}
              </span>
              <span className="u" />
              <span>brine</span>
              <span className="v">{w.brine ? "yes" : "no"}</span>
              <span className="u" />
              <span>water and sewer paid for it</span>
              <span className="v">
                {!w.priced
                  ? "not priced: ask for the water bill"
                  : Number(w.cost_year) > 0
                    ? money(w.cost_year, currency, true)
                    : "nothing"}
              </span>
              <span className="u" />
            </div>
          }
        >
          {volume(w.total_gal_year, units)}
        </Opens>
      </div>
      <div className="mt-2">
        <Tubs gallons={parts} />
      </div>
    </div>
  );
}

function Chores({ o }: { o: ComparedOption }): ReactElement {
  const c = o.chores;
  if (!c || c.chores.length === 0) return <span className="text-b text-ink-2">none</span>;
  const changes = c.chores.filter((x) => !x.bags).reduce((a, x) => a + x.times_year, 0);
  return (
    <div>
      <YearStrip strip={c.strip} />
      <Opens
        title={`${o.name}: the work in a year`}
        className="text-s leading-tight"
        slip={
          <ul className="grid gap-1 text-m">
            {c.chores.map((x, i) => (
              <li key={i} className="flex justify-between gap-3 border-b border-rule pb-1">
                <span>
                  {x.label}
                  {x.own ? "" : " (the firm)"}
                </span>
                <span className="whitespace-nowrap">
                  {num(x.times_year, 1)} times, {num(x.minutes_year)} min
                </span>
              </li>
            ))}
          </ul>
        }
      >
        {c.bags >= 1 ? `${num(c.bags)} bags of salt, ` : ""}
        {num(changes)} changes, {num(c.own_minutes / 60, 1)} h of your own
      </Opens>
    </div>
  );
}

const NEED: Record<string, string> = { stop: "stopped", unknown: "not known", warn: "to watch" };

function Needs({ o }: { o: ComparedOption }): ReactElement {
  if (o.error !== "") return <span className="text-s text-zest-ink">{o.error}</span>;
  if (Number(o.bought) === 0 && o.needs.length === 0)
    return <span className="text-b text-ink-2">none</span>;
  if (o.needs.length === 0)
    return (
      <span className="flex gap-1 items-center text-b">
        <StateMark kind="done" size={16} />
        all met
      </span>
    );
  const counts = ["stop", "unknown", "warn"]
    .map((k) => [k, o.needs.filter((n) => n.status === k).length] as const)
    .filter(([, n]) => n > 0);
  return (
    <Opens
      title={`${o.name}: needs in this home`}
      className="text-m text-left justify-self-start self-start"
      slip={
        <ul className="grid gap-2 text-m">
          {o.needs.map((n, i) => (
            <li key={i} className="flex gap-2 items-start">
              <StateMark kind={STATUS_MARK[n.status]!} size={17} label={NEED[n.status]} />
              <span>
                <b>{n.stage}</b>: {n.sentence}
              </span>
            </li>
          ))}
        </ul>
      }
    >
      {counts.map(([k, n]) => `${n} ${NEED[k]!}`).join(", ")}
    </Opens>
  );
}

const USES: { value: Use; name: string }[] = [
  { value: "low", name: "low" },
  { value: "expected", name: "expected" },
  { value: "high", name: "high" },
];

function Board({
  a,
  years,
  setYears,
  use,
  setUse,
}: {
  a: Comparison;
  years: number;
  setYears: (y: number) => void;
  use: Use;
  setUse: (u: Use) => void;
}): ReactElement {
  const { id, view, units, lookOf } = useVisitContext();
  const change = useChangeVisit(id);
  const over = (a.over.find((x) => x.years === years) ?? a.over[0])?.options ?? {};
  const currency = view.visit.settings.currency;
  const options = a.options;
  const raw = view.visit.samples.find((s) => s.raw);
  const rawLook = raw ? lookOf(raw) : look({});
  const curves: Curve[] = options.flatMap((o, i) => {
    const c = over[o.id];
    return c?.cost
      ? [
          {
            id: o.id,
            letter: LETTER(i),
            name: o.name,
            monthly: c.cost.monthly,
            cheaper: c.cheaper_than,
            recommended: view.visit.recommended === o.id,
            band: c.use_band ?? null,
          },
        ]
      : [];
  });
  const tight = options.length > 4; // today and four options: narrower, so that the last is in sight
  const grid = {
    gridTemplateColumns: tight
      ? `132px repeat(${options.length}, minmax(112px, 1fr))`
      : `148px repeat(${options.length}, minmax(132px, 1fr))`,
    columnGap: 12,
  };
  const said = crossingWords(curves);
  const biggest = Math.max(0, ...options.map((o) => o.waste?.total_gal_year ?? 0));
  const recommend = (o: string): void =>
    change.mutate({ version: view.versions.visit ?? 1, recommended: o });
  return (
    <div className="h-full grid grid-rows-[minmax(0,1fr)_auto] wide:grid-rows-1 wide:grid-cols-[minmax(0,1fr)_400px] gap-x-8 min-h-0">
      <div className="min-h-0 h-full overflow-x-auto overflow-y-hidden scroll sideways">
        <div
          className="h-full flex flex-col relative"
          style={{ minWidth: tight ? 132 + options.length * 124 : 148 + options.length * 144 }}
        >
          <div className="grid py-2 border-b-[1.5px] border-ink" style={grid}>
            <span className="text-s text-ink-2 self-end">found, today, after</span>
            {options.map((o, i) => (
              <Header
                key={o.id}
                o={o}
                i={i}
                currency={currency}
                recommended={view.visit.recommended === o.id}
              />
            ))}
          </div>
          <div
            className="flex-1 min-h-0 overflow-y-auto scroll"
            tabIndex={0}
            role="group"
            aria-label="What each option does"
          >
            {a.rows.map((r) => {
              const all_not = r.cells.every((c) => c.change === "not_tested");
              return (
                <div
                  key={r.analyte}
                  className="grid py-2 border-b border-rule"
                  style={grid}
                  data-row={r.analyte}
                >
                  <div>
                    {r.complaints.length ? (
                      r.complaints.map((q) => (
                        <b key={q} className="font-d text-[17px] leading-tight block">
                          “{q}”
                        </b>
                      ))
                    ) : (
                      <b className="font-d text-[17px] leading-tight block">{r.name}</b>
                    )}
                    <span className="text-s text-ink-2 leading-tight block">
                      {r.complaints.length ? midSentence(r.name) : ""}
                      {r.complaints.length && r.target_words ? ", " : ""}
                      {r.target_words}
                    </span>
                  </div>
                  {all_not ? (
                    <p
                      className="flex gap-2 items-center"
                      style={{ gridColumn: `2 / span ${options.length}` }}
                    >
                      <StateMark kind="unk" size={18} />
                      not tested{r.weight === null ? ": nothing is proposed for it" : ""}
                    </p>
                  ) : (
                    options.map((o) => {
                      const c = r.cells.find((x) => x.option === o.id);
                      return c ? (
                        <CellView key={o.id} row={r} cell={c} today={r.cells[0]} o={o} />
                      ) : (
                        <span key={o.id} className="text-s text-ink-3">
                          –
                        </span>
                      );
                    })
                  )}
                </div>
              );
            })}
            <div className="grid py-2 border-b border-rule" style={grid}>
              <div>
                <b className="font-d text-[17px] block">To the drain</b>
                <span className="text-s text-ink-2">
                  one tub = {num(tubSize(biggest) / 40)} baths of 40 gal, a year
                </span>
              </div>
              {options.map((o) => (
                <Waste key={o.id} o={o} units={units} currency={currency} />
              ))}
            </div>
            <div className="grid py-2 border-b border-rule" style={grid}>
              <div>
                <b className="font-d text-[17px] block">Chores</b>
                <span className="text-s text-ink-2">one year, by month</span>
              </div>
              {options.map((o) => (
                <Chores key={o.id} o={o} />
              ))}
            </div>
            <div className="grid py-2 border-b border-rule" style={grid}>
              <div>
                <b className="font-d text-[17px] block">Needs here</b>
                <span className="text-s text-ink-2">of this home and water</span>
              </div>
              {options.map((o) => (
                <Needs key={o.id} o={o} />
              ))}
            </div>
            <div className="grid py-2 border-b border-rule" style={grid}>
              <div>
                <b className="font-d text-[17px] block">Parts</b>
                <span className="text-s text-ink-2">that fall due</span>
              </div>
              {options.map((o, i) => (
                <span key={o.id} className="text-s leading-snug">
                  {i === 0 ? (
                    <span className="text-b text-ink-2">none</span>
                  ) : o.single_source.length ? (
                    `one maker only: ${o.single_source.join(", ")}`
                  ) : (
                    "common, several makers"
                  )}
                </span>
              ))}
            </div>
            <div className="grid py-2" style={grid}>
              <div>
                <b className="font-d text-[17px] block">It leaves</b>
                <span className="text-s text-ink-2">as they are</span>
              </div>
              {options.map((o) => (
                <ul key={o.id} className="text-s leading-snug">
                  {o.left.length ? (
                    o.left.map((l) => (
                      <li key={l} className="mb-1">
                        {l}
                      </li>
                    ))
                  ) : (
                    <li className="text-ink-2">nothing that was found</li>
                  )}
                </ul>
              ))}
            </div>
          </div>
          <div className="grid z-10" style={grid}>
            <span />
            {options.map((o, i) => {
              const [house, tap] = waterLooks(o, rawLook);
              return (
                <div key={o.id} className="h-[68px] flex items-center gap-1 pointer-events-none">
                  <div className="flex items-end shrink-0">
                    <Glass
                      look={house}
                      h={44}
                      label={`${o.name}, house`}
                      pick={view.visit.recommended === o.id && !tap ? 1 : 0}
                    />
                    {tap && (
                      <span className="-ml-[9px]">
                        <Glass
                          look={tap}
                          h={34}
                          label={`${o.name}, drinking tap`}
                          pick={view.visit.recommended === o.id ? 1 : 0}
                        />
                      </span>
                    )}
                  </div>
                  <div className="flex flex-col justify-center text-left min-w-0 pl-1">
                    <b className="text-m leading-none">{i === 0 ? "Today" : LETTER(i)}</b>
                    {view.visit.recommended !== o.id ? (
                      <button
                        className="key bare pointer-events-auto self-start"
                        style={{ minHeight: 44, padding: 0, fontSize: 14 }}
                        disabled={change.isPending}
                        aria-label={`Recommend ${i === 0 ? "buying nothing" : LETTER(i)}`}
                        onClick={() => recommend(o.id)}
                      >
                        Recommend
                      </button>
                    ) : (
                      <span className="text-s text-ink-2">recommended</span>
                    )}
                  </div>
                </div>
              );
            })}
          </div>
        </div>
      </div>
      <div
        className="min-h-0 max-wide:max-h-[384px] overflow-auto scroll pb-4 pt-2 mb-[72px] max-wide:border-t-[1.5px] max-wide:border-ink"
        tabIndex={0}
        role="group"
        aria-label="What it costs"
      >
        <div className="flex flex-wrap justify-between gap-x-3">
          <div className="flex items-center justify-between gap-3 mb-1 wide:w-full">
            <h2>All it costs, over</h2>
            <Seg
              label="Years"
              hideLabel
              value={years}
              choices={[5, 10, 15, 20].map((y) => ({ value: y, name: String(y) }))}
              onChange={setYears}
            />
          </div>
          <div className="flex items-center justify-between gap-3 mb-1 wide:w-full">
            <span className="text-m" aria-hidden="true">
              Use of water
            </span>
            <Seg label="Use of water" hideLabel value={use} choices={USES} onChange={setUse} />
          </div>
        </div>
        <div className="grid grid-cols-[380px_minmax(0,1fr)] gap-x-6 wide:block">
          <CostChart curves={curves} years={years} currency={currency} />
          <div>
            <div
              className="grid gap-x-3 gap-y-2 mt-1"
              style={{ gridTemplateColumns: "repeat(auto-fill, minmax(88px, 1fr))" }}
            >
              {options.map((o, i) => {
                const c = over[o.id];
                return c?.cost ? (
                  <div key={o.id}>
                    <span className="text-s text-ink-2">{LETTER(i) || "Today"}</span>
                    <br />
                    <Opens
                      title={`${LETTER(i) || "Today"}: all it costs`}
                      slip={<CostSlip cost={c.cost} currency={currency} />}
                      className="font-d text-[19px]"
                    >
                      {sumOver(c.cost.total, currency, years)}
                    </Opens>
                    {c.use_band && c.use_band.low !== c.use_band.high && (
                      <span className="block text-s text-ink-3 mt-1">
                        {sumOver(c.use_band.low, currency, years)} to{" "}
                        {sumOver(c.use_band.high, currency, years)} by use
                      </span>
                    )}
                  </div>
                ) : null;
              })}
            </div>
            {said.map((s) => (
              <p key={s} className="font-semibold mt-2 leading-snug">
                {s}
              </p>
            ))}
            {a.assumptions.length > 0 && (
              <fieldset className="border-0 p-0 m-0 mt-3">
                <legend className="font-d font-[640] text-[17px]">Assumed</legend>
                {a.assumptions.map((x) => (
                  <label key={x.id} className="flex gap-3 items-center min-h-11 text-m">
                    <input
                      type="checkbox"
                      className="w-6 h-6 accent-[#1D6A4C]"
                      checked={x.on}
                      disabled={change.isPending}
                      onChange={() =>
                        change.mutate({
                          version: view.versions.visit ?? 1,
                          assumptions_off: x.on
                            ? [...view.visit.assumptions_off, x.id]
                            : view.visit.assumptions_off.filter((y) => y !== x.id),
                        })
                      }
                    />
                    {x.sentence}
                  </label>
                ))}
              </fieldset>
            )}
            <Opens title="How this reads" slip={<Legend />} className="text-m mt-3 inline-block">
              What the signs mean
            </Opens>
            <Trouble error={change.error} />
          </div>
        </div>
      </div>
    </div>
  );
}

export function Compare(): ReactElement {
  const { id, view } = useVisitContext();
  const [use, setUse] = useState<Use>("expected");
  const all = useComparison(id, use);
  const change = useChangeVisit(id);
  const [years, setYears] = useState(view.visit.horizon);
  const pick = (y: number): void => {
    setYears(y);
    change.mutate({ version: view.versions.visit ?? 1, horizon: y });
  };
  if (!view.assessment.raw)
    return (
      <div className="p-2">
        <h1>Compare</h1>
        <p className="text-l mt-2">There is nothing to compare before the raw water is tested.</p>
      </div>
    );
  return (
    <div className="absolute inset-0">
      <div
        className="fixed left-0 right-0 bottom-0 h-[64px] bg-ledge border-t border-rule"
        aria-hidden="true"
      >
        <div className="absolute inset-x-0 bottom-0 h-[7px] bg-face border-t-2 border-ink" />
      </div>
      {all.isPending && <Waiting what="Working out every option." />}
      <Trouble error={all.error} again={() => void all.refetch()} />
      {all.data && <Board a={all.data} years={years} setYears={pick} use={use} setUse={setUse} />}
      <div className="fixed right-8 bottom-[8px] z-20 flex gap-3">
        <Link
          className="key"
          style={{ background: "var(--ink)", color: "var(--paper)" }}
          to={`/visits/${id}/offer`}
        >
          Make the offer
        </Link>
      </div>
    </div>
  );
}
