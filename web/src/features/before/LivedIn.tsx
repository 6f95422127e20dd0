/** In which months a home is lived in, or on weekends alone: parts wear in days lived in. */
import type { ReactElement } from "react";

import type { Home } from "../../api/types";
import { locale, say } from "../../app/language";

const MONTHS = Array.from({ length: 12 }, (_, i) => i + 1);
const named = (month: number): string =>
  new Date(2026, month - 1, 1).toLocaleDateString(locale() || undefined, { month: "short" });

export function LivedIn({
  home,
  set,
}: {
  home: Home;
  set: (change: Partial<Home>) => void;
}): ReactElement | null {
  const { months = [], weekends = false } = home.occupancy ?? {};
  if (home.occupied_days >= 365 && home.occupancy == null)
    return (
      <button
        type="button"
        className="key self-end"
        onClick={() => set({ occupancy: { months: [], weekends: false } })}
      >
        {say("Lived in part of the year")}
      </button>
    );
  const put = (m: number[], w: boolean): void => set({ occupancy: { months: m, weekends: w } });
  const turn = (m: number): void =>
    put(
      months.includes(m) ? months.filter((x) => x !== m) : [...months, m].sort((a, b) => a - b),
      weekends,
    );
  return (
    <fieldset className="border-0 p-0 m-0 col-span-full">
      <legend className="font-semibold text-m">{say("Lived in")}</legend>
      <div className="flex flex-wrap gap-2 mt-1">
        {MONTHS.map((m) => (
          <button
            key={m}
            type="button"
            className="key px-3"
            aria-pressed={months.includes(m)}
            style={months.includes(m) ? { background: "var(--ink)", color: "var(--paper)" } : {}}
            onClick={() => turn(m)}
          >
            {named(m)}
          </button>
        ))}
        <label className="flex gap-2 items-center min-h-11 text-m px-2">
          <input
            type="checkbox"
            className="w-6 h-6 accent-[var(--tick)]"
            checked={weekends}
            onChange={(e) => put(months, e.target.checked)}
          />
          {say("weekends only")}
        </label>
        {home.occupied_days >= 365 && months.length === 0 && !weekends && (
          <button type="button" className="key bare" onClick={() => set({ occupancy: null })}>
            {say("all year after all")}
          </button>
        )}
      </div>
      <p className="text-s text-ink-2">
        {say("No month chosen: spread over the year. Parts wear, and fall due, by it.")}
      </p>
    </fieldset>
  );
}
