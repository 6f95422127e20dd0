import { describe, expect, it } from "vitest";

import { fits, found, type Entry } from "./finding";

const e = (name: string, sub = "", group = "Homes"): Entry => ({
  id: name,
  group,
  name,
  sub,
  to: "/",
});

describe("finding", () => {
  it("asks for every word, without accents and capitals", () => {
    expect(fits(e("Zoë Marl", "Upper Fennick"), "zoe fen")).toBe(0);
    expect(fits(e("Zoë Marl", "Upper Fennick"), "zoe hill")).toBe(-1);
  });
  it("puts what begins so before what holds it", () => {
    const names = found([e("Grimiron"), e("Old Iron House"), e("Iron filter")], "iron");
    expect(names.map((n) => n.name)).toEqual(["Iron filter", "Old Iron House", "Grimiron"]);
  });
  it("keeps groups in their order and to a few each", () => {
    const many = Array.from({ length: 9 }, (_, i) => e(`Home ${i}`));
    const got = found([e("Homes", "", "Views"), ...many], "home", 3);
    expect(got.map((g) => g.group)).toEqual(["Views", "Homes", "Homes", "Homes"]);
  });
});
