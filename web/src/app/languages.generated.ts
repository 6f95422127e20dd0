/** Written by ./zesty messages: the languages of the page, and their files. */
export const LANGUAGES = { en: "English", es: "Español" } as const;
/** How days and numbers are written; empty for the reader's own English. */
export const LOCALES: Record<keyof typeof LANGUAGES, string> = { en: "", es: "es-US" };
export const FILES: Record<string, () => Promise<{ default: Record<string, string> }>> = { es: () => import("./es.generated.json") };
