/**
 * What the page says, in the language of whoever reads it: the English of the code is the message,
 * and a language is a file of what each message is in it.
 */
import type { i18n } from "i18next";
import { useSyncExternalStore } from "react";

export type Language = "en" | "es";
export const LANGUAGES: Record<Language, string> = { en: "English", es: "Español" };
const LOCALES: Record<Language, string> = { en: "", es: "es-US" };

/** The library with its messages, fetched once another language than the code's is spoken. */
let library: i18n | null = null;
let speaking: Language = "en";
const listeners = new Set<() => void>();

async function fetched(): Promise<i18n> {
  const [{ default: i18next }, { default: es }] = await Promise.all([
    import("i18next"),
    import("./es.generated.json"),
  ]);
  await i18next.init({
    lng: "es",
    fallbackLng: false,
    resources: { es: { translation: es } },
    // a message is a sentence: its points and colons are its own
    keySeparator: false,
    nsSeparator: false,
    interpolation: { prefix: "{", suffix: "}", escapeValue: false },
  });
  return i18next;
}

/** Marks a text as a message where it is only kept; it is said where it is shown. */
export const message = <M extends string>(text: M): M => text;

/** A code is one word in small letters; all else is said. */
const isProse = (text: string): boolean => /\s|^[A-Z]/.test(text);

/** What of a kept object is looked into: lists and plain objects, but no drawn parts. */
function isKept(value: unknown): value is object {
  if (typeof value !== "object" || value === null || "$$typeof" in value) return false;
  return Array.isArray(value) || Object.getPrototypeOf(value) === Object.prototype;
}

const saying = new WeakMap<object, object>();

/** Texts that a part keeps in an object or a list: each is said as it is read out of it. */
export function spoken<T extends object>(kept: T): T {
  const known = saying.get(kept);
  if (known) return known as T;
  const made = new Proxy(kept, {
    get: (of, key, receiver) => {
      const value: unknown = Reflect.get(of, key, receiver);
      if (typeof value === "string") return isProse(value) ? say(value) : value;
      return isKept(value) ? spoken(value) : value;
    },
  });
  saying.set(kept, made);
  return made;
}

type Values = Record<string, string | number | null | undefined>;

/**
 * A message in the language of now, with its values; as it is where the language lacks it. One with
 * a number `n` takes the form that the language's plural rules give it, where its file has such
 * forms: “{n} tests_one”, “{n} tests_few”.
 */
export function say(message: string, values: Values = {}): string {
  const { n } = values;
  const count = typeof n === "number" ? { count: n } : {};
  if (library && speaking !== "en") return library.t(message, { replace: values, ...count });
  return message.replace(/\{(\w+)\}/g, (whole, name: string) =>
    name in values ? String(values[name] ?? "") : whole,
  );
}

export const language = (): Language => speaking;

/** The locale that days are written in; empty for the reader's own English. */
export const locale = (): string => LOCALES[speaking];

/** Speak a language from now on; its file is fetched the first time. */
export async function speak(next: Language): Promise<void> {
  if (next === speaking) return;
  if (next !== "en") library ??= await fetched();
  speaking = next;
  listeners.forEach((heard) => heard());
}

const KEPT = "zesty.customers-language:";

/** The language that a customer reads at a place: chosen on this device before, or another. */
export function customersLanguage(place: string, otherwise: Language): Language {
  const kept = localStorage.getItem(KEPT + place);
  return kept === "en" || kept === "es" ? kept : otherwise;
}

export function keepCustomersLanguage(place: string, next: Language): void {
  localStorage.setItem(KEPT + place, next);
}

export const useLanguage = (): Language =>
  useSyncExternalStore((heard) => {
    listeners.add(heard);
    return () => listeners.delete(heard);
  }, language);
