/**
 * What the page says, in the language of whoever reads it: the English of the code is the message,
 * and a language is a file of what each message is in it.
 */
import type { i18n } from "i18next";
import { useSyncExternalStore } from "react";

import { FILES, LANGUAGES, LOCALES } from "./languages.generated";

export type Language = keyof typeof LANGUAGES;

/** The library with its messages, fetched once another language than the code's is spoken. */
let library: i18n | null = null;
let speaking: Language = "en";
const listeners = new Set<() => void>();

async function fetched(next: Language): Promise<void> {
  const [{ default: i18next }, { default: translation }] = await Promise.all([
    import("i18next"),
    FILES[next]!(),
  ]);
  if (!library)
    await i18next.init({
      fallbackLng: false,
      // a message is a sentence: its points and colons are its own
      keySeparator: false,
      nsSeparator: false,
      interpolation: { prefix: "{", suffix: "}", escapeValue: false },
    });
  library = i18next;
  i18next.addResourceBundle(next, "translation", translation);
  await i18next.changeLanguage(next);
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
  if (next !== "en") await fetched(next);
  speaking = next;
  listeners.forEach((heard) => heard());
}

export const useLanguage = (): Language =>
  useSyncExternalStore((heard) => {
    listeners.add(heard);
    return () => listeners.delete(heard);
  }, language);
