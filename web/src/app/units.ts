/** US or metric: the firm's setting, and a switch on the page that this device remembers. */
import { createContext, useContext, useSyncExternalStore } from "react";

export type Units = "us" | "metric";
const KEY = "zesty.units";
const listeners = new Set<() => void>();
let chosen: Units | null = read();

function read(): Units | null {
  try {
    const v = localStorage.getItem(KEY);
    return v === "us" || v === "metric" ? v : null;
  } catch {
    return null;
  }
}

export function chooseUnits(units: Units): void {
  chosen = units;
  try {
    localStorage.setItem(KEY, units);
  } catch {
    // the choice holds for this page only
  }
  listeners.forEach((l) => l());
}

export function useUnits(): Units | null {
  return useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => chosen,
  );
}

/** The units in which what is around is shown, where somebody says so: a visit has its firm's. */
export const ShownUnits = createContext<string | null>(null);

/** The units around, else what this device chose. */
export function useShownUnits(): string | null {
  const around = useContext(ShownUnits);
  const own = useUnits();
  return around ?? own;
}

/** The choice as a query, for calls outside of a component. */
export const currentUnits = (): { units?: Units } => (chosen ? { units: chosen } : {});
