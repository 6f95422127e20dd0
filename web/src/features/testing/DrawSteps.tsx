/** A bottle is drawn step by step; what is left out says why, and the exact time is written. */
import { useState, type ReactElement } from "react";

import type { LabKind } from "../../api/types";
import { Sheet } from "../../ui/Sheet";
import { Trouble } from "../../ui/Trouble";
import { exactNow } from "./timers";

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
          <span>Left out, because</span>
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
  const within = kind.holding_h >= 72 ? `${kind.holding_h / 24} days` : `${kind.holding_h} hours`;
  return (
    <p className="text-m text-ink-2 mb-2">
      Bottle: {kind.bottle}; {kind.preservation}. To the laboratory within {within}.{" "}
      {kind.note !== "" && `Mind: ${kind.note}.`}
    </p>
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
      {d.left.length === 1 ? "One step is" : `${d.left.length} steps are`} not ticked: tick what was
      done, or write why it was left out.
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
  const [laboratory, setLaboratory] = useState("");
  const [seal, setSeal] = useState("");
  const drawn = (): void => {
    const said = d.finish();
    if (said) onDrawn({ laboratory, seal, ...said });
  };
  return (
    <Sheet title={kind.name} onClose={onClose}>
      <About kind={kind} />
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
        <Named label="Laboratory" value={laboratory} most={120} onText={setLaboratory} />
        <Named label="Seal number" value={seal} most={60} onText={setSeal} />
      </div>
      <Trouble error={error} />
      <StillLeft d={d} />
      <button className="key go" disabled={d.asks && !d.told} onClick={drawn}>
        Drawn now: write the exact time
      </button>
    </Sheet>
  );
}
