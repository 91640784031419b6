import { describe, expect, it } from "vitest";
import { overdueContexts } from "./overdue";

const on = (day: number) => new Date(Date.UTC(2026, 4, day)).toISOString();
const sharpened = { event: "blade-refitted", seq: 1, at: on(10), who: "AK" } as const;
const meter = (...readings: [number, number][]) => readings.map(([day, meterHours]) => ({ at: on(day), meterHours }));
const overdue = (readings: ReturnType<typeof meter>, cutsWith: "rotary" | "reel" = "rotary") =>
  overdueContexts({ cutsWith, events: [sharpened], meter: readings }).map(({ context, hours }) => [context, hours]);

/** Common practice: 8 to 25 h of commercial mowing an edge (estimate). */
describe("an edge by the hour meter", () => {
  it("is overdue past 25 hours since the last sharpening, the meter taken straight between its readings", () => {
    expect(overdue(meter([5, 100], [15, 110], [20, 131]))).toEqual([["edge-overdue", 26]]);
    expect(overdue(meter([5, 100], [15, 110], [20, 130]))).toEqual([]);
  });

  it("says nothing where the meter was not read before the sharpening, where none is logged, or of reels", () => {
    expect(overdue(meter([15, 110], [20, 190]))).toEqual([]);
    expect(overdue(meter([5, 100], [20, 190]), "reel")).toEqual([]);
    expect(overdueContexts({ cutsWith: "rotary", events: [], meter: meter([5, 100], [20, 190]) })).toEqual([]);
  });
});
