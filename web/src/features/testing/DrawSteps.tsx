/** A bottle is drawn step by step; what is left out says why, and the exact time is written. */
import { useState, type ReactElement } from "react";
import { lowerFirst } from "../../app/names";

import type { LabKind } from "../../api/types";
import { Sheet } from "../../ui/Sheet";
import { Trouble } from "../../ui/Trouble";
import { StateMark } from "../../ui/marks";
import { useVisitContext } from "../visit/context";
import { clock, exactNow, startTimer, useNow, useTimers } from "./timers";
import { usePosting } from "./usePosting";
import { say } from "../../app/language";

export interface Skipped {
  step: string;
  because: string;
}

/** What is said of a bottle when it is drawn. */
export interface Drawn {
  laboratory: string;
  seal: string;
  drawn_at: string;
  skipped: Skipped[];
}

const WHY_AT_LEAST = 3;

function Step({
  step,
  done,
  onDone,
  why,
  onWhy,
  asks,
}: {
  step: string;
  done: boolean;
  onDone: () => void;
  why: string;
  onWhy: (text: string) => void;
  asks: boolean;
}): ReactElement {
  return (
    <li className="border-b border-rule">
      <label className="flex gap-3 items-center min-h-11">
        <input type="checkbox" className="w-6 h-6 shrink-0" checked={done} onChange={onDone} />
        {step}
      </label>
      {asks && !done && (
        <label className="field pl-9 pb-2">
          <span>{say("Left out, because")}</span>
          <input
            className="input"
            maxLength={200}
            value={why}
            onChange={(e) => onWhy(e.target.value)}
          />
        </label>
      )}
    </li>
  );
}

interface Drawing {
  done: ReadonlySet<number>;
  why: Record<number, string>;
  /** Steps that were left out so far. */
  left: { step: string; i: number }[];
  /** The water was drawn, and what was left out is asked about. */
  asks: boolean;
  told: boolean;
  tick: (i: number) => void;
  because: (i: number, text: string) => void;
  /** The time and what was left out, once all of it is told. */
  finish: () => Pick<Drawn, "drawn_at" | "skipped"> | null;
}

function useDrawing(steps: readonly string[]): Drawing {
  const [done, setDone] = useState<ReadonlySet<number>>(new Set());
  const [why, setWhy] = useState<Record<number, string>>({});
  const [asked, setAsked] = useState("");
  const left = steps.map((step, i) => ({ step, i })).filter(({ i }) => !done.has(i));
  const told = left.every(({ i }) => (why[i] ?? "").trim().length >= WHY_AT_LEAST);
  return {
    done,
    why,
    left,
    told,
    asks: asked !== "",
    tick: (i) => {
      const n = new Set(done);
      if (!n.delete(i)) n.add(i);
      setDone(n);
    },
    because: (i, text) => setWhy({ ...why, [i]: text }),
    finish: () => {
      const at = asked || exactNow(); // the water was drawn when it was first said so
      setAsked(at);
      if (left.length > 0 && !told) return null;
      const skipped = left.map(({ step, i }) => ({ step, because: (why[i] ?? "").trim() }));
      return { drawn_at: at, skipped };
    },
  };
}

function About({ kind }: { kind: LabKind }): ReactElement {
  const within =
    kind.holding_h >= 72
      ? say("{x} days", { x: kind.holding_h / 24 })
      : say("{holding_h} hours", { holding_h: kind.holding_h });
  return (
    <p className="text-m text-ink-2 mb-2">
      {say("Bottle:")} {kind.bottle}; {kind.preservation}
      {say(". To the laboratory within")} {within}.{" "}
      {kind.note !== "" && say("Mind: {note}.", { note: kind.note })}
    </p>
  );
}

/** Whether it reaches the laboratory in time by post, and where it goes. */
function ByPost({ kind }: { kind: LabKind }): ReactElement | null {
  const { settings } = useVisitContext().view.visit;
  const told = usePosting().data?.find((p) => p.kind === kind.id);
  if (!told) return null;
  return (
    <p className="flex gap-2 items-start text-m mb-2">
      <StateMark kind={told.in_time ? "done" : "no"} size={18} />
      <span>
        {told.sentence}
        {settings.laboratory_address !== "" && (
          <span className="block text-ink-2 whitespace-pre-line">
            {settings.laboratory_address}
          </span>
        )}
      </span>
    </p>
  );
}

/** The tap runs, by the clock, before the bottle is filled. */
function Flushing({ kind }: { kind: LabKind }): ReactElement | null {
  const { id } = useVisitContext();
  const label = say("flushing for {name}", { name: lowerFirst(kind.name) });
  const timer = useTimers(id).find((t) => t.label === label);
  const now = useNow(timer !== undefined);
  if (kind.flush_min <= 0) return null;
  const seconds = 60 * kind.flush_min;
  const left = timer === undefined ? null : timer.endsAt - now;
  const running =
    left !== null && left > 0
      ? say("{left} to run", { left: clock(left) })
      : say("It has run long enough");
  return (
    <button type="button" className="key small mb-2" onClick={() => startTimer(label, seconds, id)}>
      {left === null ? say("The tap runs: start {x}", { x: clock(seconds * 1000) }) : running}
    </button>
  );
}

function Named({
  label,
  value,
  most,
  onText,
}: {
  label: string;
  value: string;
  most: number;
  onText: (t: string) => void;
}): ReactElement {
  return (
    <label className="field">
      <span>{label}</span>
      <input
        className="input"
        value={value}
        maxLength={most}
        onChange={(e) => onText(e.target.value)}
      />
    </label>
  );
}

function StillLeft({ d }: { d: Drawing }): ReactElement | null {
  if (!d.asks || d.told) return null;
  return (
    <p role="alert" className="text-m font-semibold mb-2">
      {say("{x} not ticked: tick what was done, or write why it was left out.", {
        x: d.left.length === 1 ? "One step is" : `${d.left.length} steps are`,
      })}
    </p>
  );
}

export function DrawSteps({
  kind,
  onDrawn,
  onClose,
  error,
}: {
  kind: LabKind;
  onDrawn: (said: Drawn) => void;
  onClose: () => void;
  error: unknown;
}): ReactElement {
  const d = useDrawing(kind.steps);
  const [laboratory, setLaboratory] = useState(useVisitContext().view.visit.settings.laboratory);
  const [seal, setSeal] = useState("");
  const drawn = (): void => {
    const said = d.finish();
    if (said) onDrawn({ laboratory, seal, ...said });
  };
  return (
    <Sheet title={kind.name} onClose={onClose}>
      <About kind={kind} />
      <ByPost kind={kind} />
      <Flushing kind={kind} />
      <ol className="mb-3">
        {kind.steps.map((s, i) => (
          <Step
            key={s}
            step={s}
            done={d.done.has(i)}
            onDone={() => d.tick(i)}
            why={d.why[i] ?? ""}
            onWhy={(text) => d.because(i, text)}
            asks={d.asks}
          />
        ))}
      </ol>
      <div className="grid grid-cols-2 gap-4 mb-3">
        <Named label={say("Laboratory")} value={laboratory} most={120} onText={setLaboratory} />
        <Named label={say("Seal number")} value={seal} most={60} onText={setSeal} />
      </div>
      <Trouble error={error} />
      <StillLeft d={d} />
      <button className="key go" disabled={d.asks && !d.told} onClick={drawn}>
        {say("Drawn now: write the exact time")}
      </button>
    </Sheet>
  );
}
