import { describe, expect, it } from "vitest";
import type { Spindle } from "@/core/machine";
import { cutSection, ledgeBetweenPasses, type PassWay } from "./section";

const IN = 0.0254;
const MM = 0.001;
const SWATH = 49.4 * IN;
const BLADE = 17 * IN;
const spindles = (
  [
    ["left", -16.2, 20],
    ["middle", 0, 26.5],
    ["right", 16.2, 20],
  ] as const
).map(
  ([id, x, y]) => ({ id, label: id, xMetres: x * IN, yMetres: y * IN, tipCircleDiameterMetres: BLADE, turns: "cw" }) as unknown as Spindle,
);

/** Side over the swath and rake over a blade, millimetres, on the worked blade layout. */
function ledge(sideMm: number, rakeMm: number, way: PassWay): number {
  const plane = { height: 0.08, slopeRight: (sideMm * MM) / SWATH, slopeForward: (rakeMm * MM) / BLADE };
  const section = cutSection({ spindles, planeOf: () => plane, from: -SWATH / 2, to: SWATH / 2, step: 0.25 * MM });
  return (ledgeBetweenPasses(section, { overlapMetres: 3 * IN, way }) ?? Number.NaN) / MM;
}

/** Worked example "ledge between passes" (docs/worked-examples.md). */
// @against cut print: ledge between passes; worked example “ledge between passes” (closed form and simulation); 0.05 mm
describe("the ledge between passes", () => {
  it.each([
    [6, 0, "one-way", 5.64],
    [6, -6, "one-way", 3.35],
    [10, -6, "one-way", 7.11],
    [6, 0, "up-and-down", 0.36],
  ] as const)("of a side of %d and a rake of %d, mown %s, is %d mm", (side, rake, way, wanted) => {
    expect(Math.abs(ledge(side, rake, way) - wanted)).toBeLessThan(0.05);
  });

  it("is the same whichever side hangs, and whichever end of the blade does", () => {
    for (const way of ["one-way", "up-and-down"] as const) {
      expect(ledge(-6, -6, way)).toBeCloseTo(ledge(6, -6, way), 6);
      expect(ledge(6, 6, way)).toBeCloseTo(ledge(6, -6, way), 1);
    }
  });

  it("is none on a level deck, and no rake makes one", () => {
    for (const rake of [0, -6, 8]) for (const way of ["one-way", "up-and-down"] as const) expect(ledge(0, rake, way)).toBeLessThan(1e-6);
  });
});
