/**
 * What the page says, in the language of whoever reads it: the English of the code is the message,
 * and a language is a file of what each message is in it.
 */
import i18next from "i18next";
import { useSyncExternalStore } from "react";

export type Language = "en" | "es";
export const LANGUAGES: Record<Language, string> = { en: "English", es: "Español" };
const LOCALES: Record<Language, string> = { en: "", es: "es-US" };

void i18next.init({
  lng: "en",
  fallbackLng: false,
  resources: {},
  initAsync: false,
  // a message is a sentence: its points and colons are its own
  keySeparator: false,
  nsSeparator: false,
  interpolation: { prefix: "{", suffix: "}", escapeValue: false },
});

/** A message in the language of now, with its values; as it is where the language lacks it. */
export function say(
  message: string,
  values: Record<string, string | number | null | undefined> = {},
): string {
  return i18next.t(message, { replace: values });
}

export const language = (): Language => (i18next.language === "es" ? "es" : "en");

/** The locale that days are written in; empty for the reader's own English. */
export const locale = (): string => LOCALES[language()];

/** Speak a language from now on; its file is fetched the first time. */
export async function speak(next: Language): Promise<void> {
  if (next === language()) return;
  if (next === "es" && !i18next.hasResourceBundle("es", "translation")) {
    const { default: messages } = await import("./es.generated.json");
    i18next.addResourceBundle("es", "translation", messages);
  }
  await i18next.changeLanguage(next);
}

const KEPT = "zesty.customers-language";

/** The language that a customer reads: chosen on this device, or what the browser asks for. */
export function customersLanguage(): Language {
  const kept = localStorage.getItem(KEPT);
  if (kept === "en" || kept === "es") return kept;
  return navigator.language.startsWith("es") ? "es" : "en";
}

export function keepCustomersLanguage(next: Language): void {
  localStorage.setItem(KEPT, next);
}

export const useLanguage = (): Language =>
  useSyncExternalStore((changed) => {
    i18next.on("languageChanged", changed);
    return () => i18next.off("languageChanged", changed);
  }, language);
