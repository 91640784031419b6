import { describe, expect, it } from "vitest";
import { INCH_METRES, POUND_FORCE_NEWTONS, PSI_PASCALS, toSi } from "@/core/basics/units";
import { settleFrame, type TyreSupport } from "./frame";
import { sagMetres, tyreStiffness } from "./stiffness";
import { pressureAtTemperature } from "./temperature";
import { predictTipChange } from "./tip-change";

const inch = (value: number) => value * INCH_METRES;
const POUNDS_PER_INCH = POUND_FORCE_NEWTONS / INCH_METRES;

/** The worked figures use 90 lbf/in for the carcass where 16 N/mm are 91.4. */
const CARCASS_ROUNDING_POUNDS_PER_INCH = 2.5;

// @against tyre-pressure: pressure at another temperature; physics: pressure goes as absolute temperature; 0.05 psi
// @against tyre-pressure: stiffness and sag of a tyre; worked example “tyre” (estimate); 2.5 lbf/in, 1 %
describe("the worked tyre (docs/worked-examples.md)", () => {
  it("12.0 psi at 60 °F reads 13.8 psi at 95 °F (physics)", () => {
    const warm = pressureAtTemperature({ pressurePascals: 12 * PSI_PASCALS, fromKelvin: toSi(60, "f"), toKelvin: toSi(95, "f") });
    expect(warm / PSI_PASCALS).toBeCloseTo(13.8, 1);
  });

  it.each([
    [12, 566, 0.71],
    [8, 407, 0.98],
    [6, 328, 1.22],
  ])("a 24 × 10.5 tyre at %d psi: %d lbf/in, sags %d in under 400 lbf (estimate)", (psi, stiffness, sag) => {
    const k = tyreStiffness({ pressurePascals: psi * PSI_PASCALS, treadWidthMetres: inch(10.5), diameterMetres: inch(24) });
    expect(Math.abs(k / POUNDS_PER_INCH - stiffness)).toBeLessThan(CARCASS_ROUNDING_POUNDS_PER_INCH);
    const given = sagMetres({ loadNewtons: 400 * POUND_FORCE_NEWTONS, stiffness: k, sectionHeightMetres: inch(5) });
    expect(Math.abs(given / INCH_METRES - sag)).toBeLessThan(sag * 0.01);
  });

  const support = (x: number, y: number, k: number, pivotGroup?: string): TyreSupport => ({
    x: inch(x),
    y: inch(y),
    stiffness: k * POUNDS_PER_INCH,
    ...(pivotGroup ? { pivotGroup } : {}),
  });
  const frame = (leftRear: number, isPivoted: boolean) => ({
    weightNewtons: 1200 * POUND_FORCE_NEWTONS,
    centre: { x: 0, y: inch(16.67) },
    supports: [support(-20, 0, leftRear), support(20, 0, 566), support(-16, 50, 520, "front"), support(16, 50, 520, "front")],
    ...(isPivoted ? { pivots: { front: { x: 0, y: inch(50) } } } : {}),
  });
  const tips = [
    { x: inch(-24.7), y: inch(25) },
    { x: inch(24.7), y: inch(25) },
  ];

  it.each([
    [false, -0.164, 0.036],
    [true, -0.239, 0.101],
  ])("left rear from 12 to 8 psi, front axle pivoted %s: left tip %d in, right tip %d in (physics)", (isPivoted, left, right) => {
    const moved = predictTipChange({ now: frame(407, isPivoted), reference: frame(566, isPivoted), tips });
    expect((moved?.[0]?.change ?? 0) / INCH_METRES).toBeCloseTo(left, 3);
    expect((moved?.[1]?.change ?? 0) / INCH_METRES).toBeCloseTo(right, 3);
  });

  it("gives the movement as a range of half to double", () => {
    const [left] = predictTipChange({ now: frame(407, false), reference: frame(566, false), tips }) ?? [];
    expect(left?.least).toBeCloseTo((left?.change ?? 0) * 2, 12);
    expect(left?.most).toBeCloseTo((left?.change ?? 0) / 2, 12);
  });

  it("a frame on one axle settles on nothing and says so", () => {
    expect(settleFrame({ weightNewtons: 1, centre: { x: 0, y: 0 }, supports: [support(-1, 0, 1), support(1, 0, 1)] })).toBeUndefined();
  });

  it("carries the whole weight whatever the pressures (property: Σ K·drop = W)", () => {
    for (const k of [100, 407, 566, 900]) {
      const { supports, ...rest } = frame(k, false);
      const settled = settleFrame({ ...rest, supports });
      const carried = supports.reduce(
        (sum, s) => sum + s.stiffness * ((settled?.height ?? 0) + (settled?.slopeRight ?? 0) * s.x + (settled?.slopeForward ?? 0) * s.y),
        0,
      );
      expect(carried / rest.weightNewtons).toBeCloseTo(1, 9);
    }
  });
});
