/** Days in words, and what falls due put together. */
import { describe, expect, it } from "vitest";

import { dayOf, daysBetween, fromToday, iso } from "./dates";
import type { DueLine } from "./hooks";
import { byDay, byHome, choices, inDrivingOrder, narrowed, toLoad } from "./lists";

const line = (more: Partial<DueLine>): DueLine => ({
  job: "j",
  key: "k",
  customer: "A",
  home: "H",
  place: "P",
  stage: "S",
  label: "Carbon",
  kind: "filter",
  own: true,
  minutes: 15,
  due_on: "2026-03-01",
  state: "due",
  person: "Orrin",
  ...more,
});

describe("days", () => {
  it("counts whole days over a change of clocks", () => {
    expect(daysBetween("2026-03-07", "2026-03-09")).toBe(2);
    expect(daysBetween("2026-10-31", "2026-11-02")).toBe(2);
    expect(daysBetween("2026-03-09", "2026-03-07")).toBe(-2);
  });
  it("keeps a day as it is written", () => {
    expect(iso(dayOf("2026-01-31"))).toBe("2026-01-31");
  });
  it("says one and many", () => {
    expect(fromToday("2026-03-01", "2026-03-01")).toBe("today");
    expect(fromToday("2026-03-02", "2026-03-01")).toBe("in 1 day");
    expect(fromToday("2026-04-30", "2026-03-01")).toBe("in 60 days");
    expect(fromToday("2026-02-28", "2026-03-01")).toBe("1 day over");
    expect(fromToday("2026-02-27", "2026-03-01")).toBe("2 days over");
  });
});

describe("what falls due", () => {
  it("stands by home in the order of the first", () => {
    const homes = byHome([line({ job: "b" }), line({ job: "a" }), line({ job: "b", key: "x" })]);
    expect(homes.map((h) => [h.job, h.lines.length])).toEqual([
      ["b", 2],
      ["a", 1],
    ]);
  });
  it("is one line for one day and one person", () => {
    const lines = [line({}), line({ key: "x", label: "Sediment" }), line({ own: false })];
    expect(byDay(lines).map((x) => x.label)).toEqual(["Carbon, Sediment", "Carbon"]);
  });
  it("is narrowed by area, part and person together", () => {
    const all = { area: "", part: "", person: "" };
    const lines = [line({}), line({ key: "x", place: "Q" }), line({ key: "y", person: "Tamsin" })];
    expect(narrowed(lines, all)).toHaveLength(3);
    expect(narrowed(lines, { ...all, area: "P" }).map((x) => x.key)).toEqual(["k", "y"]);
    expect(narrowed(lines, { ...all, area: "P", person: "Tamsin" })).toHaveLength(1);
    expect(narrowed(lines, { ...all, part: "Lamp" })).toEqual([]);
  });
  it("is driven through in the firm's order, the others behind as they come", () => {
    expect(inDrivingOrder(["Z", "A", "M", "B"], ["M", "Z"])).toEqual(["M", "Z", "A", "B"]);
    expect(inDrivingOrder(["Z", "A"], [])).toEqual(["Z", "A"]);
  });

  it("offers each area, part and person once", () => {
    const lines = [line({ person: "Tamsin" }), line({ key: "x" }), line({ key: "y", person: "" })];
    expect(choices(lines, "person")).toEqual(["Orrin", "Tamsin"]);
    expect(choices(lines, "label")).toEqual(["Carbon"]);
  });
  it("is loaded part by part, and work is not", () => {
    const lines = [line({}), line({ key: "x" }), line({ label: "Cleaning", kind: "service" })];
    expect(toLoad(lines)).toEqual([{ label: "Carbon", kind: "filter", n: 2 }]);
  });
});
