import { describe, expect, it } from "vitest";
import { toSi } from "@/core/basics/units";
import {
  bite,
  droopOf,
  fastestTurning,
  liftLeft,
  slipOf,
  spindlePattern,
  spindleSpeed,
  TEARS_BELOW,
  TIP_SPEED_LIMIT,
  tipSpeed,
  WORKING_RANGE,
} from "./tip-speed";

const perSecond = (rpm: number) => (rpm * 2 * Math.PI) / 60;
const rpm = (radiansPerSecond: number) => (radiansPerSecond * 60) / (2 * Math.PI);
const feetPerMinute = (metresPerSecond: number) => metresPerSecond / 0.00508;

// @against tip-speed: tip speed and its limit of 19,000 ft/min; physics: π·d·n; the limit published, from memory; 1 ft/min
describe("tip speed (the limit published, from memory)", () => {
  it.each([
    [20.5, 3400, 18_247],
    [18, 3600, 16_965],
  ])("%d in at %d r/min: %d ft/min", (inches, turns, expected) => {
    expect(feetPerMinute(tipSpeed({ lengthMetres: toSi(inches, "in"), radiansPerSecond: perSecond(turns) }))).toBeCloseTo(expected, -0.3);
  });

  it("the limit is 19,000 ft/min, 96.5 m/s: a 21 in blade may turn 3,455 r/min, rounded down", () => {
    expect(feetPerMinute(TIP_SPEED_LIMIT)).toBeCloseTo(19_000, 6);
    expect(Math.floor(rpm(fastestTurning(toSi(21, "in"))))).toBe(3455);
    expect(tipSpeed({ lengthMetres: 0.5334, radiansPerSecond: fastestTurning(0.5334) })).toBeCloseTo(TIP_SPEED_LIMIT, 12);
  });

  it("works between 16,000 and 18,500 ft/min, and tears under 14,000", () => {
    expect([WORKING_RANGE.from, WORKING_RANGE.to, TEARS_BELOW].map((speed) => Math.round(feetPerMinute(speed)))).toEqual([
      16_000, 18_500, 14_000,
    ]);
  });
});

describe("from engine to edge", () => {
  it("a spindle turns by the ratio of pitch diameters and teeth, less the slip, and the slip is found again", () => {
    const ideal = spindleSpeed({ engine: 3000, drivePitchMetres: 0.15, drivenPitchMetres: 0.125 });
    expect(ideal).toBeCloseTo(3600, 9);
    const slipping = spindleSpeed({ engine: 3000, drivePitchMetres: 0.15, drivenPitchMetres: 0.125, slip: 0.04 });
    expect(slipOf({ measured: slipping, ideal })).toBeCloseTo(0.04, 12);
    expect(spindleSpeed({ engine: 3000, drivePitchMetres: 0.1, drivenPitchMetres: 0.1, toothRatio: 1.5 })).toBeCloseTo(4500, 9);
  });

  // @against tip-speed: lift left at a lower speed; fan laws (published); 0.5 %
  it("from 3,400 down to 2,900 leaves 73 % of the pressure under the sail (published: fan laws)", () => {
    const { flow, pressure, power } = liftLeft({ now: 2900, rated: 3400 });
    expect(pressure).toBeCloseTo(0.73, 2);
    expect([flow, power]).toEqual([2900 / 3400, (2900 / 3400) ** 3]);
    expect(droopOf({ noLoad: 3400, loaded: 2900 })).toBeCloseTo(0.147, 3);
  });

  // @against ground-speed: bite of an edge; physics: v/(edges · n); 0.005 in
  it("6 mph, 3,000 r/min, two edges: a bite of 1.06 in (physics)", () => {
    expect(bite({ groundMetresPerSecond: toSi(6, "mph"), edges: 2, radiansPerSecond: perSecond(3000) }) / 0.0254).toBeCloseTo(1.06, 2);
  });

  it("names the pattern over the spindles of a deck", () => {
    expect(spindlePattern([3400, 3380, 3395], 3400)).toBe("alike");
    expect(spindlePattern([3400, 0, 3395], 3400)).toBe("one-stopped");
    expect(spindlePattern([3400, 3200, 3395], 3400)).toBe("one-low");
    expect(spindlePattern([3100, 3080, 3095], 3400)).toBe("all-low");
    expect(spindlePattern([3100, 3080, 3095])).toBe("alike");
    expect(spindlePattern([3400, 3200, 3100], 3400)).toBe("mixed");
    expect(spindlePattern([0, 0, 3400], 3400)).toBe("several-stopped");
    expect(spindlePattern([0, 0, 0], 3400)).toBe("several-stopped");
    expect(spindlePattern([3000], 3400)).toBe("all-low");
  });
});
