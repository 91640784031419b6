import { describe, expect, it } from "vitest";
import { type BladeReading, compareModels, expectedHeight, tellModelsApart } from "./models";

/** Three blades, four directions each, on one plane but for what is put on top. Metres. */
const SPINDLES = [
  ["left", -0.41, 0],
  ["middle", 0, 0.165],
  ["right", 0.41, 0],
] as const;
const AROUND = [
  [-0.216, 0],
  [0, 0.216],
  [0.216, 0],
  [0, -0.216],
] as const;

const places = (ends: readonly ("A" | "B")[]) =>
  SPINDLES.flatMap(([spindleId, x, y]) => AROUND.flatMap(([dx, dy]) => ends.map((end) => ({ spindleId, x: x + dx, y: y + dy, end }))));
const read = (at: ReturnType<typeof places>, more: (place: (typeof at)[number]) => number = () => 0): BladeReading[] =>
  at.map((place) => ({ ...place, z: 0.08 + 0.004 * place.x + more(place) }));

describe("which reading tells two accounts of a deck apart", () => {
  it("expects of the right account what a ruler will show (by hand: left spindle 3 mm low)", () => {
    const readings = read(places(["A", "B"]), ({ spindleId }) => (spindleId === "left" ? -0.003 : 0));
    const [best] = compareModels(readings);
    for (const { z, ...at } of readings) expect(best && expectedHeight(best, at)).toBeCloseTo(z, 9);
  });

  it("is none where one account leads", () => {
    const readings = read(places(["A", "B"]), ({ spindleId }) => (spindleId === "left" ? -0.005 : 0));
    expect(tellModelsApart(compareModels(readings), places(["A"]))).toBeUndefined();
  });

  it("is the unread place where they expect most different heights", () => {
    const all = places(["A"]);
    // Left, front and rear of the left blade, front and rear of the middle one, right, front and rear of the right one.
    const few = all.filter((_, k) => [0, 1, 3, 5, 7, 9, 10, 11].includes(k));
    const models = compareModels(read(few, ({ spindleId }) => (spindleId === "middle" ? -0.003 : 0)));
    const unread = all.filter((place) => !few.includes(place));
    const found = tellModelsApart(models, unread);
    if (!found) throw new Error("these readings were meant to tie");
    const [best] = models;
    const rival = models.find(({ model }) => JSON.stringify(model) === JSON.stringify(found.between[1]));
    const apart = (at: (typeof all)[number]) => Math.abs((best ? expectedHeight(best, at) : 0) - (rival ? expectedHeight(rival, at) : 0));
    expect(found.apartMetres).toBeCloseTo(Math.max(...unread.map(apart)), 12);
  });
});
