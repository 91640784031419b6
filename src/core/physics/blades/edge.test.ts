import { describe, expect, it } from "vitest";
import { edgeCost, grindsLeft, scrapReasons, stockToRemove } from "./edge";

const sound = { isCracked: false, isBent: false, isSlotForming: false };

// @against blade-edge: cost of an hour, sharpened or replaced; worked example “edge cost”; exact
describe("an edge in money (worked example: edge cost, docs/worked-examples.md)", () => {
  it("price 24, sharpening 9, 10 h, 5 sharpenings: 1.15 against 2.40 an hour", () => {
    const { sharpenedPerHour, replacedPerHour } = edgeCost({ price: 24, sharpening: 9, fitting: 0, sharpenings: 5, hoursPerEdge: 10 });
    expect(sharpenedPerHour).toBeCloseTo(1.15, 9);
    expect(replacedPerHour).toBeCloseTo(2.4, 9);
  });

  it("sharpening wins exactly when it costs less than the blade, whatever fitting costs", () => {
    const saving = (sharpening: number) => {
      const { sharpenedPerHour, replacedPerHour } = edgeCost({ price: 24, sharpening, fitting: 7, sharpenings: 3, hoursPerEdge: 12 });
      return replacedPerHour - sharpenedPerHour;
    };
    expect(saving(23.99)).toBeGreaterThan(0);
    expect(saving(24)).toBeCloseTo(0, 12);
    expect(saving(24.01)).toBeLessThan(0);
  });
});

describe("what is left of a blade", () => {
  // @against blade-edge: grinds left of a blade; by hand; exact
  it("counts grinds down to the limit line, the nick of today first (by hand)", () => {
    // 60 mm wide, 50 mm least, a 1.5 mm nick takes 2 mm now; 8 mm left at 2 mm a grind: 4.
    expect(stockToRemove(0.0015)).toBeCloseTo(0.002, 12);
    expect(grindsLeft({ widthMetres: 0.06, leastWidthMetres: 0.05, stockNowMetres: 0.002, stockPerGrindMetres: 0.002 })).toBe(4);
    expect(grindsLeft({ widthMetres: 0.0599, leastWidthMetres: 0.05, stockNowMetres: 0.002, stockPerGrindMetres: 0.002 })).toBe(3);
    expect(grindsLeft({ widthMetres: 0.051, leastWidthMetres: 0.05, stockNowMetres: 0.002, stockPerGrindMetres: 0.002 })).toBeLessThan(0);
  });

  it("is scrap for a crack, a bend, a slot, half the sail, or a limit passed, and names each", () => {
    expect(scrapReasons(sound)).toEqual([]);
    expect(scrapReasons({ ...sound, isCracked: true, isBent: true })).toEqual(["crack", "bend"]);
    expect(scrapReasons({ ...sound, sailThicknessMetres: 0.003, newSailThicknessMetres: 0.006 })).toEqual(["sail-half-gone"]);
    expect(scrapReasons({ ...sound, sailThicknessMetres: 0.0031, newSailThicknessMetres: 0.006 })).toEqual([]);
    expect(scrapReasons({ ...sound, sailThicknessMetres: 0 })).toEqual(["sail-worn-through"]);
    expect(scrapReasons({ ...sound, widthMetres: 0.049, leastWidthMetres: 0.05, lengthMetres: 0.4, leastLengthMetres: 0.41 })).toEqual([
      "below-least-width",
      "below-least-length",
    ]);
  });
});
