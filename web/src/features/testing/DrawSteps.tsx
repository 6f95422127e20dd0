/** A bottle is drawn step by step; what is left out says why, and the exact time is written. */
import { Dialog } from "radix-ui";
import { X } from "lucide-react";
import { useState, type ReactElement } from "react";

import type { LabKind } from "../../api/types";
import { Trouble } from "../../ui/Trouble";
import { exactNow } from "./timers";

export interface Skipped {
  step: string;
  because: string;
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

export function DrawSteps({
  kind,
  onDrawn,
  onClose,
  error,
}: {
  kind: LabKind;
  onDrawn: (laboratory: string, seal: string, skipped: Skipped[], at: string) => void;
  onClose: () => void;
  error: unknown;
}): ReactElement {
  const [done, setDone] = useState<Set<number>>(new Set());
  const [why, setWhy] = useState<Record<number, string>>({});
  const [asked, setAsked] = useState("");
  const asks = asked !== "";
  const [laboratory, setLaboratory] = useState("");
  const [seal, setSeal] = useState("");
  const left = kind.steps.map((step, i) => ({ step, i })).filter(({ i }) => !done.has(i));
  const told = left.every(({ i }) => (why[i] ?? "").trim().length >= WHY_AT_LEAST);
  const drawn = (): void => {
    const at = asked || exactNow(); // the water was drawn when it was first said so
    if (left.length > 0 && !told) setAsked(at);
    else
      onDrawn(
        laboratory,
        seal,
        left.map(({ step, i }) => ({ step, because: (why[i] ?? "").trim() })),
        at,
      );
  };
  const tick = (i: number): void => {
    const n = new Set(done);
    if (n.has(i)) n.delete(i);
    else n.add(i);
    setDone(n);
  };
  return (
    <Dialog.Root
      open
      onOpenChange={(o) => {
        if (!o) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30 z-40" />
        <Dialog.Content
          className="fixed z-50 left-1/2 top-1/2 -translate-x-1/2 -translate-y-1/2 w-[640px] max-w-[94vw] max-h-[94vh] overflow-auto bg-paper border-[1.5px] border-ink p-6"
          aria-describedby={undefined}
        >
          <div className="flex justify-between items-center">
            <Dialog.Title asChild>
              <h2>{kind.name}</h2>
            </Dialog.Title>
            <Dialog.Close aria-label="Close" className="grid place-items-center w-11 h-11">
              <X size={22} />
            </Dialog.Close>
          </div>
          <p className="text-m text-ink-2 mb-2">
            Bottle: {kind.bottle}; {kind.preservation}. To the laboratory within{" "}
            {kind.holding_h >= 72 ? `${kind.holding_h / 24} days` : `${kind.holding_h} hours`}.{" "}
            {kind.note !== "" && `Mind: ${kind.note}.`}
          </p>
          <ol className="mb-3">
            {kind.steps.map((s, i) => (
              <Step
                key={s}
                step={s}
                done={done.has(i)}
                onDone={() => tick(i)}
                why={why[i] ?? ""}
                onWhy={(text) => setWhy({ ...why, [i]: text })}
                asks={asks}
              />
            ))}
          </ol>
          <div className="grid grid-cols-2 gap-4 mb-3">
            <label className="field">
              <span>Laboratory</span>
              <input
                className="input"
                value={laboratory}
                maxLength={120}
                onChange={(e) => setLaboratory(e.target.value)}
              />
            </label>
            <label className="field">
              <span>Seal number</span>
              <input
                className="input"
                value={seal}
                maxLength={60}
                onChange={(e) => setSeal(e.target.value)}
              />
            </label>
          </div>
          <Trouble error={error} />
          {asks && left.length > 0 && !told && (
            <p role="alert" className="text-m font-semibold mb-2">
              {left.length === 1 ? "One step is" : `${left.length} steps are`} not ticked: tick what
              was done, or write why it was left out.
            </p>
          )}
          <button className="key go" disabled={asks && !told} onClick={drawn}>
            Drawn now: write the exact time
          </button>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
