/** Eyes and nose at the tap: what was looked for, and what was found. */
import { useState, type ReactElement, type ReactNode } from "react";

import { useReference } from "../../api/hooks";
import type { Instrument } from "../../api/types";
import { StateMark } from "../../ui/marks";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { useKeep } from "./useKeep";

export function SensesStation({ kit, next }: { kit: Instrument; next: ReactNode }): ReactElement {
  const { picked, readingsOf } = useVisitContext();
  const reference = useReference().data;
  const kept = [...(picked ? readingsOf(picked) : [])]
    .reverse()
    .find((r) => !r.struck_at && r.observation.method === "noticed");
  const before = kept?.observation.method === "noticed" ? kept.observation.signs : null;
  const [draft, setDraft] = useState<string[] | null>(null);
  const { busy, error, save } = useKeep();
  const seen = draft ?? before ?? [];
  if (!picked)
    return <p className="text-l">Draw a glass first: “Draw a glass”, at the bottom right.</p>;
  const keepIt = async (signs: string[]): Promise<void> => {
    if (await save(kit, { method: "noticed", signs })) setDraft(null);
  };
  const listed = (reference?.looked_at ?? []).map((id) => ({
    id,
    name: (reference?.signs.find((s) => s.id === id)?.name ?? id).replace(", all taps", ""),
  }));
  return (
    <section aria-labelledby="senses-title" className="grid gap-3 content-start">
      <h1 id="senses-title">Smell, stains and slime</h1>
      <p className="text-b text-ink-2">
        At this tap: let it run, smell at once, then look at basin, kettle and the tank’s lid. Do
        not taste.{" "}
        {picked.draw === "hot"
          ? "This is the hot tap: smell a cold one too."
          : "Smell a hot tap too, as a glass of its own."}
      </p>
      <div className="flex flex-wrap gap-2" role="group" aria-label="What was noticed">
        {listed.map(({ id, name }) => {
          const on = seen.includes(id);
          return (
            <button
              key={id}
              type="button"
              className="key"
              style={{
                minHeight: 48,
                fontSize: 16,
                ...(on ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : {}),
              }}
              aria-pressed={on}
              onClick={() => setDraft(on ? seen.filter((s) => s !== id) : [...seen, id])}
            >
              {on && <StateMark kind="done" size={16} />}
              {name}
            </button>
          );
        })}
      </div>
      <div className="flex gap-3 items-center flex-wrap">
        {(draft || before === null) && (
          <button
            className="key"
            style={{ background: "var(--ink)", color: "var(--paper)" }}
            disabled={busy}
            onClick={() => void keepIt(seen)}
          >
            {seen.length ? "Keep what was noticed" : "Nothing noticed: keep that"}
          </button>
        )}
        {before !== null && !draft && (
          <p className="flex gap-2 items-center text-m">
            <StateMark kind="done" size={18} />
            {before.length
              ? "Kept: it stands beside the complaints."
              : "Kept: nothing noticed at this tap."}
          </p>
        )}
        {before !== null && !draft && next}
      </div>
      <Trouble error={error} />
    </section>
  );
}
