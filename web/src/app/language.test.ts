/** What the page says, in either language. */
import { afterEach, describe, expect, it } from "vitest";

import i18next from "i18next";

import { message, spoken, say, speak } from "./language";
import { num } from "./show";
import { dayLong } from "./when";

afterEach(() => speak("en"));

describe("a message", () => {
  it("is spoken as it is written, with its values", () => {
    expect(say("Ask {firm}", { firm: "Larkspout" })).toBe("Ask Larkspout");
    expect(say("{n} of {n}, {other}", { n: 2 })).toBe("2 of 2, {other}");
  });
  it("is spoken in the customer's language, and names as they are", async () => {
    await speak("es");
    expect(say("Ask {firm}", { firm: "Lark: {n} & Son." })).toBe("Pregunte a Lark: {n} & Son.");
    expect(say(message("Offered to you"))).toBe("Propuesta para usted");
    expect(dayLong("2026-11-26T12:00:00Z")).toBe("26 de noviembre de 2026");
  });
  it("stays as it is where the language lacks it", async () => {
    await speak("es");
    expect(say("Nothing says {x} like this: no.", { x: 1 })).toBe("Nothing says 1 like this: no.");
  });
  it("is English again afterward", async () => {
    await speak("es");
    await speak("en");
    expect(say("Decide")).toBe("Decide");
  });
});

describe("a number", () => {
  it("has the form that the language's own rules give it", async () => {
    await speak("es");
    // a file may hold forms: here for one and for all others, as Spanish counts them
    const forms = { "{n} wells_one": "{n} pozo", "{n} wells_other": "{n} pozos" };
    i18next.addResources("es", "translation", forms);
    expect([1, 2, 0].map((n) => say("{n} wells", { n }))).toEqual(["1 pozo", "2 pozos", "0 pozos"]);
    expect(say("{n} crystals", { n: 3 })).toBe("3 cristales");
    expect(num(1234.5, 1)).toBe("1,234.5");
  });
});

describe("what is kept", () => {
  const KEPT = spoken({
    decide: "Decide",
    list: [
      ["white_crust", "No longer valid"],
      ["clear", 3],
    ],
    of: (n: number) => `${n}`,
  } as const);
  it("is spoken as it is read, and codes stay", async () => {
    await speak("es");
    expect(KEPT.decide).toBe("Decidir");
    expect(KEPT.list.map(([code, words]) => [code, words])).toEqual([
      ["white_crust", "Ya no es válida"],
      ["clear", 3],
    ]);
    expect(KEPT.of(2)).toBe("2");
  });
  it("is the same thing each time", () => {
    expect(KEPT.list).toBe(KEPT.list);
    expect(KEPT.decide).toBe("Decide");
  });
});
