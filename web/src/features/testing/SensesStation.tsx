/** Eyes and nose at the tap: what was looked for, and what was found. */
import { useState, type ReactElement, type ReactNode } from "react";

import { useReference } from "../../api/hooks";
import type { Instrument, Sample } from "../../api/types";
import { StateMark } from "../../ui/marks";
import { Trouble } from "../../ui/Trouble";
import { OnRecord } from "./pieces";
import { useKeep } from "./useKeep";
import { useKept } from "./useKept";
import { say } from "../../app/language";

interface Sign {
  id: string;
  name: string;
}

/** What eyes and nose look at, as a visit says it. */
function useSigns(): Sign[] {
  const reference = useReference().data;
  const nameOf = (id: string): string =>
    reference?.signs.find((s) => s.id === id)?.name.replace(", all taps", "") ?? id;
  return (reference?.looked_at ?? []).map((id) => ({ id, name: nameOf(id) }));
}

function Signs({
  seen,
  onToggle,
}: {
  seen: readonly string[];
  onToggle: (sign: string) => void;
}): ReactElement {
  return (
    <div className="flex flex-wrap gap-2" role="group" aria-label={say("What was noticed")}>
      {useSigns().map(({ id, name }) => {
        const on = seen.includes(id);
        return (
          <button
            key={id}
            type="button"
            className={`key ${on ? "on" : ""}`}
            style={{ minHeight: 48, fontSize: 16 }}
            aria-pressed={on}
            onClick={() => onToggle(id)}
          >
            {on && <StateMark kind="done" size={16} />}
            {name}
          </button>
        );
      })}
    </div>
  );
}

export function SensesStation({
  kit,
  sample,
  next,
}: {
  kit: Instrument;
  sample: Sample;
  next: ReactNode;
}): ReactElement {
  const { reading: kept } = useKept(sample, (r) => r.observation.method === "noticed");
  const before = kept?.observation.method === "noticed" ? kept.observation.signs : null;
  const [draft, setDraft] = useState<string[] | null>(null);
  const { busy, error, save } = useKeep();
  const seen = draft ?? before ?? [];
  const keepIt = async (): Promise<void> => {
    if (await save(kit, { method: "noticed", signs: seen })) setDraft(null);
  };
  const toggle = (sign: string): void =>
    setDraft(seen.includes(sign) ? seen.filter((s) => s !== sign) : [...seen, sign]);
  const open = draft !== null || before === null;
  return (
    <section aria-labelledby="senses-title" className="grid gap-3 content-start">
      <h1 id="senses-title">{say("Smell, stains and slime")}</h1>
      <p className="text-b text-ink-2">
        {say(
          "At this tap: let it run, smell at once, then look at basin, kettle and the tank’s " +
            "lid. Do not taste. {x}",
          {
            x:
              sample.draw === "hot"
                ? "This is the hot tap: smell a cold one too."
                : "Smell a hot tap too, as a glass of its own.",
          },
        )}
      </p>
      <Signs seen={seen} onToggle={toggle} />
      <div className="flex gap-3 items-center flex-wrap">
        {open && (
          <button className="key ink" disabled={busy} onClick={() => void keepIt()}>
            {seen.length ? say("Keep what was noticed") : say("Nothing noticed: keep that")}
          </button>
        )}
        {!open && (
          <p className="flex gap-2 items-center text-m">
            <StateMark kind="done" size={18} />
            {before.length
              ? say("Kept: it stands beside the complaints.")
              : say("Kept: nothing noticed at this tap.")}
          </p>
        )}
        {!open && next}
        {!open && kept && <OnRecord reading={kept} />}
      </div>
      <Trouble error={error} />
    </section>
  );
}
