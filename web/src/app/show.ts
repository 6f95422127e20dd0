/** Numbers as people read them. Computation is the server's; this only writes digits. */
import type { Range } from "../api/types";
import { BQ_L_PER_PCI_L, L_PER_GAL, SHOWN } from "./facts.generated";
import { locale, say } from "./language";

const formatters = new Map<string, Intl.NumberFormat>();

/** Digits as the language writes them, so many after the point, in thousands: each made once. */
function written(value: number, least: number, most: number): string {
  const where = locale() || "en";
  const key = `${where}-${least}-${most}`;
  let format = formatters.get(key);
  if (!format) {
    format = new Intl.NumberFormat(where, {
      minimumFractionDigits: least,
      maximumFractionDigits: most,
    });
    formatters.set(key, format);
  }
  return format.format(value);
}

/**
 * Digits after the point; under 1 as many as say something, so that nothing is shown as 0 that is
 * not 0.
 */
export function num(value: number, decimals = 0): string {
  const small = value !== 0 && Math.abs(value) < 1;
  const digits = small ? Math.max(decimals, 1 - Math.floor(Math.log10(Math.abs(value)))) : decimals;
  const text = written(value, 0, Math.min(20, digits));
  return text === "-0" ? "0" : text;
}

/** So many of a thing a year, in words: “5 changes”, “1 change”, “1 change every 4 years”. */
export function yearly(times: number, one: string, many = `${one}s`): string {
  if (times >= 0.95) return `${num(Math.round(times))} ${Math.round(times) === 1 ? one : many}`;
  const years = times > 0 ? Math.round(1 / times) : 0;
  if (years === 0) return say("no {one}", { one });
  return years === 1 ? `1 ${one}` : say("1 {one} every {years} years", { one, years: num(years) });
}

/** How often in a year: “5 times”, “yearly”, “every 4 years”. */
export function often(times: number): string {
  if (times >= 1.5) return say("{times} times", { times: num(times) });
  const years = times > 0 ? Math.round(1 / times) : 0;
  return years > 1 ? say("every {years} years", { years: num(years) }) : say("yearly");
}

/** Minutes as work: under an hour in minutes, else in hours. */
export function workTime(minutes: number): string {
  return minutes < 60
    ? say("{minutes} min", { minutes: num(minutes) })
    : `${num(minutes / 60, 1)} h`;
}

/** How an analyte is shown: the core's own table. */
export function unitOf(
  analyte: string,
  units: string,
): { factor: number; unit: string; decimals: number } {
  const shown = SHOWN[analyte]?.[units === "metric" ? "metric" : "us"];
  return shown ?? { factor: 1, unit: "", decimals: 2 };
}

export function best(
  analyte: string,
  v: { range: Range | null; below?: number | null; words?: string },
  units: string,
): string {
  if (!v.range) return v.words === undefined || v.words === "" ? say("not known") : v.words;
  const { factor, unit, decimals } = unitOf(analyte, units);
  const tail = unit ? ` ${unit}` : "";
  if (v.below != null)
    return say("under {x}{tail}", { x: num(v.below * factor, decimals + 1), tail });
  if (v.range.high === null)
    return say("at least {x}{tail}", { x: num(v.range.low * factor, decimals), tail });
  const also =
    unit === "pCi/L" ? say(" ({x} Bq/L)", { x: num(v.range.best * BQ_L_PER_PCI_L) }) : "";
  return `${num(v.range.best * factor, decimals)}${tail}${also}`;
}

export function between(analyte: string, r: Range, units: string): string {
  const { factor, unit, decimals } = unitOf(analyte, units);
  const tail = unit ? ` ${unit}` : "";
  if (r.high === null) return say("{x}{tail} or more", { x: num(r.low * factor, decimals), tail });
  return say("{x} and {x2}{tail}", {
    x: num(r.low * factor, decimals),
    x2: num(r.high * factor, decimals),
    tail,
  });
}

/** "every …": a month, or so many. */
export const monthsOf = (n: number): string =>
  n === 1 ? "month" : say("{n} months", { n: num(n, 1) });

export const timesOf = (n: number): string => (n === 1 ? "once" : say("{n} times", { n }));

/** A price and how often it falls due: "$38.00 every 6 months". */
export const priceEvery = (price: string | number, months: number, currency: string): string =>
  say("{price} every {months}", { price: money(price, currency, true), months: monthsOf(months) });

/** What an option asks at once, and every month where something of it is rented. */
export function atOnce(once: number, perMonth: number, currency: string): string {
  return perMonth > 0
    ? say("{once} to begin with, then {perMonth} a month", {
        once: money(once, currency),
        perMonth: money(perMonth, currency, true),
      })
    : say("{once} to buy and install", { once: money(once, currency) });
}

export function money(amount: string | number, currency: string, cents = false): string {
  const n = typeof amount === "string" ? Number(amount) : amount;
  const places = cents ? 2 : 0;
  return `${currency}${written(n, places, places)}`;
}

const TO_THE_TEN_BEYOND = 5;
/**
 * A sum of costs over years as it is said: whole, and to the ten beyond five years. The slip has
 * the cents.
 */
export function sumOver(amount: string | number, currency: string, years: number): string {
  const step = years > TO_THE_TEN_BEYOND ? 10 : 1;
  const said = Math.round(Number(amount) / step) * step;
  return said === 0 ? money(amount, currency, Number(amount) !== 0) : money(said, currency);
}

/** A predicted amount with the digits it is known by: whole under 1,000, then two digits. */
export function about(value: number): string {
  if (Math.abs(value) < 1000) return num(value);
  const step = 10 ** (Math.floor(Math.log10(Math.abs(value))) - 1);
  return num(Math.round(value / step) * step);
}

export const GAL_L = L_PER_GAL;
export function volume(gal: number, units: string): string {
  return units === "us" ? say("{gal} gal", { gal: about(gal) }) : `${about(gal * GAL_L)} L`;
}
/** The volume that a share or a price is said for each of. */
export const each = (units: string): string => (units === "us" ? "gallon" : "litre");
/** A small volume, as drunk in a day, with one digit after the point. */
export function sip(gal: number, units: string): string {
  return units === "us" ? say("{gal} gal", { gal: num(gal, 1) }) : `${num(gal * GAL_L, 1)} L`;
}
const LARGE_L_MIN = 100; // as the core's own sentences: from here on in m³/h
export function flow(gpm: number, units: string): string {
  if (units === "us") return say("{gpm} gpm", { gpm: num(gpm, 1) });
  const litres = gpm * GAL_L;
  return litres < LARGE_L_MIN
    ? say("{litres} L/min", { litres: num(litres, 0) })
    : `${num(litres * 0.06, 1)} m³/h`;
}
