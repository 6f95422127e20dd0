import { spoken } from "./language";
/** Keys that act on a view, for the sheet that lists them. */
export interface KeyWords {
  keys: string;
  does: string;
}

export const KEYS: readonly { where: string; keys: readonly KeyWords[] }[] = spoken([
  {
    where: "Everywhere",
    keys: [
      { keys: "/", does: "find a home, a visit, a kit, an item or a view" },
      { keys: "?", does: "this sheet" },
      { keys: "Tab, Shift Tab", does: "to the next control, and back" },
      { keys: "Enter, Space", does: "press what is marked" },
      { keys: "Esc", does: "close what lies on top" },
    ],
  },
  {
    where: "In a visit",
    keys: [
      { keys: "T", does: "turn the screen to the customer, and back" },
      { keys: "← →", does: "within a row of choices, steps or kits" },
      { keys: "Page Down, Page Up", does: "facing the customer: the next demonstration, and back" },
    ],
  },
  {
    where: "Counting drops",
    keys: [
      { keys: "Space", does: "one drop more" },
      { keys: "Z", does: "one drop back" },
    ],
  },
  {
    where: "Bucket and stopwatch",
    keys: [{ keys: "Space", does: "start and stop the clock" }],
  },
]);
