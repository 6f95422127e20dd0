/** The glass on the page has the colours of the glass on paper. */
import { describe, expect, it } from "vitest";

import golden from "../../../tests/documents/glass_golden.json";
import { EMPTY, halton, inWords, look, tint, veil } from "./look";

describe("colour", () => {
  it.each(golden)("of tannin $tannin and rust $rust is that of the paper", (c) => {
    expect(tint({ tannin: c.tannin, ferric: c.rust })).toEqual(c.rgb);
  });
});

describe("what is drawn", () => {
  const q = (best: number): never => ({ range: { best, low: best, high: best } }) as never;
  it("says that nothing was tested, and draws nothing", () => {
    expect(inWords(EMPTY)).toEqual(["nothing tested yet"]);
    expect([EMPTY.tannin, EMPTY.ferric, EMPTY.hard, EMPTY.unseen]).toEqual([0, 0, null, 1]);
  });
  it("colors rusted iron wholly, dissolved iron not, and hardly where nobody looked", () => {
    const values = { iron: q(3) };
    expect(look(values, { ferric: true }).ferric).toBe(3);
    expect(look(values, { ferric: false }).ferric).toBe(0);
    expect(look(values).ferric).toBeCloseTo(0.3);
  });
  it("has no ring for a water that dissolves scale", () => {
    expect(look({}, { scale: -0.4 }).ring).toBe(0);
  });
  it("veils more the hazier it is, and never wholly", () => {
    expect(veil(0)).toBe(0);
    expect(veil(4)).toBeGreaterThan(veil(1));
    expect(veil(1000)).toBeLessThanOrEqual(1);
  });
  it("scatters points inside the unit and the same each time", () => {
    expect(halton(1, 2)).toBe(0.5);
    expect(halton(3, 2)).toBe(0.75);
    expect(halton(4, 3)).toBeCloseTo(4 / 9);
  });
});
