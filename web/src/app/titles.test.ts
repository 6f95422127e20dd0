import { describe, expect, it } from "vitest";

import { pageTitle } from "./titles";

describe("the page's title", () => {
  it("says what is looked at, then whose it is", () => {
    expect(pageTitle("Compare", "Odile Brackenreed")).toBe(
      "Compare · Odile Brackenreed · Zesty Glass",
    );
  });
  it("says nothing twice, and nothing that is empty", () => {
    expect(pageTitle(" Claims\n and  evidence ", "Claims and evidence")).toBe(
      "Claims and evidence · Zesty Glass",
    );
    expect(pageTitle("", "")).toBe("Zesty Glass");
  });
});
