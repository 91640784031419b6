import { describe, expect, it } from "vitest";
import { PSI_PASCALS } from "@/core/basics/units";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { bladesOf, leastOverlap, straightOverlaps } from "@/core/physics/blades/overlap";
import { dropCorner, putIn } from "./faults";
import { ledgeOf, overlapOf, shakeOf, tipHeight, tyreChange } from "./forward";
import { physicalLooks, strengthOf } from "./noticed";
import { MM } from "./sizes";
import { planeWith, soundState, widthOf } from "./state";

/** Check values of a zero-turn without spread, from scripts written apart from this code on the same physics. */
const ZT1 = machineOf("ZT-1");
const INCH = 25.4 * MM;
const mm = (metres: number) => metres / MM;

describe("the hidden machine, forward", () => {
  it("left drive tyre 4 psi down: the tips go 0.164 in down on the left and 0.037 up on the right", () => {
    const state = soundState(ZT1);
    state.pressuresPascals["left-drive"] = (state.pressuresPascals["left-drive"] ?? 0) - 4 * PSI_PASCALS;
    const half = widthOf(ZT1) / 2;
    const y = ZT1.spindles[0]?.yMetres ?? 0;
    // Its example has the outer tips 5 in further forward than this sheet; the plane's slope makes up the difference.
    for (const [x, wanted] of [
      [-half, -0.164],
      [half, 0.037],
    ] as const)
      expect(Math.abs(tyreChange(state, { x, y: y + 5.2 * INCH }) / INCH - wanted)).toBeLessThan(0.002);
  });

  it("left rear hanger 12 mm down: the four quick tips stand as reckoned apart", () => {
    const state = soundState(ZT1);
    dropCorner(state, "left-rear", 12 * MM);
    const tip = (spindleId: string, direction: "left" | "right" | "front" | "rear") =>
      mm(tipHeight(state, { spindleId, direction, end: "A" }));
    expect(tip("left", "left")).toBeCloseTo(61.69, 1);
    expect(tip("right", "right")).toBeCloseTo(76.51, 1);
    expect(tip("middle", "front")).toBeCloseTo(71.68, 1);
    expect(tip("middle", "rear")).toBeCloseTo(68.76, 1);
  });

  it("side of 9 mm leaves a ledge of 8.8", () => {
    const state = soundState(ZT1);
    state.plane = planeWith(ZT1, { settingMetres: 63.5 * MM, side: 9 * MM, rake: ZT1.sheet.rakeTargetMetres ?? 0 });
    expect(mm(ledgeOf(state))).toBeCloseTo(8.77, 1);
  });

  // @against simulated machine: force of an imbalance; physics: m·r·ω²; 2 %
  it("a blade 1,600 g·mm out shakes with 271 N", () => {
    const state = soundState(ZT1);
    const [blade] = Object.values(state.blades);
    if (blade) blade.imbalance = 1600e-6;
    expect(shakeOf(state)).toBeGreaterThan(265);
    expect(shakeOf(state)).toBeLessThan(277);
  });

  it("a sound machine leaves next to no ledge, shakes little, and its blades overlap as the sheet has them", () => {
    const state = soundState(ZT1);
    expect(mm(ledgeOf(state))).toBeLessThan(0.01);
    expect(shakeOf(state)).toBeLessThan(1);
    expect(mm(overlapOf(state))).toBeGreaterThan(10);
  });

  /** The same: what of each is noticed, and the strength of a link for a fault of mean size. */
  it("a ledge of 8.8 is noticed by 92 of a hundred, 271 N by 95, no overlap by 95; links have the strengths of the tables", () => {
    const side = soundState(ZT1);
    side.plane = planeWith(ZT1, { settingMetres: 63.5 * MM, side: 9 * MM, rake: ZT1.sheet.rakeTargetMetres ?? 0 });
    expect(physicalLooks(side)["step-between-passes"]).toBeCloseTo(0.917, 2);
    const shaking = soundState(ZT1);
    for (const blade of Object.values(shaking.blades).slice(0, 1)) blade.imbalance = 1600e-6;
    expect(physicalLooks(shaking).vibration).toBeCloseTo(0.948, 2);
    const worn = soundState(ZT1);
    const least = leastOverlap(straightOverlaps(bladesOf(ZT1)));
    for (const blade of Object.values(worn.blades)) blade.lengthMetres -= least;
    // In the widest turn 1.9 mm less than straight ahead.
    expect(physicalLooks(worn)["uncut-strip-inside"]).toBeCloseTo(0.95, 1);
    for (const [link, strength] of [
      [0.8, 1.981],
      [0.45, 0.645],
      [0.15, 0.166],
    ] as const)
      expect(strengthOf(link)).toBeCloseTo(strength, 3);
  });

  it("mirrored, a fault is mirrored: either rear hanger down leaves the same ledge", () => {
    const ledge = (hanger: string) => {
      const state = soundState(ZT1);
      dropCorner(state, hanger, 8 * MM);
      return ledgeOf(state);
    };
    expect(mm(ledge("left-rear"))).toBeCloseTo(mm(ledge("right-rear")), 6);
  });

  it("what a fault needs and the machine lacks leaves it as it is", () => {
    const walk = machineOf("WP-1");
    const state = soundState(walk);
    for (const cause of ["gear-teeth-broken", "hanger-failed", "gearbox-oil-low", "gearbox-mistimed", "anti-scalp-misset"] as const)
      putIn(state, { cause, severity: 1 }, () => 0.5);
    expect(ledgeOf(state)).toBe(ledgeOf(soundState(walk)));
  });
});
