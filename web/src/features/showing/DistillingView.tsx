/** Distilling: feed, distillate and residue, and whether what went in came out. */
import type { ReactElement } from "react";

import { useInstruments } from "../../api/hooks";
import { num } from "../../app/show";
import type { Range } from "../../api/types";
import { NumberField } from "../../ui/fields";
import { useVisitContext } from "../visit/context";
import { Cautions, Outcome, Simulated, TwoSentences } from "./parts";
import { useDemo, type BodyOf } from "./useDemo";

type Distilling = BodyOf<"distilling">;
type Displays = NonNullable<Distilling["feed"]>;
const meterShown = (v: number): Displays => ({
  method: "meter",
  displays: [v],
  multiplier: 1,
  temperature_c: null,
  zero: null,
  rinsed: true,
  steady: true,
});

function Flask({ name, fill, share }: { name: string; fill: string; share: number }): ReactElement {
  const y = 168 - 96 * Math.max(0.04, Math.min(1, share));
  return (
    <svg
      width="132"
      height="176"
      viewBox="0 0 132 176"
      role="img"
      aria-label={`${name}, ${num(100 * share)} % full`}
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
      aria-label={`${name}: ${num(r.low)} to ${num(high)} mg`}
    >
      <text x={0} y={16} fontSize={17} style={{ fontWeight: 600 }}>
        {name}: {num(r.best)} mg, between {num(r.low)} and {num(high)}
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

export function DistillingView(): ReactElement {
  const { view, picked, valuesOf } = useVisitContext();
  const { body, shown, simulated, error, save, begin } = useDemo("distilling");
  const meter = (useInstruments().data ?? []).find((k) => k.kind === "meter");
  const raw =
    view.visit.samples.find((s) => s.id === body?.sample) ??
    view.visit.samples.find((s) => s.raw) ??
    picked;
  const b = shown?.result?.kind === "distilling" ? shown.result.balance : null;
  const tds = raw ? valuesOf(raw).tds?.range?.best : undefined;
  if (!raw) return <h1 className="text-[44px]">No glass drawn yet</h1>;
  const set = (part: Partial<Distilling>): void => {
    if (body) save({ ...body, ...part });
  };
  const start = (asSimulated: boolean): void => {
    if (meter && tds !== undefined)
      begin(
        {
          kind: "distilling",
          sample: raw.id,
          instrument: meter,
          feed_l: 1.2,
          distillate_l: null,
          residue_l: asSimulated ? 0.45 : null,
          feed: meterShown(Math.round(tds)),
          distillate: null,
          residue: null,
          volume_share: 0.02,
        },
        asSimulated,
      );
  };
  const one = (d: Displays | null | undefined): number | null =>
    d ? (d.displays[0] ?? null) : null;
  const most = b
    ? Math.max(b.fed_mg.high ?? 0, (b.out_mg?.high ?? 0) + b.scale_mg, b.fed_mg.best) * 1.08
    : 1;
  return (
    <div className="grid wide:grid-cols-[minmax(0,1fr)_400px] gap-x-12 gap-y-8 content-start">
      <div className="grid gap-4 content-start">
        <h1 className="text-[46px] leading-none">What stays behind</h1>
        {simulated && <Simulated words="nothing was boiled; the residue is worked out" />}
        {!body && (
          <div className="grid gap-4 justify-items-start">
            <p className="text-[24px]">
              Tap water is boiled and condensed. What is dissolved stays in the flask.
            </p>
            {tds === undefined ? (
              <p className="text-[20px]">Measure the dissolved matter of “{raw.name}” first.</p>
            ) : (
              <div className="flex gap-3">
                <button className="key go" onClick={() => start(false)}>
                  Start with {raw.name}
                </button>
                <button className="key" style={{ minHeight: 60 }} onClick={() => start(true)}>
                  Show it from the readings
                </button>
              </div>
            )}
          </div>
        )}
        {body && (
          <>
            <div className="grid grid-cols-3 gap-6 max-w-[760px]">
              {(
                [
                  ["Feed", "feed", "feed_l", "var(--water-2)"],
                  ["Distillate", "distillate", "distillate_l", "var(--water)"],
                  ["Residue", "residue", "residue_l", "var(--water-3)"],
                ] as const
              ).map(([name, d, l, fill]) => (
                <div key={d} className="grid gap-2 justify-items-center">
                  <Flask
                    name={name}
                    fill={fill}
                    share={(body[l] ?? 0) / Math.max(body.feed_l, 0.1)}
                  />
                  <b className="text-[20px]">{name}</b>
                  <div className="grid gap-2 w-full">
                    <NumberField
                      label="Amount"
                      unit="L"
                      value={body[l] ?? null}
                      min={0.01}
                      max={100}
                      onCommit={(v) => {
                        if (l !== "feed_l" || v !== null) set({ [l]: v });
                      }}
                    />
                    <NumberField
                      label="Display"
                      unit="mg/L"
                      value={one(body[d])}
                      max={9999}
                      onCommit={(v) => {
                        if (d !== "feed" || v !== null)
                          set({ [d]: v === null ? null : meterShown(v) });
                      }}
                    />
                  </div>
                </div>
              ))}
            </div>
            {b && (
              <div className="max-w-[760px]">
                <MassBar name="Went in" r={b.fed_mg} scale={most} />
                {b.out_mg && (
                  <MassBar name="Came out" r={b.out_mg} extra={b.scale_mg} scale={most} />
                )}
                {b.out_mg && b.scale_mg > 0 && (
                  <p className="text-m text-ink-2">Dashed: what may have settled as scale.</p>
                )}
              </div>
            )}
            <Outcome shown={shown} error={error} />
          </>
        )}
      </div>
      <div className="grid gap-5 content-start">
        <TwoSentences kind="distilling" />
        <Cautions kind="distilling" />
      </div>
    </div>
  );
}
