import { describe, expect, it } from "vitest";
import { gravest, judgeDeviation, logNormalCdf, measuredLikelihoodRatio } from "./index";

const ratio = (z: number, u = 0, sides: "one" | "two" = "two") =>
  measuredLikelihoodRatio({ deviation: z, tolerance: 1, standardUncertainty: u, sides });

// @against diagnosis: likelihood ratio of a figure; worked example “likelihood of a figure”; last printed figure
describe("likelihood ratio of a measured figure", () => {
  /** Worked example "likelihood of a figure" (docs/worked-examples.md), u = 0, two-sided (estimate). */
  it.each([
    [0.5, 0.052, 3],
    [0.75, 0.188, 3],
    [1, 0.72, 2],
    [1.06, 1, 1],
    [1.25, 3.06, 2],
    [1.5, 14.5, 1],
    [2, 528, 0],
  ])("z = %d gives %d", (z, expected, places) => {
    expect(ratio(z)).toBeCloseTo(expected, places);
  });

  it("is clamped to 1/50 at nought and to 1000 far out", () => {
    expect(ratio(0)).toBe(1 / 50);
    expect(ratio(40)).toBe(1000);
  });

  it("does not ask which way a two-sided figure is off, but a one-sided one does", () => {
    expect(ratio(-1.4)).toBeCloseTo(ratio(1.4), 12);
    expect(ratio(-1.4, 0, "one")).toBe(1 / 50);
    expect(ratio(1.4, 0, "one")).toBeGreaterThan(5);
  });

  it("says less, the less sure the reading is", () => {
    expect(ratio(2, 1)).toBeLessThan(ratio(2, 0.2));
    expect(ratio(0, 1)).toBeGreaterThan(ratio(0, 0));
  });
});

// @against diagnosis: normal distribution; Abramowitz and Stegun, table 26.1 (published, from memory); 1e-8
describe("normal distribution", () => {
  /** Abramowitz & Stegun, table 26.1 (published, from memory). */
  it.each([
    [0, 0.5],
    [1, 0.841344746],
    [-1, 0.158655254],
    [2, 0.977249868],
    [-3, 0.001349898],
    [3.5, 0.999767371],
  ])("Φ(%d) = %d", (x, expected) => {
    expect(Math.exp(logNormalCdf(x))).toBeCloseTo(expected, 8);
  });

  it("joins series and continued fraction without a step", () => {
    expect(logNormalCdf(-3 - 1e-9)).toBeCloseTo(logNormalCdf(-3 + 1e-9), 7);
  });
});

describe("verdicts", () => {
  it("watch is the interval that straddles the limit, or the last third where there is none", () => {
    expect(judgeDeviation({ deviation: 2.1, tolerance: 3, standardError: 0.8 })).toBe("in-tolerance");
    expect(judgeDeviation({ deviation: -2.6, tolerance: 3, standardError: 0.8 })).toBe("watch");
    expect(judgeDeviation({ deviation: 3.9, tolerance: 3, standardError: 0.8 })).toBe("out");
    expect(judgeDeviation({ deviation: 1.9, tolerance: 3 })).toBe("in-tolerance");
    expect(judgeDeviation({ deviation: 2.5, tolerance: 3 })).toBe("watch");
    expect(judgeDeviation({ deviation: -3.1, tolerance: 3 })).toBe("out");
  });

  it("the gravest wins, and none at all is not a good one", () => {
    expect(gravest(["in-tolerance", "out", "watch"])).toBe("out");
    expect(gravest(["out", "stop"])).toBe("stop");
    expect(gravest([])).toBe("not-enough-readings");
  });
});
