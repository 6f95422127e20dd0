/** Whether a kit may be relied on today: the boundaries of `core/testing/instruments.fitness`, said
 * before a reading is made and without asking the server; its flag stands with the reading. */
import type { Instrument } from "../api/types";
import { dayOf, iso, today } from "../features/aftercare/dates";

export type Fitness = "fit" | "reagent expired" | "check overdue" | "never checked";

const daysOn = (day: string, days: number): string => {
  const at = dayOf(day);
  at.setDate(at.getDate() + days);
  return iso(at);
};

/** On its last day a reagent still counts, and a check is not late on the day it is due. */
export function fitness(kit: Instrument, on: string = today()): Fitness {
  if (kit.reagent_expiry != null && kit.reagent_expiry < on) return "reagent expired";
  if (kit.check_every_days == null) return "fit";
  if (kit.last_check == null) return "never checked";
  return daysOn(kit.last_check, kit.check_every_days) < on ? "check overdue" : "fit";
}
