import { describe, expect, it } from "vitest";

import { PROCEDURES } from "../../app/facts.generated";
import { typed } from "./Keypad";
import { clock, exactNow } from "./timers";

describe("a countdown", () => {
  it("counts minutes and seconds, hours only where there are any", () => {
    expect(clock(0)).toBe("0:00");
    expect(clock(59_400)).toBe("1:00");
    expect(clock(1_200_000)).toBe("20:00");
    expect(clock(3_600_000)).toBe("1:00:00");
    expect(clock(3_725_000)).toBe("1:02:05");
  });
  it("never runs below nothing", () => {
    expect(clock(-5000)).toBe("0:00");
  });
});

describe("the time with its offset", () => {
  it("is the same moment again", () => {
    const at = new Date("2026-03-02T14:30:15Z");
    expect(new Date(exactNow(at)).getTime()).toBe(at.getTime());
    expect(exactNow(at)).toMatch(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d[+-]\d\d:\d\d$/);
  });
});

describe("digits for wet hands", () => {
  it("takes one point, and no leading nought", () => {
    expect(typed("0", "5", true)).toBe("5");
    expect(typed("0", ".", true)).toBe("0.");
    expect(typed("1.2", ".", true)).toBe("1.2");
    expect(typed("12", ".", false)).toBe("12");
  });
  it("stops at six and takes one back", () => {
    expect(typed("123456", "7", true)).toBe("123456");
    expect(typed("123", "back", true)).toBe("12");
    expect(typed("", "back", true)).toBe("");
  });
});

describe("procedures", () => {
  it("come from the core, one of a kind and analyte", () => {
    const keys = PROCEDURES.map((p) => `${p.kind}/${p.analyte}`);
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys).toContain("strip/");
    expect(PROCEDURES.every((p) => p.steps.length > 0)).toBe(true);
  });
});
