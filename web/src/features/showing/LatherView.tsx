/** Lather: soap by drops until it holds, vial by vial. */
import { Undo2 } from "lucide-react";
import { useState, type ReactElement } from "react";

import { newId } from "../../app/names";
import { num } from "../../app/show";
import { halton } from "../../glass/look";
import { NumberField } from "../../ui/fields";
import { useVisitContext } from "../visit/context";
import { Big, Cautions, FacingView, Outcome, Simulated, TwoSentences } from "./parts";
import { useDemo, type BodyOf } from "./useDemo";
import { message, say } from "../../app/language";

type Lather = BodyOf<"lather">;
type Vial = Lather["vials"][number];
type Result = Extract<
  NonNullable<NonNullable<ReturnType<typeof useDemo<"lather">>["shown"]>["result"]>,
  { kind: "lather" }
>;
type Told = Result["vials"][number];

function Foam({ v }: { v: Vial }): ReactElement | null {
  const foam = foamOf(v);
  if (foam === 0) return null;
  return (
    <>
      {Array.from({ length: v.held ? 30 : 6 }, (_, i) => (
        <circle
          key={i}
          cx={38 + 42 * halton(i + 1, 2)}
          cy={112 - foam * halton(i + 1, 3)}
          r={4.5 + 4 * halton(i + 1, 5)}
          fill="var(--gloss)"
          stroke="var(--drawn)"
          strokeWidth={1.2}
        />
      ))}
    </>
  );
}

function foamOf(v: Vial): number {
  if (v.held) return 46;
  return v.steps.length ? 8 : 0;
}

function Drawn({ v, drops, active }: { v: Vial; drops: number; active: boolean }): ReactElement {
  return (
    <svg
      width="112"
      height="220"
      viewBox="0 0 118 232"
      role="img"
      aria-label={say("{name}: {drops} drops, {x}", {
        name: say(v.name),
        drops,
        x: v.held ? "the lather holds" : "no lather yet",
      })}
    >
      <path
        d="M30,10H88V210Q88,222 59,222Q30,222 30,210Z"
        fill="var(--glass-body)"
        stroke="var(--glass-ink)"
        strokeWidth={active ? 4 : 2.2}
      />
      <path
        d={`M32,${118 - foamOf(v) / 6}H86V209Q86,220 59,220Q32,220 32,209Z`}
        fill={v.cloud ? "var(--cloudy)" : "var(--water-2)"}
      />
      <Foam v={v} />
      {v.cloud &&
        Array.from({ length: 16 }, (_, i) => (
          <circle
            key={i}
            cx={37 + 44 * halton(i + 2, 2)}
            cy={128 + 84 * halton(i + 2, 3)}
            r={1.8}
            fill="var(--drawn)"
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

function empty(name: string, role: Vial["role"], sample: string | null): Vial {
  return {
    id: newId(),
    name,
    role,
    sample,
    steps: [],
    held: false,
    cloud: null,
    shakes: null,
    suds_mm: null,
  };
}

function start(
  samples: { id: string; name: string; raw: boolean; treated: boolean; softened: boolean }[],
): Lather {
  const raw = samples.find((s) => s.raw);
  const soft = samples.find((s) => s.treated && s.softened);
  return {
    kind: "lather",
    vials: [
      empty(message("Your tap"), "tap", raw?.id ?? null),
      empty(message("Softened"), "softened", soft?.id ?? null),
    ],
    volume_ml: 25,
    spoon_ml: 5,
    spoon_killed: null,
    soap_mg_per_drop: 2.5,
    lather_drops: 2,
  };
}

const counted = (v: Vial): number => v.steps.reduce((a, b) => a + b, 0);

function stateOf(v: Vial, simulated: boolean): string {
  if (simulated) return say("drops expected");
  if (v.held) return say("drops, it holds");
  return v.steps.length ? say("drops, shake again") : "drops";
}

/** How many times the soap of the softened vial, with its ends. */
function timesOf(r: Told | undefined): string {
  if (!r?.times) return "";
  const { best, low, high } = r.times;
  const end = high === null ? say("or more") : say("to {high}", { high: num(high, 1) });
  return say("{best} times ({low} {end})", { best: num(best, 1), low: num(low, 1), end });
}

function OneVial({
  v,
  told,
  active,
  simulated,
  onPick,
}: {
  v: Vial;
  told: Told | undefined;
  active: boolean;
  simulated: boolean;
  onPick: () => void;
}): ReactElement {
  const n = simulated ? (told?.drops?.best ?? 0) : counted(v);
  const expected = simulated ? null : told?.expected;
  return (
    <button
      type="button"
      className="grid justify-items-center gap-1 min-w-[150px]"
      disabled={simulated}
      aria-pressed={active}
      onClick={onPick}
    >
      <Drawn v={simulated ? { ...v, held: true } : v} drops={n} active={!simulated && active} />
      <b className="text-[21px]">{say(v.name)}</b>
      <span className="num text-[40px] leading-none">{num(n, 0)}</span>
      <span className="text-[20px] text-ink-2">{stateOf(v, simulated)}</span>
      {/* its room is kept: what the server tells later must not move the keys under a finger */}
      <span className="text-[20px] text-ink-2 min-h-[30px]">
        {expected && say("{best} by its hardness", { best: num(expected.best, 0) })}
      </span>
      {told?.suds_a_shake != null && (
        <span className="text-[20px] text-ink-2">
          {say("{suds_a_shake} mm a shake", { suds_a_shake: num(told.suds_a_shake, 1) })}
        </span>
      )}
      <span className="text-[20px] font-semibold min-h-[28px]">{timesOf(told)}</span>
    </button>
  );
}

/** How high the suds stand, and after how many shakes. */
function Suds({ v, onChange }: { v: Vial; onChange: (part: Partial<Vial>) => void }): ReactElement {
  return (
    <div className="grid grid-cols-[120px_140px] gap-3 text-[20px]" key={v.id}>
      <NumberField
        label={say("Shakes")}
        value={v.shakes ?? null}
        min={1}
        max={200}
        onCommit={(n) => onChange({ shakes: n === null ? null : Math.round(n) })}
      />
      <NumberField
        label={say("Suds")}
        unit="mm"
        value={v.suds_mm ?? null}
        max={300}
        onCommit={(suds_mm) => onChange({ suds_mm })}
      />
    </div>
  );
}

const AT_A_TOUCH = [1, 3, 5, 10];

/** Soap into one vial, or into all that do not lather yet. */
function Soap({
  at,
  onSoap,
  onAll,
  onChange,
}: {
  at: Vial;
  onSoap: (n: number) => void;
  onAll: (n: number) => void;
  onChange: (part: Partial<Vial>) => void;
}): ReactElement {
  const [all, setAll] = useState(false);
  const some = at.steps.length > 0;
  return (
    <div className="grid gap-3">
      <div
        className="flex gap-3 flex-wrap items-center"
        role="group"
        aria-label={
          all ? say("Soap into every vial") : say("Soap into {name}", { name: say(at.name) })
        }
      >
        {AT_A_TOUCH.map((n) => (
          <Big key={n} onClick={() => (all ? onAll(n) : onSoap(n))}>
            {n === 1 ? say("1 drop") : say("{n} drops", { n })}
          </Big>
        ))}
        <Big on={all} onClick={() => setAll(!all)}>
          {say("Into every vial")}
        </Big>
      </div>
      <div className="flex gap-3 flex-wrap items-center">
        <Big disabled={!some} onClick={() => onChange({ held: true })}>
          {say("It holds for 5 s")}
        </Big>
        {some && (
          <Big on={at.cloud === true} onClick={() => onChange({ cloud: !at.cloud })}>
            {say("Cloudy with soap")}
          </Big>
        )}
        {some && <Suds v={at} onChange={onChange} />}
        {some && (
          <button
            className="key bare"
            onClick={() => onChange({ steps: at.steps.slice(0, -1), held: false })}
          >
            <Undo2 size={20} aria-hidden="true" />
            {say("Take back")}
          </button>
        )}
      </div>
    </div>
  );
}

function Spoonful({
  killed,
  onKilled,
}: {
  killed: boolean | null;
  onKilled: (k: boolean) => void;
}): ReactElement {
  return (
    <div className="flex gap-3 flex-wrap items-center">
      <span className="text-[20px]">
        {say("A spoonful of tap water into the softened vial: does the lather die?")}
      </span>
      <Big on={killed === true} onClick={() => onKilled(true)}>
        {say("It dies")}
      </Big>
      <Big on={killed === false} onClick={() => onKilled(false)}>
        {say("It stays")}
      </Big>
    </div>
  );
}

/** Vials on the table, and what can be done with the one in the hand. */
function Vials({
  test,
  result,
  simulated,
  save,
}: {
  test: Lather;
  result: Result | null;
  simulated: boolean;
  save: (l: Lather) => void;
}): ReactElement {
  const [active, setActive] = useState<string | null>(null);
  const open = test.vials.find((v) => !v.held);
  const at = test.vials.find((v) => v.id === active) ?? open ?? null;
  const put = (change: (v: Vial) => Vial): void => save({ ...test, vials: test.vials.map(change) });
  const setOne = (part: Partial<Vial>): void => {
    if (!at) return;
    setActive(part.held ? null : at.id);
    put((v) => (v.id === at.id ? { ...v, ...part } : v));
  };
  const third = (): void => {
    const [tap, ...others] = test.vials;
    const made = empty(message("Conditioned, no salt"), "conditioned", tap?.sample ?? null);
    if (tap) save({ ...test, vials: [tap, made, ...others] });
  };
  const soft = test.vials.some((v) => v.role === "softened");
  return (
    <>
      <div className="flex gap-8 items-end flex-wrap">
        {test.vials.map((v) => (
          <OneVial
            key={v.id}
            v={v}
            told={result?.vials.find((x) => x.id === v.id)}
            active={at?.id === v.id}
            simulated={simulated}
            onPick={() => setActive(v.id)}
          />
        ))}
        {test.vials.length < 3 && !simulated && (
          <button className="key" onClick={third}>
            {say("Add one without salt")}
          </button>
        )}
      </div>
      {!simulated && open && at && !at.held && (
        <Soap
          at={at}
          onSoap={(n) => setOne({ steps: [...at.steps, n] })}
          onAll={(n) => put((v) => (v.held ? v : { ...v, steps: [...v.steps, n] }))}
          onChange={setOne}
        />
      )}
      {!simulated && !open && soft && (
        <Spoonful
          killed={test.spoon_killed ?? null}
          onKilled={(spoon_killed) => save({ ...test, spoon_killed })}
        />
      )}
    </>
  );
}

export function LatherView(): ReactElement {
  const { view } = useVisitContext();
  const { body, shown, simulated, error, save, begin } = useDemo("lather");
  const result = shown?.result?.kind === "lather" ? shown.result : null;
  const fresh = (asSimulated = false): void => begin(start(view.visit.samples), asSimulated);
  return (
    <FacingView
      title={say("How much soap until it lathers?")}
      side={
        <>
          <TwoSentences kind="lather" />
          <Outcome shown={shown} error={error} />
          {body?.spoon_killed && result?.breakthrough && (
            <p className="text-[20px] text-ink-2">{result.breakthrough}</p>
          )}
        </>
      }
    >
      {simulated && <Simulated words={say("drops expected from the hardness")} />}
      {body ? (
        <>
          <Vials test={body} result={result} simulated={simulated} save={save} />
          <Cautions kind="lather" />
          <div className="flex gap-3">
            <button className="key bare" onClick={() => fresh()}>
              {say("Begin again")}
            </button>
            {!simulated && (
              <button className="key bare" onClick={() => fresh(true)}>
                {say("Show it from the readings")}
              </button>
            )}
          </div>
        </>
      ) : (
        <div className="grid gap-4 justify-items-start">
          <p className="text-[24px]">
            {say(
              "The same amount of water in each vial. Soap goes in by drops, and the vial is " +
                "shaken.",
            )}
          </p>
          <div className="flex gap-3">
            <Big on onClick={() => fresh()}>
              {say("Start with two vials")}
            </Big>
            <Big onClick={() => fresh(true)}>{say("Show it from the readings")}</Big>
          </div>
        </div>
      )}
    </FacingView>
  );
}
