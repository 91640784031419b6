import { describe, expect, it } from "vitest";
import { INCH_METRES } from "@/core/units";
import { type Ground, knifeLife, takenOff } from "./knife";

const inch = (value: number) => value * INCH_METRES;
const knife = {
  type: "Thin",
  thicknessMetres: inch(0.14),
  leastThicknessMetres: inch(0.09),
  depthMetres: inch(0.32),
  leastDepthMetres: inch(0.2),
  hoursBetweenGrinds: 120,
};
const ground = (top: number, front: number): Ground => ({
  isClamped: true,
  top: { plannedMetres: inch(0.01), inFeeds: top, inFeedMetres: inch(0.002), passes: top * 2 },
  front: { plannedMetres: inch(0.01), inFeeds: front, inFeedMetres: inch(0.002), passes: front },
});

describe("a bedknife's life", () => {
  it("what is booked is the tally, not the plan (trade handbook 3)", () => {
    expect(takenOff(ground(7, 3).top)).toBeCloseTo(inch(0.014), 12);
    expect(knifeLife(knife, [ground(7, 3)]).topMetres).toBeCloseTo(inch(0.126), 12);
    expect(knifeLife(knife, [ground(7, 3)]).frontMetres).toBeCloseTo(inch(0.314), 12);
  });

  it("by hand: 0.050 in of top at 0.010 a grind leaves four after the first, which took the top", () => {
    const life = knifeLife(knife, [ground(5, 5)]);
    expect(life.left).toEqual({ grinds: 4, by: "top", hours: 120 * 5 });
    expect(life.isToOrder).toBe(false);
  });

  it("metal taken off the front spares the top (trade handbook 3)", () => {
    const byFront = knifeLife(knife, [ground(1, 9)]);
    const byTop = knifeLife(knife, [ground(9, 1)]);
    expect(byFront.left?.grinds).toBeGreaterThan(byTop.left?.grinds ?? 0);
  });

  it("a knife at its least has none left and is ordered; one with a grind left is ordered too", () => {
    expect(
      knifeLife(
        knife,
        Array.from({ length: 5 }, () => ground(5, 5)),
      ).left?.grinds,
    ).toBe(0);
    expect(
      knifeLife(
        knife,
        Array.from({ length: 4 }, () => ground(5, 5)),
      ),
    ).toMatchObject({ left: { grinds: 1 }, isToOrder: true });
    expect(
      knifeLife(
        knife,
        Array.from({ length: 9 }, () => ground(5, 5)),
      ).left?.grinds,
    ).toBe(0);
  });

  it("nothing on the sheet, nothing reckoned; a sheet without leasts limits nothing", () => {
    expect(knifeLife(undefined, [ground(5, 5)])).toEqual({
      taken: { top: expect.closeTo(inch(0.01), 12), front: expect.closeTo(inch(0.01), 12) },
      grindsMade: 1,
      isToOrder: false,
    });
    expect(knifeLife({ type: "Thin", thicknessMetres: inch(0.1) }, []).left).toBeUndefined();
  });
});
