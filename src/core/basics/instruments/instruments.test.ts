import { describe, expect, it } from "vitest";
import { assessed, machineOf } from "@/core/checks/sheets.fixtures";
import { stubbleOf } from "@/core/physics/turf/stubble";
import { INSTRUMENTS, instrument, scaleUncertainty } from "./index";

describe("instruments", () => {
  it("each reads no finer than its own scale: one reading strays by the scale's share at least (physics)", () => {
    for (const { id, resolution, uncertainty } of INSTRUMENTS)
      expect([id, uncertainty >= scaleUncertainty(resolution) * 0.999]).toEqual([id, true]);
    expect(new Set(INSTRUMENTS.map(({ id }) => id)).size).toBe(INSTRUMENTS.length);
  });

  it("a scale's share is its step over the root of twelve: variance of a uniform reading (physics)", () => {
    // The mean of x² over −½..½ is 1/12.
    const steps = 100_000;
    const mean = Array.from({ length: steps }, (_, k) => ((k + 0.5) / steps - 0.5) ** 2).reduce((sum, one) => sum + one, 0) / steps;
    expect(scaleUncertainty(1)).toBeCloseTo(Math.sqrt(mean), 6);
  });

  it("two equal readings are not sure to nought: the ruler's own step is left", () => {
    const step = instrument("stubble-ruler").resolution;
    const stubble = stubbleOf([0.06, 0.06], step);
    expect(stubble?.spreadMetres).toBeCloseTo(scaleUncertainty(step), 12);
    expect(stubble?.plusMinusMetres).toBeGreaterThan(0.002);
    expect(stubbleOf([0.05, 0.07], step)?.spreadMetres).toBeCloseTo(Math.hypot(0.01 * Math.SQRT2, 0), 12);
  });

  it("a height of two equal pricks is no certain verdict at the limit", () => {
    const readings = { settingMetres: 0.06, heightsMetres: [0.063, 0.063] };
    const { figures, evidence } = assessed("cutting-height", machineOf("ZT-1"), readings);
    const offset = figures.find(({ id }) => id === "over-the-setting");
    expect(offset?.standardError).toBeGreaterThan(0);
    expect(offset?.verdict).toBe("watch");
    for (const one of evidence) if ("likelihoodRatio" in one) expect(Number.isFinite(one.likelihoodRatio)).toBe(true);
  });
});
