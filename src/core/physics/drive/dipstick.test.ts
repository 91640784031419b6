import { describe, expect, it } from "vitest";
import { type DipstickInput, dipstick } from "./dipstick";

const of = (input: DipstickInput) => {
  const found = dipstick(input);
  return found.ok ? found.dipstick : found.problem;
};

/** Worked example "dipstick" (docs/worked-examples.md): a rod marked at cover face to shaft top; the rest by hand. */
// @against gearbox-inspection: marks of a dipstick; worked example “dipstick”; exact
describe("a dipstick", () => {
  it("of 57 and 95 mm is 92 mm long, full 35 mm and low 29 mm up from its tip", () => {
    expect(of({ coverToShaftTopMetres: 0.057, coverToFloorMetres: 0.095 })).toEqual({
      rodMetres: expect.closeTo(0.092, 12),
      fullMetres: 0.057,
      lowMetres: expect.closeTo(0.063, 12),
      tipToFullMetres: expect.closeTo(0.035, 12),
      tipToLowMetres: expect.closeTo(0.029, 12),
    });
  });

  it("says how far the oil stands under the shaft's top, or over it", () => {
    expect(of({ coverToShaftTopMetres: 0.057, coverToFloorMetres: 0.095, wetMetres: 0.025 })).toMatchObject({
      shortMetres: expect.closeTo(0.01, 12),
    });
    expect(of({ coverToShaftTopMetres: 0.057, coverToFloorMetres: 0.095, wetMetres: 0.037 })).toMatchObject({
      shortMetres: expect.closeTo(-0.002, 12),
    });
  });

  it("refuses a floor above the shaft, a sump too shallow to mark, and a rod wetter than it is long", () => {
    expect(of({ coverToShaftTopMetres: 0.057, coverToFloorMetres: 0.05 })).toEqual({ code: "floor-above-shaft" });
    expect(of({ coverToShaftTopMetres: 0.057, coverToFloorMetres: 0.064 })).toEqual({ code: "no-room-for-a-mark" });
    expect(of({ coverToShaftTopMetres: 0.057, coverToFloorMetres: 0.095, wetMetres: 0.1 })).toMatchObject({ code: "wetter-than-the-rod" });
  });
});
