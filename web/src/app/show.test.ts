/** Counts and times of a year as they are said. */
import { expect, it } from "vitest";

import { often, workTime, yearly } from "./show";

it("says one of a thing as one, and what is seldom by its years", () => {
  expect([5.2, 1.2, 0.99, 0.25, 0.1, 0].map((n) => yearly(n, "change"))).toEqual([
    "5 changes",
    "1 change",
    "1 change",
    "1 change every 4 years",
    "1 change every 10 years",
    "no change",
  ]);
  expect([5.2, 1.2, 0.94, 0.25].map(often)).toEqual([
    "5 times",
    "yearly",
    "yearly",
    "every 4 years",
  ]);
  expect(yearly(1, "bag of salt", "bags of salt")).toBe("1 bag of salt");
});

it("says work in minutes until it is an hour", () => {
  expect([20, 59, 60, 102].map(workTime)).toEqual(["20 min", "59 min", "1 h", "1.7 h"]);
});
