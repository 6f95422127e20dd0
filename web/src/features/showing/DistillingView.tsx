/** Distilling: feed, distillate and residue, and whether what went in came out. */
import type { ReactElement } from "react";

import { useInstruments } from "../../api/hooks";
import { num } from "../../app/show";
import type { Range, Sample } from "../../api/types";
import { NumberField } from "../../ui/fields";
import { useVisitContext } from "../visit/context";
import { BoilTimer } from "./BoilTimer";
import { Cautions, FacingView, NoGlass, Outcome, Simulated, TwoSentences } from "./parts";
import { useDemo, type BodyOf } from "./useDemo";
import { message, spoken, say } from "../../app/language";

type Distilling = BodyOf<"distilling">;
type Displays = NonNullable<Distilling["feed"]>;
const meterShown = (v: number, temperature: number | null = null): Displays => ({
  method: "meter",
  displays: [v],
  multiplier: 1,
  temperature_c: temperature,
  zero: null,
  rinsed: true,
  steady: true,
});

function Flask({ name, fill, share }: { name: string; fill: string; share: number }): ReactElement {
  const y = 168 - 96 * Math.max(0.04, Math.min(1, share));
  return (
    <svg
      width="150"
      height="200"
      viewBox="0 0 132 176"
      role="img"
      aria-label={say("{name}, {x} % full", { name, x: num(100 * share) })}
    >
      <defs>
        <clipPath id={`flask-${name}`}>
          <path d="M52,10H80V60L118,150Q122,170 104,170H28Q10,170 14,150L52,60Z" />
        </clipPath>
      </defs>
      <rect x={0} y={y} width={132} height={180} fill={fill} clipPath={`url(#flask-${name})`} />
      <path
        d="M52,10H80V60L118,150Q122,170 104,170H28Q10,170 14,150L52,60Z"
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.6}
        strokeLinejoin="round"
      />
      <path d="M48,10H84" stroke="var(--ink)" strokeWidth={4} strokeLinecap="round" />
    </svg>
  );
}

function MassBar({
  name,
  r,
  extra,
  scale,
}: {
  name: string;
  r: Range;
  extra?: number;
  scale: number;
}): ReactElement {
  const x = (v: number): number => (v / scale) * 620;
  const high = r.high ?? r.best;
  return (
    <svg
      width="100%"
      height="62"
      viewBox="0 0 640 62"
      role="img"
      aria-label={say("{name}: {low} to {high} mg", { name, low: num(r.low), high: num(high) })}
    >
      <text x={0} y={16} fontSize={17} style={{ fontWeight: 600 }}>
        {say("{name}: {best} mg, between {low} and {high}", {
          name,
          best: num(r.best),
          low: num(r.low),
          high: num(high),
        })}
      </text>
      <rect
        x={0}
        y={28}
        width={x(r.best)}
        height={20}
        fill="var(--water-2)"
        stroke="var(--ink)"
        strokeWidth={1.6}
      />
      {extra !== undefined && extra > 0 && (
        <rect
          x={x(high)}
          y={28}
          width={x(extra)}
          height={20}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.4}
          strokeDasharray="4 3"
        />
      )}
      <path
        d={`M${x(r.low)},24V52M${x(high)},24V52M${x(r.low)},38H${x(high)}`}
        stroke="var(--ink)"
        strokeWidth={2.4}
      />
    </svg>
  );
}

const PARTS = spoken([
  ["Feed", "feed", "feed_l", "var(--water-2)"],
  ["Distillate", "distillate", "distillate_l", "var(--water)"],
  ["Residue", "residue", "residue_l", "var(--water-3)"],
] as const);

/** One of the three waters: how much of it, what the meter showed, and how warm it was. */
function Part({
  part,
  body,
  set,
}: {
  part: (typeof PARTS)[number];
  body: Distilling;
  set: (p: Partial<Distilling>) => void;
}): ReactElement {
  const [name, shown, litres, fill] = part;
  const seen = body[shown] ?? null;
  const needed = shown === "feed"; // what went in is never left empty
  const display = (v: number | null, warm: number | null): void => {
    if (v !== null) set({ [shown]: meterShown(v, warm) });
    else if (!needed) set({ [shown]: null });
  };
  const value = seen?.displays[0] ?? null;
  return (
    <div className="grid gap-2 justify-items-center content-start">
      <Flask name={name} fill={fill} share={(body[litres] ?? 0) / Math.max(body.feed_l, 0.1)} />
      <b className="text-[21px]">{name}</b>
      <div className="grid gap-2 w-full">
        <NumberField
          label={say("Amount")}
          unit="L"
          value={body[litres] ?? null}
          min={0.01}
          max={100}
          onCommit={(v) => {
            if (v !== null || !needed) set({ [litres]: v });
          }}
        />
        <NumberField
          label={say("Display")}
          unit="mg/L"
          value={value}
          max={9999}
          onCommit={(v) => display(v, seen?.temperature_c ?? null)}
        />
        {seen && (
          <NumberField
            label={say("It was")}
            unit="°C"
            value={seen.temperature_c ?? null}
            max={100}
            onCommit={(warm) => display(value, warm)}
          />
        )}
      </div>
    </div>
  );
}

type Balance = Extract<
  NonNullable<NonNullable<ReturnType<typeof useDemo<"distilling">>["shown"]>["result"]>,
  { kind: "distilling" }
>["balance"];

function Masses({ b }: { b: Balance }): ReactElement {
  const out = b.out_mg?.high ?? 0;
  const most = Math.max(b.fed_mg.high ?? 0, out + b.scale_mg, b.fed_mg.best) * 1.08;
  return (
    <div className="max-w-[760px]">
      <MassBar name="Went in" r={b.fed_mg} scale={most} />
      {b.out_mg && <MassBar name="Came out" r={b.out_mg} extra={b.scale_mg} scale={most} />}
      {b.out_mg && b.scale_mg > 0 && (
        <p className="text-[20px] text-ink-2">{say("Dashed: what may have settled as scale.")}</p>
      )}
    </div>
  );
}

/** How it is set up: heat under the flask, steam through a cooled tube, drops into the jug. */
function Still(): ReactElement {
  return (
    <svg
      viewBox="0 0 760 400"
      width="100%"
      role="img"
      aria-label={say("flask, cooled tube and jug")}
    >
      <rect x={96} y={352} width={168} height={26} rx={5} fill="var(--ink)" />
      <path d="M150,368h60" stroke="var(--yuzu)" strokeWidth={5} strokeLinecap="round" />
      <path d="M112,262H248L276,330Q282,350 262,350H98Q78,350 84,330Z" fill="var(--water-3)" />
      <path
        d="M158,96V180L84,330Q78,350 98,350H262Q282,350 276,330L202,180V96"
        fill="none"
        stroke="var(--ink)"
        strokeWidth={4}
        strokeLinejoin="round"
      />
      {[150, 182, 214].map((at, i) => (
        <circle
          key={at}
          cx={at}
          cy={306 - 14 * i}
          r={7}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={2}
        />
      ))}
      <path
        d="M180,92Q180,52 226,52H300L560,212V250"
        fill="none"
        stroke="var(--ink)"
        strokeWidth={22}
        strokeLinejoin="round"
      />
      <path
        d="M180,92Q180,52 226,52H300L560,212V250"
        fill="none"
        stroke="var(--paper)"
        strokeWidth={14}
        strokeLinejoin="round"
      />
      <path d="M352,62L524,168L500,207L328,101Z" fill="var(--water)" opacity={0.7} />
      <path
        d="M352,62L524,168L500,207L328,101Z"
        fill="none"
        stroke="var(--ink)"
        strokeWidth={3}
        strokeLinejoin="round"
      />
      <path d="M560,262q-7,14 0,18q7,-4 0,-18" fill="var(--water-2)" stroke="var(--ink)" />
      <path d="M500,330H620V358Q620,372 606,372H514Q500,372 500,358Z" fill="var(--water)" />
      <path
        d="M500,286V358Q500,372 514,372H606Q620,372 620,358V286M620,300q34,0 34,30t-34,30"
        fill="none"
        stroke="var(--ink)"
        strokeWidth={4}
        strokeLinejoin="round"
      />
      {STILL_WORDS.map(([words, at, y]) => (
        <text
          key={words}
          x={at}
          y={y}
          fontSize={24}
          fontWeight={600}
          textAnchor="middle"
          style={{ fill: "var(--ink)" }}
        >
          {say(words)}
        </text>
      ))}
    </svg>
  );
}
const STILL_WORDS: [words: string, x: number, y: number][] = [
  [message("what is dissolved stays"), 180, 398],
  [message("steam is cooled"), 556, 110],
  [message("what comes over"), 560, 398],
];

function Start({
  raw,
  tds,
  onStart,
}: {
  raw: Sample;
  tds: number | undefined;
  onStart: (tds: number, simulated: boolean) => void;
}): ReactElement {
  return (
    <div className="grid gap-4 justify-items-start">
      <p className="text-[24px]">
        {say("Tap water is boiled and condensed. What is dissolved stays in the flask.")}
      </p>
      {tds === undefined ? (
        <p className="text-[20px]">
          {say("Measure the dissolved solids of “{name}” first.", { name: raw.name })}
        </p>
      ) : (
        <div className="flex gap-3">
          <button className="key go" onClick={() => onStart(tds, false)}>
            {say("Start with {name}", { name: raw.name })}
          </button>
          <button className="key" style={{ minHeight: 60 }} onClick={() => onStart(tds, true)}>
            {say("Show it from the readings")}
          </button>
        </div>
      )}
      <Still />
    </div>
  );
}

/** The glass that is boiled: the one it was begun with, else the raw one. */
function useFeed(of: string | undefined): Sample | null {
  const { view, picked } = useVisitContext();
  const { samples } = view.visit;
  return samples.find((s) => s.id === of) ?? samples.find((s) => s.raw) ?? picked;
}

export function DistillingView(): ReactElement {
  const { valuesOf } = useVisitContext();
  const { body, shown, simulated, error, save, begin } = useDemo("distilling");
  const meter = (useInstruments().data ?? []).find((k) => k.kind === "meter");
  const raw = useFeed(body?.sample);
  if (!raw) return <NoGlass />;
  const result = shown?.result?.kind === "distilling" ? shown.result : null;
  const start = (tds: number, asSimulated: boolean): void => {
    if (!meter) return;
    const amounts = { feed_l: 1.2, distillate_l: null, residue_l: asSimulated ? 0.45 : null };
    const shows = { feed: meterShown(Math.round(tds)), distillate: null, residue: null };
    const about = { sample: raw.id, instrument: meter, volume_share: 0.02 };
    begin({ kind: "distilling", ...about, ...amounts, ...shows }, asSimulated);
  };
  return (
    <FacingView
      title={say("What stays behind")}
      side={
        <>
          <TwoSentences kind="distilling" />
          <Cautions kind="distilling" />
        </>
      }
    >
      {simulated && <Simulated words={say("nothing was boiled; the residue is worked out")} />}
      {!body && <Start raw={raw} tds={valuesOf(raw).tds?.range?.best} onStart={start} />}
      {body && (
        <>
          {!simulated && <BoilTimer />}
          <div className="grid grid-cols-3 gap-6 max-w-[820px]">
            {PARTS.map((part) => (
              <Part key={part[1]} part={part} body={body} set={(p) => save({ ...body, ...p })} />
            ))}
          </div>
          {result && <Masses b={result.balance} />}
          <Outcome shown={shown} error={error} />
        </>
      )}
    </FacingView>
  );
}
