/** The laboratory: bottles to draw with their steps, the chain and its clock, and results typed or brought in from a file. */
import { useState, type ReactElement } from "react";

import { useLabKinds, usePutLabSample } from "../../api/hooks";
import type { LabKind, LabSample } from "../../api/types";
import { newId } from "../../app/names";
import { useVisitContext } from "../visit/context";
import { DrawSteps, type Skipped } from "./DrawSteps";
import { Bottle } from "./Bottle";
import { TypedResult } from "./TypedResult";
import { FromFile } from "./LabFile";
import { KeptResults } from "./KeptResults";

export function LabStation(): ReactElement {
  const { id, picked, view } = useVisitContext();
  const kinds = useLabKinds().data ?? [];
  const put = usePutLabSample(id);
  const [drawing, setDrawing] = useState<LabKind | null>(null);
  if (!picked)
    return <p className="text-l">Draw a glass first: “Draw a glass”, at the bottom right.</p>;
  const drawn = (laboratory: string, seal: string, skipped: Skipped[], at: string): void => {
    if (!drawing) return;
    const bottle: LabSample = {
      id: newId(),
      kind: drawing.id,
      sample: picked.id,
      laboratory,
      seal,
      drawn_at: at,
      handed_at: null,
      received_at: null,
      reported_at: null,
      by: view.visit.consultant,
      note: "",
      skipped,
      corrected: [],
    };
    put.mutate({ bottle }, { onSuccess: () => setDrawing(null) });
  };
  const suggested = view.suggested.map((s) => ({
    ...s,
    found: kinds.find((k) => k.id === s.kind),
  }));
  const others = kinds.filter((k) => !view.suggested.some((s) => s.kind === k.id));
  return (
    <section aria-labelledby="lab-title" className="grid gap-5 pb-6 min-w-0">
      <div>
        <h1 id="lab-title">For the laboratory</h1>
        <p className="text-ink-2">
          Health is judged by a certified laboratory and the local authority, never here. Bottles
          are drawn from “{picked.name}”.
        </p>
      </div>
      {view.visit.lab_samples.length > 0 && (
        <div>
          <h2 className="mb-1">On their way</h2>
          <ul>
            {view.visit.lab_samples.map((b) => (
              <Bottle key={b.id} bottle={b} kind={kinds.find((k) => k.id === b.kind)} />
            ))}
          </ul>
        </div>
      )}
      <div>
        <h2 className="mb-2">Bottles to draw</h2>
        {suggested.length === 0 && (
          <p className="text-m text-ink-2 mb-2">
            Nothing more is suggested for this source. Any kind may be drawn.
          </p>
        )}
        <ul className="mb-2">
          {suggested.map(
            (s) =>
              s.found && (
                <li
                  key={s.kind}
                  className="flex gap-3 items-center border-b border-rule min-h-[56px]"
                >
                  <span className="flex-1">
                    <b>{s.found.name}</b>
                    <span className="block text-s text-ink-2">{s.why}</span>
                  </span>
                  <button
                    className="key"
                    style={{ minHeight: 46 }}
                    onClick={() => setDrawing(s.found ?? null)}
                  >
                    Draw
                  </button>
                </li>
              ),
          )}
        </ul>
        <div className="flex flex-wrap gap-2">
          {others.map((k) => (
            <button
              key={k.id}
              className="key"
              style={{ minHeight: 44, padding: "0 12px", fontSize: 15 }}
              onClick={() => setDrawing(k)}
            >
              {k.name}
            </button>
          ))}
        </div>
      </div>
      <div>
        <h2 className="mb-2">A report has come</h2>
        <div className="grid gap-4">
          <TypedResult />
          <KeptResults />
          <FromFile />
        </div>
      </div>
      {drawing && (
        <DrawSteps
          kind={drawing}
          onDrawn={drawn}
          onClose={() => setDrawing(null)}
          error={put.error}
        />
      )}
    </section>
  );
}
