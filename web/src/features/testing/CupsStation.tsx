/** Clear, brown, or brown later: three white cups. */
import { useState, type ReactElement } from "react";

import type { Instrument, Observation, Sample } from "../../api/types";
import { NumberField } from "../../ui/fields";
import { Trouble } from "../../ui/Trouble";
import { StateMark } from "../../ui/marks";
import { useVisitContext } from "../visit/context";
import { AtLedgeEnd, OnTheLedge } from "./OnTheLedge";
import { StationFrame, OnRecord, type StationProps } from "./pieces";
import { clock, startTimer, useNow, useTimers } from "./timers";
import { useKeep } from "./useKeep";
import { useKept } from "./useKept";
import { spoken, say } from "../../app/language";

type Seen = Extract<Observation, { method: "cups" }>;
const DRAWN: [Seen["drawn"], string][] = spoken([
  ["clear", "Clear"],
  ["faint", "Faint"],
  ["coloured", "Colored"],
  ["clears_top_down", "Clears downward"],
  ["milky_clears_bottom_up", "Milky, clears upward"],
]);
const STOOD: [NonNullable<Seen["stood"]>, string][] = spoken([
  ["clear", "Clear"],
  ["coloured", "Colored"],
  ["darkens", "Darker"],
  ["same", "The same"],
  ["brown_black", "Brown-black"],
  ["settles", "Solids settle"],
]);
const POWDER: [NonNullable<Seen["reducer"]>, string][] = spoken([
  ["wholly", "Clears it wholly"],
  ["partly", "Clears it partly"],
  ["no_change", "No change"],
]);
const TINT: Record<string, string> = {
  clear: "var(--drawn-water)",
  faint: "var(--cup-faint)",
  coloured: "var(--cup-tea)",
  darkens: "var(--cup-dark)",
  same: "var(--cup-tea)",
  brown_black: "var(--cup-black)",
  settles: "var(--cup-settles)",
  clears_top_down: "var(--cup-clearing)",
  milky_clears_bottom_up: "var(--cup-milky)",
  wholly: "var(--drawn-water)",
  partly: "var(--cup-partly)",
  no_change: "var(--cup-tea)",
};

function Cup({ x, fill, name }: { x: number; fill: string | null; name: string }): ReactElement {
  return (
    <g transform={`translate(${x} 0)`}>
      <path
        d="M4,30H60L53,110H11Z"
        fill="var(--gloss)"
        stroke="var(--ink)"
        strokeWidth="2"
        strokeLinejoin="round"
      />
      {fill && (
        <>
          <path d="M6.5,48H57.5L52.4,107H11.6Z" fill={fill} />
          <ellipse
            cx="32"
            cy="48"
            rx="25.5"
            ry="5"
            fill={fill}
            stroke="var(--ink)"
            strokeWidth="1.2"
          />
        </>
      )}
      <ellipse cx="32" cy="30" rx="28" ry="5.5" fill="none" stroke="var(--ink)" strokeWidth="2" />
      <text x="32" y="18" textAnchor="middle" fontSize="13" style={{ fill: "var(--ink-2)" }}>
        {name}
      </text>
    </g>
  );
}

function Choices<T extends string>({
  label,
  list,
  value,
  onPick,
}: {
  label: string;
  list: [T, string][];
  value: T | null;
  onPick: (v: T) => void;
}): ReactElement {
  return (
    <div>
      <h2 className="mb-1 text-[16px]">{label}</h2>
      <div className="flex flex-wrap gap-[6px]" role="radiogroup" aria-label={label}>
        {list.map(([v, name]) => (
          <button
            key={v}
            type="button"
            role="radio"
            aria-checked={value === v}
            className={`key small ${value === v ? "on" : ""}`}
            onClick={() => onPick(v)}
          >
            {name}
          </button>
        ))}
      </div>
    </div>
  );
}

const STANDS_S = 1200; // [s] before "stays clear" may be read
const WORKS_S = 60; // [s] the powder is given

/** A cup's own clock: starts it, then says what is left. */
function CupClock({
  label,
  seconds,
  start,
  over,
}: {
  label: string;
  seconds: number;
  start: string;
  over: string;
}): ReactElement {
  const { id } = useVisitContext();
  const timer = useTimers(id).find((t) => t.label === label);
  const now = useNow(timer !== undefined);
  const left = timer === undefined ? null : timer.endsAt - now;
  const running = left !== null && left > 0 ? say("{left} left", { left: clock(left) }) : over;
  return (
    <button type="button" className="key small" onClick={() => startTimer(label, seconds, id)}>
      {left === null ? `${start}: ${clock(seconds * 1000)}` : running}
    </button>
  );
}

/** Minutes that the second cup has stood: by its clock, as kept before, or not known. */
function useStoodFor(before: Seen | null): number | null {
  const { id } = useVisitContext();
  const timer = useTimers(id).find((t) => t.label === STANDING);
  const now = useNow(timer !== undefined);
  return timer ? Math.max(0, now - timer.startedAt) / 60_000 : (before?.stood_minutes ?? null);
}
const STANDING = "standing cup";

function ThreeCups({ seen }: { seen: Partial<Seen> }): ReactElement {
  const tint = (v: string | null | undefined): string | null => (v ? (TINT[v] ?? null) : null);
  return (
    <svg
      width="200"
      height="150"
      viewBox="0 0 212 118"
      overflow="visible"
      role="img"
      aria-label={say("Three cups: as drawn, stood, with powder")}
    >
      <Cup x={0} fill={tint(seen.drawn)} name="as drawn" />
      <Cup x={72} fill={tint(seen.stood)} name="stood" />
      <Cup x={144} fill={tint(seen.reducer)} name="powder" />
    </svg>
  );
}

/** How long the second cup stood: by the clock, else it is asked, never taken for granted. */
function Stood({
  minutes,
  onMinutes,
}: {
  minutes: number | null;
  onMinutes: (m: number | null) => void;
}): ReactElement {
  return (
    <div className="w-[230px]">
      <NumberField
        label={say("It stood for")}
        unit="min"
        value={minutes === null ? null : Math.floor(minutes)}
        max={100_000}
        hint={say("20 at least, below pH 7.5 a day")}
        onCommit={onMinutes}
      />
    </div>
  );
}

function Asked({
  seen,
  stoodFor,
  set,
}: {
  seen: Partial<Seen>;
  stoodFor: number | null;
  set: (part: Partial<Seen>) => void;
}): ReactElement {
  const powder = seen.drawn === "coloured" || seen.drawn === "faint";
  return (
    <>
      <Choices
        label={say("As drawn")}
        list={DRAWN}
        value={seen.drawn ?? null}
        onPick={(drawn) => set({ drawn })}
      />
      <div className="flex gap-4 flex-wrap items-end">
        <Choices
          label={say("After standing")}
          list={STOOD}
          value={seen.stood ?? null}
          onPick={(stood) => set({ stood })}
        />
        {seen.stood && <Stood minutes={stoodFor} onMinutes={(m) => set({ stood_minutes: m })} />}
      </div>
      {powder && (
        <div className="flex gap-4 flex-wrap items-end">
          <Choices
            label={say("With the reducing powder, one measure to half a cup")}
            list={POWDER}
            value={seen.reducer ?? null}
            onPick={(reducer) => set({ reducer })}
          />
          <CupClock
            label={say("reducing powder")}
            seconds={WORKS_S}
            start={say("Stirred in")}
            over={say("look at it now")}
          />
        </div>
      )}
    </>
  );
}

function Found({ sample }: { sample: Sample }): ReactElement | null {
  const { meaning } = useVisitContext().view.assessment;
  const finding = sample.raw ? meaning?.colour : null;
  if (!finding) return null;
  const open = finding.id === "unknown" || finding.next !== "";
  return (
    <p className="flex gap-2 text-m flex-1 min-w-[220px]">
      <StateMark kind={open ? "unk" : "done"} size={20} />
      <span>
        <b>{finding.sentence}</b> {finding.next}
      </span>
    </p>
  );
}

/** What is seen so far: what was kept, under what is being typed. */
function useCups(
  kit: Instrument,
  sample: Sample,
): {
  kept: ReturnType<typeof useKept>["reading"];
  seen: Partial<Seen>;
  stoodFor: number | null;
  typing: boolean;
  set: (part: Partial<Seen>) => void;
  keepIt: () => Promise<void>;
  ready: boolean;
  error: unknown;
} {
  const { reading: kept } = useKept(sample, (r) => r.observation.method === "cups");
  const before = kept?.observation.method === "cups" ? kept.observation : null;
  const [draft, setDraft] = useState<Partial<Seen> | null>(null);
  const { busy, error, save } = useKeep();
  const byClock = useStoodFor(before);
  const seen: Partial<Seen> = draft ?? before ?? {};
  const stoodFor = draft?.stood_minutes ?? byClock;
  const keepIt = async (): Promise<void> => {
    if (!seen.drawn) return;
    const minutes = seen.stood && stoodFor !== null ? Math.floor(stoodFor) : null;
    await save(kit, {
      method: "cups",
      drawn: seen.drawn,
      stood: seen.stood ?? null,
      stood_minutes: minutes,
      reducer: seen.reducer ?? null,
    });
    setDraft(null);
  };
  return {
    kept,
    seen,
    stoodFor,
    typing: draft !== null || before === null,
    set: (part) => setDraft({ ...seen, ...part }),
    keepIt,
    ready: !busy && seen.drawn !== undefined,
    error,
  };
}

export function CupsStation({ kit, sample, next }: StationProps): ReactElement {
  const cups = useCups(kit, sample);
  return (
    <>
      <OnTheLedge>
        <ThreeCups seen={cups.seen} />
      </OnTheLedge>
      <StationFrame
        titled="cups-title"
        side={
          <p className="text-s text-ink-2">
            {say(
              "White cups, good light, equal depths. The reducing powder irritates: keep it " +
                "dry, away from acids and bleach. It may bleach some organics and also " +
                "clears manganese.",
            )}
          </p>
        }
      >
        <div className="grid gap-2">
          <div className="flex items-center justify-between gap-3 flex-wrap">
            <h1 id="cups-title">{say("Color, in three cups")}</h1>
            <CupClock
              label={STANDING}
              seconds={STANDS_S}
              start={say("Put one aside")}
              over={say("stood long enough")}
            />
          </div>
          <Asked seen={cups.seen} stoodFor={cups.stoodFor} set={cups.set} />
          <div className="flex gap-3 items-center flex-wrap">
            {cups.typing && (
              <AtLedgeEnd>
                <button
                  className="key go"
                  style={{ minHeight: 48 }}
                  disabled={!cups.ready}
                  onClick={() => void cups.keepIt()}
                >
                  {say("Keep the cups")}
                </button>
              </AtLedgeEnd>
            )}
            {!cups.typing && next}
            {!cups.typing && cups.kept && <OnRecord reading={cups.kept} />}
            {!cups.typing && <Found sample={sample} />}
          </div>
          <Trouble error={cups.error} />
        </div>
      </StationFrame>
    </>
  );
}
