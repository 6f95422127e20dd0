/** Words for values that come as codes. */
export const SOURCE_NAMES: Record<string, string> = {
  city: "town main",
  well_drilled: "drilled well",
  well_dug: "dug well",
  spring: "spring",
  lake: "lake intake",
  cistern: "cistern",
};
export const STEPS = [
  ["before", "Before"],
  ["test", "Test"],
  ["meaning", "Meaning"],
  ["show", "Show"],
  ["line", "Line"],
  ["compare", "Compare"],
  ["offer", "Offer"],
] as const;
export type Step = (typeof STEPS)[number][0];
export const KIND_WORDS: Record<string, string> = {
  health: "health",
  looks_taste: "looks and taste",
  equipment: "equipment and pipes",
  context: "",
};
export const newId = (): string => crypto.randomUUID();
