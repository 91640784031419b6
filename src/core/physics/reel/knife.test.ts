import { describe, expect, it } from "vitest";
import { INCH_METRES } from "@/core/basics/units";
import { planReel } from "./grinding";
import { type Ground, knifeLife, type ReelTally, reelStanding, takenOff } from "./knife";

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
  it("what is booked is the tally, not the plan (by hand)", () => {
    expect(takenOff(ground(7, 3).top)).toBeCloseTo(inch(0.014), 12);
    expect(knifeLife(knife, [ground(7, 3)]).topMetres).toBeCloseTo(inch(0.126), 12);
    expect(knifeLife(knife, [ground(7, 3)]).frontMetres).toBeCloseTo(inch(0.314), 12);
  });

  it("by hand: 0.050 in of top at 0.010 a grind leaves four after the first, which took the top", () => {
    const life = knifeLife(knife, [ground(5, 5)]);
    expect(life.left).toEqual({ grinds: 4, by: "top", hours: 120 * 5, orderInHours: 120 * 3 });
    expect(life.isToOrder).toBe(false);
    // 50 h cut with this edge are gone from both; past its hours it is due, and the grinds to come are as long as ever.
    expect(knifeLife(knife, [ground(5, 5)], 50).left).toMatchObject({ hours: 550, orderInHours: 310 });
    expect(knifeLife(knife, [ground(5, 5)], 900).left).toMatchObject({ hours: 480, orderInHours: 240 });
  });

  it("metal taken off the front spares the top (by hand)", () => {
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
    expect(knifeLife({ thicknessMetres: inch(0.1) }, []).left).toBeUndefined();
  });
});

describe("a reel on the grinder", () => {
  const plan = (more: object = {}) => planReel({ taperMetres: 0, nickMetres: 0, blades: 11, isRelieved: false, ...more });
  const spun = (inFeeds: number): ReelTally => ({
    plannedMetres: 0,
    inFeeds,
    inFeedMetres: 0.00005,
    passes: inFeeds + 2,
    isRelieved: false,
  });
  const reel = { newDiameterMetres: 0.127, scrapDiameterMetres: 0.115, blades: 11 };

  it("by hand: half the taper, the nick and 0.05 mm off the radius, a traverse an in-feed, two to spark out", () => {
    expect(plan({ taperMetres: 0.0004 })).toMatchObject({ stockMetres: 0.00025, inFeeds: 5, passes: 7, reliefPasses: 0 });
    expect(plan({ taperMetres: 0.0004, nickMetres: 0.0001 })).toMatchObject({ inFeeds: 7, passes: 9 });
    expect(plan({ taperMetres: 0.0004, isRelieved: true })).toMatchObject({ reliefPasses: 22, minutes: (7 + 22) * 0.75 });
    expect(plan({ isRelieved: true })).toMatchObject({ stockMetres: 0, passes: 0, reliefPasses: 0, minutes: 0 });
  });

  it("says what diameter it leaves, and when that is scrap: the thin end of a cone loses only what is past it", () => {
    const left = plan({ taperMetres: 0.0004, nowMetres: 0.1152, scrapMetres: 0.115 });
    expect([left.afterMetres, left.isUnderScrap]).toEqual([expect.closeTo(0.1151, 9), false]);
    expect(plan({ nickMetres: 0.0001, nowMetres: 0.1152, scrapMetres: 0.115 })).toMatchObject({
      afterMetres: expect.closeTo(0.1149, 9),
      isUnderScrap: true,
    });
  });

  it("a cone spun until it is round ends at its thick end less twice the in-feed (physics)", () => {
    const measured = { smallestMetres: 0.122, largestMetres: 0.1224 };
    const spunTo = (inFeeds: number) => reelStanding({ reel, measured, tallies: [spun(inFeeds)], since: [spun(inFeeds)] })?.nowMetres;
    // 0.4 mm of taper is 0.2 mm of radius: four in-feeds only reach the thin end.
    expect([spunTo(0), spunTo(4), spunTo(5)]).toEqual([0.122, expect.closeTo(0.122, 9), expect.closeTo(0.1219, 9)]);
  });

  it("stands by its last measure; by the sheet's new size and every tally where there is none", () => {
    const tallies = [spun(5), spun(5)];
    expect(reelStanding({ reel, tallies, since: tallies })).toMatchObject({
      from: "sheet",
      nowMetres: expect.closeTo(0.126, 9),
      grindsMade: 2,
    });
    const measured = { smallestMetres: 0.12, largestMetres: 0.12 };
    const standing = reelStanding({ reel, measured, tallies, since: [] });
    expect(standing).toMatchObject({ from: "measured", nowMetres: 0.12 });
    // Half a millimetre a grind, as counted here: 5 mm are left.
    expect(standing?.grinds).toBe(10);
    expect(standing?.share).toBeCloseTo(5 / 12, 9);
    expect(reelStanding({ reel: undefined, tallies, since: [] })).toBeUndefined();
  });
});
