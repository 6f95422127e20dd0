/** The customer's language: chosen on this device, spoken while what faces them is open. */
import { Languages } from "lucide-react";
import { useEffect, useState, type ReactElement } from "react";

import {
  customersLanguage,
  keepCustomersLanguage,
  LANGUAGES,
  speak,
  type Language,
} from "../app/language";

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

/** One touch to the other language; it names itself in that language. */
export function LanguageKey({
  language,
  onChoose,
}: {
  language: Language;
  onChoose: (next: Language) => void;
}): ReactElement {
  const other: Language = language === "en" ? "es" : "en";
  return (
    <button className="key" lang={other} onClick={() => onChoose(other)}>
      <Languages size={20} aria-hidden="true" />
      {LANGUAGES[other]}
    </button>
  );
}
