/** What they wish less of at the drinking tap: no limit, and no reason of health. */
import type { ReactElement } from "react";

import { useReference } from "../../api/hooks";
import type { Home } from "../../api/types";
import { WISHED } from "../../app/facts.generated";
import { midSentence } from "../../app/names";
import { unitOf } from "../../app/show";
import { useUnits } from "../../app/units";
import { NumberField } from "../../ui/fields";
import { say } from "../../app/language";

export function Wishes({
  home,
  set,
}: {
  home: Home;
  set: (part: Partial<Home>) => void;
}): ReactElement {
  const names = useReference().data?.analytes ?? [];
  const units = useUnits() ?? "us";
  const name = (a: string): string => names.find((n) => n.id === a)?.name ?? a;
  const toggle = (analyte: string): void =>
    set({
      wishes: home.wishes.some((w) => w.analyte === analyte)
        ? home.wishes.filter((w) => w.analyte !== analyte)
        : [...home.wishes, { analyte, target: null }],
    });
  return (
    <fieldset className="border-0 border-t border-rule pt-3 pb-5 m-0 px-0">
      <legend className="float-left w-full mb-3">
        <h2 className="text-[20px]">{say("They wish less, at the drinking tap, of")}</h2>
      </legend>
      <div className="clear-both flex flex-wrap gap-2">
        {WISHED.map((a) => {
          const on = home.wishes.some((w) => w.analyte === a);
          return (
            <button
              key={a}
              type="button"
              className="key"
              aria-pressed={on}
              style={on ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : undefined}
              onClick={() => toggle(a)}
            >
              {midSentence(name(a))}
            </button>
          );
        })}
      </div>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-x-5 gap-y-4 mt-3">
        {home.wishes.map((w) => {
          const { factor, unit } = unitOf(w.analyte, units);
          return (
            <NumberField
              key={w.analyte}
              label={say("{analyte}: at most", { analyte: name(w.analyte) })}
              unit={unit}
              hint={say("empty: less than now")}
              value={w.target == null ? null : Number((w.target * factor).toPrecision(6))}
              onCommit={(n) =>
                set({
                  wishes: home.wishes.map((x) =>
                    x.analyte === w.analyte ? { ...x, target: n === null ? null : n / factor } : x,
                  ),
                })
              }
            />
          );
        })}
      </div>
    </fieldset>
  );
}
