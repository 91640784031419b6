import { describe, expect, it } from "vitest";
import type { TimedPair } from "./timing";
import { PROFILE_DEGREES, studyPair } from "./timing-study";

/** Worked example "geared blades" (docs/worked-examples.md), in inches: L = 21, w = 2.5, C = 17, same sense. */
const blade = { lengthMetres: 21, widthMetres: 2.5 };
const pair: TimedPair = { one: blade, other: blade, centresMetres: 17, sense: "same" };
const base = { id: "left:right", pair, phaseDegrees: 90, lashDegrees: 0, teeth: 24, wantedMetres: 0 };

describe("a pair studied over a full turn", () => {
  const study = studyPair(base);

  it("finds the worked 0.383 at 90°, and no lower point anywhere on its drawn turn", () => {
    expect(study.closest.gapMetres).toBeCloseTo(0.383, 3);
    expect(Math.min(...study.profileMetres)).toBeGreaterThanOrEqual(study.closest.gapMetres - 1e-9);
    expect(study.profileMetres).toHaveLength(360 / PROFILE_DEGREES + 1);
    // The low point is sharp: within half a step of the crank a tip has moved by up to L/2 · 1° = 0.18 in.
    const drawn = study.profileMetres[Math.round(study.closest.atDegrees / PROFILE_DEGREES)] ?? 9;
    expect(drawn - study.closest.gapMetres).toBeLessThan(0.19);
  });

  it("repeats after half a turn: a blade looks the same both ways round", () => {
    const half = 180 / PROFILE_DEGREES;
    study.profileMetres.slice(0, half).forEach((gap, k) => {
      expect(study.profileMetres[k + half]).toBeCloseTo(gap, 9);
    });
  });

  it("strikes one tooth of 24 (15°) out either way, and says at which phases", () => {
    expect(study.oneTooth?.degrees).toBeCloseTo(15, 9);
    expect(study.oneTooth?.gaps.map(({ phaseDegrees }) => Math.round(phaseDegrees))).toEqual([75, 105]);
    expect(study.oneTooth?.gaps.every(({ gapMetres }) => gapMetres < 0)).toBe(true);
    expect(studyPair({ ...base, teeth: undefined }).oneTooth).toBeUndefined();
  });

  it("counts the gears' play: 6° of it is 87° at the worst, 0.046 (worked example)", () => {
    expect(studyPair({ ...base, lashDegrees: 6 }).worstWithinLashMetres).toBeCloseTo(0.046, 3);
  });

  it("of unequal blades keeps to the range it names: just inside it is clear, just outside it is not", () => {
    const unequal: TimedPair = { ...pair, other: { lengthMetres: 18, widthMetres: 3 } };
    const { clearDegrees } = studyPair({ ...base, pair: unequal });
    expect(clearDegrees.length).toBeGreaterThan(0);
    for (const [from, to] of clearDegrees)
      for (const [edge, inward] of [[from, 1] as const, [to, -1] as const]) {
        expect(studyPair({ ...base, pair: unequal, phaseDegrees: edge + 0.1 * inward }).closest.gapMetres).toBeGreaterThan(0);
        expect(studyPair({ ...base, pair: unequal, phaseDegrees: edge - 0.1 * inward }).closest.gapMetres).toBeLessThan(0);
      }
  });

  /** Two bars square to each other at right angles to the line of centres, by hand: C − L/2 − w/2. */
  it("of perpendicular bars is C − L/2 − w/2 with one along the line of centres", () => {
    expect(study.profileMetres[0]).toBeCloseTo(17 - 10.5 - 1.25, 9);
  });
});
