/** Scales and winters of the charts over the years. */
import { describe, expect, it } from "vitest";

import { roundUp, winters } from "./scale";

describe("the top of a scale", () => {
  it("is round, and never below a value", () => {
    expect([0, 0.05, 0.3, 1, 19, 450, 2001].map(roundUp)).toEqual([1, 0.05, 0.5, 1, 20, 500, 2500]);
  });
});

describe("winters", () => {
  it("are December to February, cut to the span", () => {
    const span = {
      from: new Date(2025, 0, 15).getTime(),
      to: new Date(2026, 0, 10).getTime(),
    };
    expect(winters(span).map(([a, b]) => [new Date(a).getMonth(), new Date(b).getMonth()])).toEqual(
      [
        [0, 2],
        [11, 0],
      ],
    );
  });
});
