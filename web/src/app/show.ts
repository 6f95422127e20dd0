/** Numbers as people read them. Computation is the server's; this only writes digits. */
import type { Range } from "../api/types";

const GPG = 17.118061;

/** Digits after the point; under 1 as many as say something, so that nothing is shown as 0 that is not 0. */
export function num(value: number, decimals = 0): string {
  const small = value !== 0 && Math.abs(value) < 1;
  const digits = small ? Math.max(decimals, 1 - Math.floor(Math.log10(Math.abs(value)))) : decimals;
  const text = value.toLocaleString("en", {
    minimumFractionDigits: 0,
    maximumFractionDigits: Math.min(20, digits),
  });
  return text === "-0" ? "0" : text;
}

interface Shown {
  factor: number;
  unit: string;
  decimals: number;
}
/** What is shown in a smaller unit than it is kept in. */
const SMALLER: Record<string, Shown> = {
  lead: { factor: 1e3, unit: "µg/L", decimals: 1 },
  pfoa: { factor: 1e6, unit: "ng/L", decimals: 1 },
  pfos: { factor: 1e6, unit: "ng/L", decimals: 1 },
};
const UNITS: Record<string, [string, number]> = {
  tds: ["mg/L", 0],
  hardness: ["mg/L", 0],
  calcium: ["mg/L", 0],
  alkalinity: ["mg/L", 0],
  ph: ["", 1],
  temperature: ["°C", 1],
  turbidity: ["NTU", 1],
  flow: ["gpm", 1],
  pressure_static: ["psi", 0],
  pressure_running: ["psi", 0],
  radon: ["pCi/L", 0],
  uvt: ["%", 0],
  coliform: ["per 100 mL", 0],
  e_coli: ["per 100 mL", 0],
  chlorine_free: ["mg/L", 1],
  chlorine_total: ["mg/L", 1],
  chlorine_combined: ["mg/L", 1],
  tannin: ["mg/L", 1],
  sodium: ["mg/L", 0],
  arsenic: ["mg/L", 4],
  magnesium: ["mg/L", 0],
};

export function unitOf(analyte: string, units: string): Shown {
  if (analyte === "hardness" && units === "us")
    return { factor: 1 / GPG, unit: "gpg", decimals: 1 };
  const smaller = SMALLER[analyte];
  if (smaller) return smaller;
  const [unit, decimals] = UNITS[analyte] ?? ["mg/L", 2];
  if (units === "metric") {
    if (unit === "gpm") return { factor: 3.785411784, unit: "L/min", decimals: 0 };
    if (unit === "psi") return { factor: 6.894757, unit: "kPa", decimals: 0 };
    if (unit === "pCi/L") return { factor: 0.037, unit: "Bq/L", decimals: 0 };
  }
  return { factor: 1, unit, decimals };
}

export function best(
  analyte: string,
  v: { range: Range | null; below?: number | null; words?: string },
  units: string,
): string {
  if (!v.range) return v.words === undefined || v.words === "" ? "not known" : v.words;
  const { factor, unit, decimals } = unitOf(analyte, units);
  const tail = unit ? ` ${unit}` : "";
  if (v.below != null) return `under ${num(v.below * factor, decimals + 1)}${tail}`;
  if (v.range.high === null) return `at least ${num(v.range.low * factor, decimals)}${tail}`;
  const also = unit === "pCi/L" ? ` (${num(v.range.best * 0.037)} Bq/L)` : "";
  return `${num(v.range.best * factor, decimals)}${tail}${also}`;
}

export function between(analyte: string, r: Range, units: string): string {
  const { factor, unit, decimals } = unitOf(analyte, units);
  const tail = unit ? ` ${unit}` : "";
  if (r.high === null) return `${num(r.low * factor, decimals)}${tail} or more`;
  return `${num(r.low * factor, decimals)} and ${num(r.high * factor, decimals)}${tail}`;
}

export function money(amount: string | number, currency: string, cents = false): string {
  const n = typeof amount === "string" ? Number(amount) : amount;
  return `${currency}${n.toLocaleString("en", { minimumFractionDigits: cents ? 2 : 0, maximumFractionDigits: cents ? 2 : 0 })}`;
}

export const GAL_L = 3.785411784;
export function volume(gal: number, units: string): string {
  return units === "us" ? `${num(gal)} gal` : `${num(gal * GAL_L)} L`;
}
