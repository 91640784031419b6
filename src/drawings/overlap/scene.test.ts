import { describe, expect, it } from "vitest";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { bladesOf, leastOverlap, straightOverlaps, turnOverlaps } from "@/core/physics/blades/overlap";
import { holeOutlines } from "../fit-card/shapes";
import { overlapScene, type Travel } from "./scene";

const blades = bladesOf(machineOf("ZT-1"));
const travels: Travel[] = [
  { kind: "straight", crabRadians: 0 },
  { kind: "straight", crabRadians: 0.12 },
  { kind: "turn", radiusMetres: 1.7 },
  { kind: "turn", radiusMetres: -1.7 },
  { kind: "turn", radiusMetres: 30 },
];

describe("the overlap's drawing", () => {
  it.each(travels)("draws what is reckoned, neither more nor less: %o", (travel) => {
    const scene = overlapScene(blades, travel);
    const gaps = travel.kind === "straight" ? straightOverlaps(blades, travel.crabRadians) : turnOverlaps(blades, travel.radiusMetres);
    expect(scene.least).toBeCloseTo(leastOverlap(gaps), 12);
    for (const { from, to, overlapMetres } of scene.gaps) expect(to - from).toBeCloseTo(Math.abs(overlapMetres), 9);
  });

  it("puts the swath in the middle, and every bar as wide as its blade", () => {
    for (const travel of travels) {
      const { bars } = overlapScene(blades, travel);
      expect(Math.min(...bars.map(({ from }) => from))).toBeCloseTo(-Math.max(...bars.map(({ to }) => to)), 9);
      for (const { id, from, to } of bars) expect(to - from).toBeCloseTo(blades.find((blade) => blade.id === id)?.lengthMetres ?? 0, 12);
    }
  });

  it("keeps left left in a turn either way: the left blade's bar stays left of the right one's", () => {
    for (const travel of travels) {
      const { bars } = overlapScene(blades, travel);
      const at = (id: string) => bars.find((bar) => bar.id === id)?.from ?? 0;
      expect(at("left")).toBeLessThan(at("right"));
    }
  });

  it("moves when one blade is worn", () => {
    const worn = blades.map((blade) => (blade.id === "left" ? { ...blade, lengthMetres: blade.lengthMetres - 0.01 } : blade));
    expect(overlapScene(worn, travels[0] as Travel).least).toBeCloseTo(overlapScene(blades, travels[0] as Travel).least - 0.005, 9);
  });
});

describe("centre holes to scale", () => {
  it.each([
    ["round", 1, 48],
    ["star-5", 1, 10],
    ["star-6", 1, 12],
    ["star-7", 1, 14],
    ["spline", 1, 30],
    ["two-flats", 1, 48],
    ["two-pins", 3, 48],
  ] as const)("%s: %d outline(s) of %d corners, as wide as it says", (shape, outlines, corners) => {
    const drawn = holeOutlines(shape, 0.02, shape === "two-pins" ? 0.04 : 0.015);
    expect([drawn.length, drawn[0]?.length]).toEqual([outlines, corners]);
    expect(Math.max(...(drawn[0] ?? []).map(({ y }) => y))).toBeCloseTo(0.01, 9);
    const widest = Math.max(...(drawn[0] ?? []).map(({ x }) => x));
    if (shape === "two-flats") expect(widest).toBeCloseTo(0.0075, 9);
  });
});
