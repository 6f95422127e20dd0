/** What the household asks of whatever is bought, beside good water. */
import type { ReactElement } from "react";

import type { Home } from "../../api/types";
import { GOALS } from "../../app/facts.generated";
import { say } from "../../app/language";

type Wanted = Home["goals"];

/** Goals as keys that stay down. */
export function GoalKeys({
  goals,
  onChange,
}: {
  goals: Wanted;
  onChange: (goals: Wanted) => void;
}): ReactElement {
  return (
    <div className="clear-both flex flex-wrap gap-2">
      {GOALS.map(([id, words]) => {
        const on = goals.includes(id);
        return (
          <button
            key={id}
            type="button"
            className="key small"
            aria-pressed={on}
            style={on ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : undefined}
            onClick={() => onChange(on ? goals.filter((g) => g !== id) : [...goals, id])}
          >
            {say(words)}
          </button>
        );
      })}
    </div>
  );
}

export function Goals({
  home,
  set,
}: {
  home: Home;
  set: (part: Partial<Home>) => void;
}): ReactElement {
  return (
    <fieldset className="border-0 border-t border-rule pt-3 pb-5 m-0 px-0">
      <legend className="float-left w-full mb-3">
        <h2 className="text-[20px]">{say("What they ask of a system")}</h2>
      </legend>
      <GoalKeys goals={home.goals} onChange={(goals) => set({ goals })} />
    </fieldset>
  );
}
