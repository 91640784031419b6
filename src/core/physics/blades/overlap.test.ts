import { describe, expect, it } from "vitest";
import { INCH_METRES } from "@/core/basics/units";
import { badRadii, clearances, leastOverlap, type SweptBlade, straightOverlaps, turnOverlaps, wearLeft, widthOfCut } from "./overlap";

const inch = (value: number) => value * INCH_METRES;
const inches = (metres: number) => metres / INCH_METRES;
const radians = (degrees: number) => (degrees * Math.PI) / 180;
const blade = (id: string, x: number, y: number, length = 17): SweptBlade => ({
  id,
  xMetres: inch(x),
  yMetres: inch(y),
  lengthMetres: inch(length),
});
/** Worked example "blade layout" (docs/worked-examples.md; physics): three blades of 17 in, the middle one ahead. */
const three = [blade("left", -16.2, 20), blade("middle", 0, 26.5), blade("right", 16.2, 20)];

// @against blade-overlap: overlap straight ahead and in a crab; worked example “blade layout” (physics); 0.005 in
describe("overlap across travel", () => {
  it("is 0.80 in straight ahead, on both sides", () => {
    const gaps = straightOverlaps(three);
    expect(gaps.map(({ between }) => between)).toEqual([
      ["left", "middle"],
      ["middle", "right"],
    ]);
    for (const { overlapMetres } of gaps) expect(inches(overlapMetres)).toBeCloseTo(0.8, 9);
  });

  it.each([
    [5, 1.43, 0.3],
    [8, 1.86, 0.05],
  ])("crabbing %d° leaves %d in on one side and %d on the other", (degrees, wide, narrow) => {
    const shared = straightOverlaps(three, radians(degrees)).map(({ overlapMetres }) => inches(overlapMetres));
    expect(Math.max(...shared)).toBeCloseTo(wide, 2);
    expect(Math.min(...shared)).toBeCloseTo(narrow, 2);
  });

  it("opens the right-hand gap when the middle leads and the machine drifts right, and is mirrored the other way", () => {
    const [left, right] = straightOverlaps(three, radians(5));
    expect(right?.overlapMetres).toBeLessThan(left?.overlapMetres ?? 0);
    const mirrored = straightOverlaps(three, radians(-5));
    expect(mirrored[0]?.overlapMetres).toBeCloseTo(right?.overlapMetres ?? 0, 12);
  });

  it("is down to 6 mm at 5.7° and a strip from 8.7°", () => {
    const least = (degrees: number) => leastOverlap(straightOverlaps(three, radians(degrees)));
    expect(least(5.65)).toBeGreaterThan(0.006);
    expect(least(5.75)).toBeLessThan(0.006);
    expect(least(8.65)).toBeGreaterThan(0);
    expect(least(8.75)).toBeLessThan(0);
  });
});

// @against blade-overlap: radii at which a strip stands; worked example “blade layout” (physics); 1 in
describe("overlap in a turn", () => {
  it("is under 6 mm for radii from 38 to 241 in, a strip from 42 to 159, worst −0.455 in at 66", () => {
    const [band, ...others] = badRadii({ blades: three, side: 1, limitMetres: 0.006 });
    expect(others).toEqual([]);
    expect(inches(band?.fromMetres ?? 0)).toBeCloseTo(38, -0.3);
    expect(inches(band?.toMetres ?? 0)).toBeCloseTo(241, -0.3);
    const [strip] = badRadii({ blades: three, side: 1, limitMetres: 0 });
    expect(inches(strip?.fromMetres ?? 0)).toBeCloseTo(42, -0.3);
    expect(inches(strip?.toMetres ?? 0)).toBeCloseTo(159, -0.3);
    expect(inches(strip?.worstMetres ?? 0)).toBeCloseTo(-0.455, 3);
    expect(inches(strip?.worstAtMetres ?? 0)).toBeCloseTo(66, -0.3);
  });

  it("of blades on the line of the axle is that of concentric circles: the same in every turn as straight (closed form)", () => {
    const row = [blade("a", -16, 0), blade("b", 0, 0), blade("c", 16, 0)];
    for (const radius of [30, 60, 200, 1000]) {
      for (const { overlapMetres } of turnOverlaps(row, inch(radius))) expect(inches(overlapMetres)).toBeCloseTo(1, 9);
    }
  });

  it("tends to the straight one as the turn widens, and is mirrored to the other side", () => {
    const straight = straightOverlaps(three)[0]?.overlapMetres ?? 0;
    expect(leastOverlap(turnOverlaps(three, 1e6))).toBeCloseTo(straight, 6);
    for (const radius of [1, 2, 5])
      expect(leastOverlap(turnOverlaps(three, radius))).toBeCloseTo(leastOverlap(turnOverlaps(three, -radius)), 12);
  });

  it("counts what an earlier, longer blade covers as covered", () => {
    const nested = [blade("long", 0, 0, 40), blade("short", 1, 0, 10)];
    expect(inches(straightOverlaps(nested)[0]?.overlapMetres ?? 0)).toBeCloseTo(10, 9);
  });
});

describe("wear, clearance and width", () => {
  it("leaves half of what is over 6 mm at each tip", () => {
    expect(wearLeft(three)).toBeCloseTo((inch(0.8) - 0.006) / 2, 12);
    expect(wearLeft(three.map((one) => ({ ...one, lengthMetres: one.lengthMetres - 2 * wearLeft(three) })))).toBeCloseTo(0, 12);
  });

  it("of free blades is centre distance less the two radii: 0.455 in here", () => {
    const near = clearances(three).filter(({ between }) => between.includes("middle"));
    for (const { clearanceMetres } of near) expect(inches(clearanceMetres)).toBeCloseTo(Math.hypot(16.2, 6.5) - 17, 9);
    expect(clearances([blade("a", 0, 0), blade("b", 16, 0)])[0]?.clearanceMetres).toBeLessThan(0);
  });

  it("gives the width of cut as lengths less overlaps: 3 × 17 − 2 × 0.8", () => {
    expect(inches(widthOfCut(three))).toBeCloseTo(49.4, 9);
  });

  it("a single blade has no neighbour to lose", () => {
    expect(straightOverlaps([blade("only", 0, 0)])).toEqual([]);
    expect(leastOverlap([])).toBe(Number.POSITIVE_INFINITY);
  });
});

it("the bands agree with the overlap itself, radius by radius, on both sides and for uneven sets (property)", () => {
  const sets = [
    three,
    [blade("left", -10.2, 18.5, 20.4), blade("right", 10.2, 24.5, 21)],
    [blade("a", -16, 20, 16.6), blade("b", 0, 26, 17), blade("c", 16.4, 19, 16.9)],
  ];
  for (const blades of sets) {
    for (const side of [1, -1] as const) {
      const bands = badRadii({ blades, side, limitMetres: 0.006 });
      for (let radius = 0.06; radius < 50; radius *= 1.013) {
        const isBad = bands.some(({ fromMetres, toMetres }) => radius > fromMetres + 1e-4 && radius < toMetres - 1e-4);
        const isNear = bands.some(({ fromMetres, toMetres }) => Math.abs(radius - fromMetres) < 2e-4 || Math.abs(radius - toMetres) < 2e-4);
        if (!isNear) expect(leastOverlap(turnOverlaps(blades, side * radius)) < 0.006, `${side * radius}`).toBe(isBad);
      }
    }
  }
});
