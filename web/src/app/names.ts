import { spoken } from "./language";
/** Words for values that come as codes. */
export { SOURCE_NAMES } from "./facts.generated";
export const STEPS = spoken([
  ["before", "Before"],
  ["test", "Test"],
  ["meaning", "Meaning"],
  ["show", "Show"],
  ["line", "System"],
  ["compare", "Compare"],
  ["offer", "Offer"],
] as const);
export type Step = (typeof STEPS)[number][0];
export const KIND_WORDS: Record<string, string> = spoken({
  health: "health",
  looks_taste: "looks and taste",
  equipment: "equipment and pipes",
  context: "",
});
/** A name within a sentence: “Iron, total” is total iron; pH, PFOA and E. coli stay as they are. */
export function midSentence(name: string): string {
  const [thing = "", how] = name.split(", ");
  const words = how && !how.includes(" ") ? `${how} ${thing.toLowerCase()}` : name;
  return lowerFirst(words);
}
/** Words as they stand within a sentence; pH, UV and TDS stay as they are. */
export function lowerFirst(words: string): string {
  return /^(.[a-z]+\b|A )/.test(words) ? words.charAt(0).toLowerCase() + words.slice(1) : words;
}
/** What is there of some words, with commas between. */
export function listed(...parts: readonly (string | null | undefined)[]): string {
  return parts.filter((p) => p != null && p.trim() !== "").join(", ");
}

export const newId = (): string => crypto.randomUUID();

/** A name that no other of some names is: the next number goes behind it. */
export function uniqueName(name: string, others: readonly string[]): string {
  let n = 1;
  const nth = (): string => (n === 1 ? name : `${name} (${n})`);
  while (others.includes(nth())) n += 1;
  return nth();
}
