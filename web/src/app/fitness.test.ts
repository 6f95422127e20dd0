/** A kit on its last day, and a day later. */
import { expect, it } from "vitest";

import type { Instrument } from "../api/types";
import { fitness } from "./fitness";

const kit = (part: Partial<Instrument>): Instrument =>
  ({ reagent_expiry: null, check_every_days: null, last_check: null, ...part }) as Instrument;

it("counts a reagent on the day it expires, and not on the next", () => {
  const k = kit({ reagent_expiry: "2026-11-26" });
  expect(fitness(k, "2026-11-26")).toBe("fit");
  expect(fitness(k, "2026-11-27")).toBe("reagent expired");
});

it("asks for a check when its day has passed, over the end of a month", () => {
  const k = kit({ check_every_days: 30, last_check: "2026-10-27" });
  expect(fitness(k, "2026-11-26")).toBe("fit"); // 27 October and 30 days
  expect(fitness(k, "2026-11-27")).toBe("check overdue");
});

it("tells a kit that was never checked from one that needs no check", () => {
  expect(fitness(kit({ check_every_days: 30 }), "2026-11-26")).toBe("never checked");
  expect(fitness(kit({}), "2026-11-26")).toBe("fit");
});
