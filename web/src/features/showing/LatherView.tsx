/** Lather: soap by drops until it holds, vial by vial. */
import { Undo2 } from "lucide-react";
import { useState, type ReactElement } from "react";

import { num } from "../../app/show";
import { newId } from "../../app/names";
import { halton } from "../../glass/look";
import { useVisitContext } from "../visit/context";
import { Big, Cautions, Outcome, Simulated, TwoSentences } from "./parts";
import { useDemo, type BodyOf } from "./useDemo";

type Lather = BodyOf<"lather">;
type Vial = Lather["vials"][number];

function Drawn({
  v,
  drops,
  active,
}: {
  v: Vial;
  drops: number | null;
  active: boolean;
}): ReactElement {
  const foam = v.held ? 46 : v.steps.length ? 8 : 0;
  return (
    <svg
      width="102"
      height="200"
      viewBox="0 0 118 232"
      role="img"
      aria-label={`${v.name}: ${drops ?? 0} drops, ${v.held ? "the lather holds" : "no lather yet"}`}
    >
      <path
        d="M30,10H88V210Q88,222 59,222Q30,222 30,210Z"
        fill="var(--glass-body)"
        stroke="var(--glass-ink)"
        strokeWidth={active ? 4 : 2.2}
      />
      <path
        d={`M32,${118 - foam / 6}H86V209Q86,220 59,220Q32,220 32,209Z`}
        fill={v.cloud ? "#DDE3DC" : "var(--water-2)"}
      />
      {foam > 0 &&
        Array.from({ length: v.held ? 30 : 6 }, (_, i) => (
          <circle
            key={i}
            cx={38 + 42 * halton(i + 1, 2)}
            cy={112 - foam * halton(i + 1, 3)}
            r={4.5 + 4 * halton(i + 1, 5)}
            fill="#FFFFFC"
            stroke="#10302A"
            strokeWidth={1.2}
          />
        ))}
      {v.cloud &&
        Array.from({ length: 16 }, (_, i) => (
          <circle
            key={i}
            cx={37 + 44 * halton(i + 2, 2)}
            cy={128 + 84 * halton(i + 2, 3)}
            r={1.8}
            fill="#10302A"
            opacity={0.45}
          />
        ))}
      <ellipse
        cx={59}
        cy={10}
        rx={29}
        ry={5}
        fill="none"
        stroke="var(--glass-ink)"
        strokeWidth={2.2}
      />
    </svg>
  );
}

function start(
  samples: { id: string; name: string; raw: boolean; treated: boolean; after: string }[],
): Lather {
  const raw = samples.find((s) => s.raw);
  const soft = samples.find((s) => s.treated && s.after.includes("soft"));
  const vial = (name: string, role: Vial["role"], sample: string | null): Vial => ({
    id: newId(),
    name,
    role,
    sample,
    steps: [],
    held: false,
    cloud: null,
  });
  return {
    kind: "lather",
    vials: [
      vial("Your tap", "tap", raw?.id ?? null),
      vial("Softened", "softened", soft?.id ?? null),
    ],
    volume_ml: 25,
    spoon_ml: 5,
    spoon_killed: null,
    soap_mg_per_drop: 2.5,
    lather_drops: 2,
  };
}

export function LatherView(): ReactElement {
  const { view } = useVisitContext();
  const { body, shown, simulated, error, save, begin } = useDemo("lather");
  const [active, setActive] = useState<string | null>(null);
  const test = body ?? null;
  const result = shown?.result?.kind === "lather" ? shown.result : null;
  const at = test?.vials.find((v) => v.id === active) ?? test?.vials.find((v) => !v.held) ?? null;
  const set = (next: Partial<Vial>): void => {
    if (test && at) {
      setActive(next.held ? null : at.id);
      save({ ...test, vials: test.vials.map((v) => (v.id === at.id ? { ...v, ...next } : v)) });
    }
  };
  const soft = test?.vials.find((v) => v.role === "softened");
  const addThird = (): void => {
    if (test)
      save({
        ...test,
        vials: [
          test.vials[0]!,
          {
            id: newId(),
            name: "Conditioned, no salt",
            role: "conditioned",
            sample: test.vials[0]?.sample ?? null,
            steps: [],
            held: false,
            cloud: null,
          },
          ...test.vials.slice(1),
        ],
      });
  };
  const sum = (v: Vial): number => v.steps.reduce((a, b) => a + b, 0);
  const all = test !== null && test.vials.every((v) => v.held);
  return (
    <div className="grid wide:grid-cols-[minmax(0,1fr)_400px] gap-x-12 gap-y-8 content-start">
      <div className="grid gap-5 content-start">
        <h1 className="text-[46px] leading-none">How much soap until it lathers?</h1>
        {simulated && <Simulated words="drops expected from the hardness" />}
        {!test && (
          <div className="grid gap-4 justify-items-start">
            <p className="text-[24px]">
              The same amount of water in each vial. Soap goes in by drops, and the vial is shaken.
            </p>
            <div className="flex gap-3">
              <Big on onClick={() => begin(start(view.visit.samples))}>
                Start with two vials
              </Big>
              <Big onClick={() => begin(start(view.visit.samples), true)}>
                Show it from the readings
              </Big>
            </div>
          </div>
        )}
        {test && (
          <>
            <div className="flex gap-8 items-end flex-wrap">
              {test.vials.map((v) => {
                const r = result?.vials.find((x) => x.id === v.id);
                const n = simulated ? r?.drops?.best : sum(v);
                return (
                  <button
                    key={v.id}
                    type="button"
                    className="grid justify-items-center gap-1 min-w-[150px]"
                    disabled={simulated}
                    aria-pressed={at?.id === v.id}
                    onClick={() => setActive(v.id)}
                  >
                    <Drawn
                      v={simulated ? { ...v, held: true } : v}
                      drops={n ?? 0}
                      active={!simulated && at?.id === v.id}
                    />
                    <b className="text-[20px]">{v.name}</b>
                    <span className="num text-[38px] leading-none">{num(n ?? 0, 0)}</span>
                    <span className="text-[17px] text-ink-2">
                      {simulated
                        ? "drops expected"
                        : v.held
                          ? "drops, it holds"
                          : v.steps.length
                            ? "drops, shake again"
                            : "drops"}
                    </span>
                    <span className="text-[19px] font-semibold min-h-[27px]">
                      {r?.times
                        ? `${num(r.times.best, 1)} times (${num(r.times.low, 1)} ${r.times.high === null ? "or more" : `to ${num(r.times.high, 1)}`})`
                        : ""}
                    </span>
                  </button>
                );
              })}
              {test.vials.length < 3 && !simulated && (
                <button className="key" onClick={addThird}>
                  Add one without salt
                </button>
              )}
            </div>
            {!simulated && at && !all && (
              <div
                className="flex gap-3 flex-wrap items-center"
                role="group"
                aria-label={`Soap into ${at.name}`}
              >
                {[3, 1].map((n) => (
                  <Big key={n} disabled={at.held} onClick={() => set({ steps: [...at.steps, n] })}>
                    {n === 1 ? "1 drop" : `${n} drops`}
                  </Big>
                ))}
                <Big disabled={!at.steps.length || at.held} onClick={() => set({ held: true })}>
                  It holds for 5 s
                </Big>
                {at.steps.length > 0 && (
                  <button
                    className="key bare"
                    onClick={() => set({ steps: at.steps.slice(0, -1), held: false })}
                  >
                    <Undo2 size={20} aria-hidden="true" />
                    Take back
                  </button>
                )}
                {at.steps.length > 0 && (
                  <Big on={at.cloud === true} onClick={() => set({ cloud: !at.cloud })}>
                    Cloudy with soap
                  </Big>
                )}
              </div>
            )}
            {!simulated && all && soft && (
              <div className="flex gap-3 flex-wrap items-center">
                <span className="text-[20px]">
                  A spoonful of tap water into the softened vial: does the lather die?
                </span>
                <Big
                  on={test.spoon_killed === true}
                  onClick={() => save({ ...test, spoon_killed: true })}
                >
                  It dies
                </Big>
                <Big
                  on={test.spoon_killed === false}
                  onClick={() => save({ ...test, spoon_killed: false })}
                >
                  It stays
                </Big>
              </div>
            )}
            <Cautions kind="lather" />
            <div className="flex gap-3">
              <button className="key bare" onClick={() => begin(start(view.visit.samples))}>
                Begin again
              </button>
              {!simulated && (
                <button className="key bare" onClick={() => begin(start(view.visit.samples), true)}>
                  Show it from the readings
                </button>
              )}
            </div>
          </>
        )}
      </div>
      <div className="grid gap-6 content-start">
        <TwoSentences kind="lather" />
        <Outcome shown={shown} error={error} />
        {test?.spoon_killed && result?.breakthrough && (
          <p className="text-[18px] text-ink-2">{result.breakthrough}</p>
        )}
      </div>
    </div>
  );
}
