/** Names as they stand within a sentence. */
import { expect, it } from "vitest";

import { lowerFirst, midSentence } from "./names";

it("puts a name into a sentence and leaves signs alone", () => {
  expect(
    ["Iron, total", "Hardness", "pH", "PFOA", "E. coli", "Lead, first draw"].map(midSentence),
  ).toEqual(["total iron", "hardness", "pH", "PFOA", "E. coli", "lead, first draw"]);
});

it("lowers a first letter and turns nothing around", () => {
  expect(["Two glasses, water", "TDS meter", "UV", "pH meter"].map(lowerFirst)).toEqual([
    "two glasses, water",
    "TDS meter",
    "UV",
    "pH meter",
  ]);
});
