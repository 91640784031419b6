import { describe, expect, it } from "vitest";
import { clearRanges, closestApproach, gapAt, sameSenseGap, searchedRanges, type TimedPair, toothAngle } from "./timing";

const rad = (degrees: number) => (degrees * Math.PI) / 180;
const deg = (radians: number) => (radians * 180) / Math.PI;
/** Worked example "geared blades" (docs/worked-examples.md; physics), in inches: L = 21, w = 2.5, C = 17. */
const blade = { lengthMetres: 21, widthMetres: 2.5 };
const pair = (sense: TimedPair["sense"]): TimedPair => ({ one: blade, other: blade, centresMetres: 17, sense });

// @against blade-timing: smallest distance over a turn; closed form, and moving the rectangles; 0.0005 in
describe("two geared blades that turn the same way", () => {
  it.each([
    [90, 0.383],
    [87, 0.046],
  ])("at %d° come within %d of each other (worked example), by closed form and by moving the rectangles", (phase, gap) => {
    expect(sameSenseGap({ blade, centresMetres: 17, phase: rad(phase) })).toBeCloseTo(gap, 3);
    expect(closestApproach(pair("same"), rad(phase)).gapMetres).toBeCloseTo(gap, 3);
  });

  it("agree in both ways over every phase that is clear, and strike at the same ones", () => {
    for (let phase = 0; phase <= 180; phase += 3) {
      const closed = sameSenseGap({ blade, centresMetres: 17, phase: rad(phase) });
      const moved = closestApproach(pair("same"), rad(phase)).gapMetres;
      if (closed > 0.001) expect(moved).toBeCloseTo(closed, 3);
      else expect(moved).toBeLessThan(0.001);
    }
  });

  it("are clear from 86.6 to 93.4° only, and keep a quarter inch from 88.8 to 91.2° (worked example)", () => {
    for (const search of [clearRanges, searchedRanges]) {
      const [found, ...others] = search(pair("same"), 0);
      expect([others, deg(found?.fromPhase ?? 0)]).toEqual([[], expect.closeTo(86.6, 1)]);
      expect(search({ ...pair("same"), centresMetres: 14 }, 0)).toEqual([]);
    }
    const [clear] = clearRanges(pair("same"), 0);
    expect([deg(clear?.fromPhase ?? 0), deg(clear?.toPhase ?? 0)]).toEqual([expect.closeTo(86.6, 1), expect.closeTo(93.4, 1)]);
    const [kept] = clearRanges(pair("same"), 0.25);
    expect([deg(kept?.fromPhase ?? 0), deg(kept?.toPhase ?? 0)]).toEqual([expect.closeTo(88.8, 1), expect.closeTo(91.2, 1)]);
  });

  it("strike when one tooth of a 24-tooth spline is missed", () => {
    expect(deg(toothAngle(24))).toBeCloseTo(15, 12);
    expect(closestApproach(pair("same"), rad(90) + toothAngle(24)).gapMetres).toBeLessThan(0);
  });
});

describe("two that turn opposite to each other", () => {
  it("are clear from 23.6 to 156.4°, 5.13 apart at 90° (worked example)", () => {
    expect(closestApproach(pair("opposite"), rad(90)).gapMetres).toBeCloseTo(5.13, 2);
    const [clear] = clearRanges(pair("opposite"), 0);
    expect([deg(clear?.fromPhase ?? 0), deg(clear?.toPhase ?? 0)]).toEqual([expect.closeTo(23.6, 1), expect.closeTo(156.4, 1)]);
  });
});

describe("any two", () => {
  it("square to each other at their closest are half a length and half a width off the middle (by hand)", () => {
    // One along the line of centres, the other across it: C − L/2 − w/2.
    expect(gapAt(pair("same"), rad(90), 0)).toBeCloseTo(17 - 10.5 - 1.25, 9);
    expect(gapAt(pair("same"), rad(90), rad(90))).toBeCloseTo(17 - 10.5 - 1.25, 9);
  });

  it("look the same after half a turn, and fitted the other way round", () => {
    const unequal: TimedPair = {
      one: { lengthMetres: 21, widthMetres: 2.5 },
      other: { lengthMetres: 19, widthMetres: 3 },
      centresMetres: 17,
      sense: "same",
    };
    for (const angle of [0.1, 0.7, 1.4]) {
      expect(gapAt(unequal, 1.5, angle + Math.PI)).toBeCloseTo(gapAt(unequal, 1.5, angle), 9);
      expect(gapAt(unequal, 1.5 + Math.PI, angle)).toBeCloseTo(gapAt(unequal, 1.5, angle), 9);
    }
  });

  it("come no nearer than a fine search finds, whatever their sizes (steps of 0.02°)", () => {
    for (const [length, width, phase, sense] of [
      [20, 3, 88, "same"],
      [18.5, 2, 70, "opposite"],
      [19, 2.5, 95, "same"],
    ] as const) {
      const one: TimedPair = { one: blade, other: { lengthMetres: length, widthMetres: width }, centresMetres: 17, sense };
      let fine = Number.POSITIVE_INFINITY;
      for (let angle = 0; angle < 180; angle += 0.02) fine = Math.min(fine, gapAt(one, rad(phase), rad(angle)));
      expect(closestApproach(one, rad(phase)).gapMetres).toBeCloseTo(fine, 4);
    }
  });
});
