/** Names as they stand within a sentence. */
import { describe, expect, it } from "vitest";

import { lowerFirst, midSentence, uniqueName } from "./names";

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

describe("a name that no other is", () => {
  it("is left as it is where it is free, and numbered where it is not", () => {
    expect(uniqueName("Carbon", [])).toBe("Carbon");
    expect(uniqueName("Carbon", ["Carbon"])).toBe("Carbon (2)");
    expect(uniqueName("Carbon", ["Carbon", "Carbon (2)", "Softener"])).toBe("Carbon (3)");
    expect(uniqueName("Carbon", ["Carbon (2)"])).toBe("Carbon");
  });
});
