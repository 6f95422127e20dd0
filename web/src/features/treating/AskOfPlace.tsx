/** What a stage wants to know of the place, asked where it is wanted and answered at one touch. */
import type { ReactElement } from "react";

import { useChangeHome, type Told } from "../../api/hooks";
import { ASKED } from "../../app/facts.generated";
import { QuantityField } from "../../ui/QuantityField";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { spoken, say } from "../../app/language";

type Answer = boolean | number | string | null;

const ANSWERS: [words: string, value: Answer][] = spoken([
  ["Yes", true],
  ["No", false],
]);

/** What is answered at one touch: yes or no, or one of some words. */
const answersOf = (choices: string[]): [words: string, value: Answer][] =>
  choices.length > 0 ? choices.map((c) => [c, c]) : ANSWERS;

export function AskOfPlace({ check }: { check: string }): ReactElement | null {
  const { id, view } = useVisitContext();
  const change = useChangeHome(id);
  const asked = ASKED[check];
  if (!asked) return null;
  const { customer, home } = view.visit;
  const put = (value: Answer): void => {
    const version = view.versions.home ?? 1;
    const edit = (told: Told): Told => ({
      ...told,
      home: { ...told.home, [asked.field]: value },
    });
    change.mutate({ version, customer, home, edit });
  };
  return (
    <span className="block pt-1">
      {asked.unit === "" ? (
        <span
          role="group"
          aria-label={asked.question}
          className="flex gap-2 items-center flex-wrap"
        >
          <span className="text-ink-2">{asked.question}</span>
          {answersOf(asked.choices).map(([words, value]) => (
            <button
              key={words}
              type="button"
              className="key small"
              style={{ minHeight: 44 }}
              disabled={change.isPending}
              onClick={() => put(value)}
            >
              {words}
            </button>
          ))}
        </span>
      ) : (
        <span className="block max-w-[180px]">
          <QuantityField
            label={asked.question}
            unit={asked.field === "told_peak_gpm" ? say("gpm, a building’s") : asked.unit}
            max={asked.most}
            value={null}
            onCommit={put}
          />
        </span>
      )}
      <Trouble error={change.error} />
    </span>
  );
}
