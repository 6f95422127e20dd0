/** The laboratory: bottles to draw, their chain and clock, and results typed or from a file. */
import { useState, type ReactElement } from "react";

import { useLabKinds, usePutLabSample } from "../../api/hooks";
import type { LabKind, LabSample, Sample } from "../../api/types";
import { newId } from "../../app/names";
import { useVisitContext } from "../visit/context";
import { DrawSteps, type Drawn } from "./DrawSteps";
import { Bottle } from "./Bottle";
import { TypedResult } from "./TypedResult";
import { FromFile } from "./LabFile";
import { KeptResults } from "./KeptResults";
import { say } from "../../app/language";

/** Bottles that were drawn, each with its chain and its clock. */
function OnTheirWay({ kinds }: { kinds: LabKind[] }): ReactElement | null {
  const bottles = useVisitContext().view.visit.lab_samples;
  if (bottles.length === 0) return null;
  const kindOf = (b: LabSample): LabKind | undefined => kinds.find((k) => k.id === b.kind);
  return (
    <div>
      <h2 className="mb-1">{say("On their way")}</h2>
      <ul>
        {bottles
          .filter((b) => !b.struck_at)
          .map((b) => (
            <Bottle key={b.id} bottle={b} kind={kindOf(b)} />
          ))}
        {bottles
          .filter((b) => b.struck_at)
          .map((b) => (
            <li key={b.id} className="py-1 text-s text-ink-2">
              <s>{kindOf(b)?.name ?? b.kind}</s>
              {say(", crossed out:")} {b.struck_because}
            </li>
          ))}
      </ul>
    </div>
  );
}

function ToDraw({
  kinds,
  onDraw,
}: {
  kinds: LabKind[];
  onDraw: (k: LabKind) => void;
}): ReactElement {
  const { suggested } = useVisitContext().view;
  const asked = suggested.flatMap(({ kind, why }) =>
    kinds.filter((k) => k.id === kind).map((found) => ({ found, why })),
  );
  return (
    <div>
      <h2 className="mb-2">{say("Bottles to draw")}</h2>
      {suggested.length === 0 && (
        <p className="text-m text-ink-2 mb-2">
          {say("Nothing more is suggested for this source. Any kind may be drawn.")}
        </p>
      )}
      <ul className="mb-2">
        {asked.map(({ found, why }) => (
          <li key={found.id} className="flex gap-3 items-center border-b border-rule min-h-[56px]">
            <span className="flex-1">
              <b>{found.name}</b>
              <span className="block text-s text-ink-2">{why}</span>
            </span>
            <button className="key" style={{ minHeight: 46 }} onClick={() => onDraw(found)}>
              {say("Draw")}
            </button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        {kinds
          .filter((k) => !suggested.some((s) => s.kind === k.id))
          .map((k) => (
            <button key={k.id} className="key small" onClick={() => onDraw(k)}>
              {k.name}
            </button>
          ))}
      </div>
    </div>
  );
}

export function LabStation({ sample }: { sample: Sample }): ReactElement {
  const { id, view } = useVisitContext();
  const kinds = useLabKinds().data ?? [];
  const put = usePutLabSample(id);
  const [drawing, setDrawing] = useState<LabKind | null>(null);
  const drawn = (kind: LabKind, said: Drawn): void => {
    const bottle: LabSample = {
      id: newId(),
      kind: kind.id,
      sample: sample.id,
      ...said,
      handed_at: null,
      received_at: null,
      reported_at: null,
      by: view.visit.consultant,
      note: "",
      corrected: [],
      struck_at: null,
      struck_because: "",
    };
    put.mutate({ bottle }, { onSuccess: () => setDrawing(null) });
  };
  return (
    <section aria-labelledby="lab-title" className="grid gap-5 pb-6 min-w-0">
      <div>
        <h1 id="lab-title">{say("For the laboratory")}</h1>
        <p className="text-ink-2">
          {say(
            "Health is judged by a certified laboratory and the local authority, never here. " +
              "Bottles are drawn from “{name}”.",
            { name: sample.name },
          )}
        </p>
      </div>
      <OnTheirWay kinds={kinds} />
      <ToDraw kinds={kinds} onDraw={setDrawing} />
      <div>
        <h2 className="mb-2">{say("A report has come")}</h2>
        <div className="grid gap-4">
          <TypedResult />
          <KeptResults />
          <FromFile />
        </div>
      </div>
      {drawing && (
        <DrawSteps
          kind={drawing}
          onDrawn={(said) => drawn(drawing, said)}
          onClose={() => setDrawing(null)}
          error={put.error}
        />
      )}
    </section>
  );
}
