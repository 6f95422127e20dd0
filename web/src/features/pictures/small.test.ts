import { describe, expect, it } from "vitest";

import { fitted } from "./small";

describe("a photograph made small", () => {
  it("fits its longer side and keeps its shape", () => {
    expect(fitted(4000, 3000)).toEqual({ width: 1600, height: 1200 });
    expect(fitted(3000, 4000)).toEqual({ width: 1200, height: 1600 });
  });
  it("stays as it is when it is small", () => {
    expect(fitted(640, 480)).toEqual({ width: 640, height: 480 });
  });
  it("never loses a side", () => {
    expect(fitted(100_000, 10)).toEqual({ width: 1600, height: 1 });
  });
});
