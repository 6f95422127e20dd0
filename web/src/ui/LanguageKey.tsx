/** The customer's language: chosen on this device, spoken while what faces them is open. */
import { Languages } from "lucide-react";
import { useEffect, useState, type ReactElement } from "react";

import { speak, type Language } from "../app/language";
import { LANGUAGES } from "../app/languages.generated";

const CODES = Object.keys(LANGUAGES) as Language[];

/** The language that a text names, as "es-MX" or "es"; English where it is none of ours. */
export const languageOf = (asked: string | null | undefined): Language =>
  CODES.find((code) => asked === code || asked?.startsWith(`${code}-`)) ?? "en";

const KEPT = "zesty.customers-language:";

/** The language that a customer reads at a place: chosen on this device before, or another. */
function customersLanguage(place: string, otherwise: Language): Language {
  const kept = localStorage.getItem(KEPT + place);
  return kept === null ? otherwise : languageOf(kept);
}

function keepCustomersLanguage(place: string, next: Language): void {
  localStorage.setItem(KEPT + place, next);
}

/**
 * The customer's language at a place, and how to choose another; English again once they are gone.
 */
export function useCustomersLanguage(
  place: string,
  otherwise: Language = "en",
): [Language, (next: Language) => void] {
  const [language, setLanguage] = useState(() => customersLanguage(place, otherwise));
  useEffect(() => {
    document.documentElement.lang = language;
    void speak(language);
    return () => {
      document.documentElement.lang = "en";
      void speak("en");
    };
  }, [language]);
  const choose = (next: Language): void => {
    keepCustomersLanguage(place, next);
    setLanguage(next);
  };
  return [language, choose];
}

/** One touch to another language; each names itself in that language. */
export function LanguageKey({
  language,
  onChoose,
}: {
  language: Language;
  onChoose: (next: Language) => void;
}): ReactElement {
  return (
    <>
      {CODES.filter((code) => code !== language).map((other) => (
        <button key={other} className="key" lang={other} onClick={() => onChoose(other)}>
          <Languages size={20} aria-hidden="true" />
          {LANGUAGES[other]}
        </button>
      ))}
    </>
  );
}
