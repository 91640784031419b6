import { describe, expect, it } from "vitest";
import { machineOf } from "@/core/checks/sheets.fixtures";
import type { Machine } from "@/core/machine";
import { machineBelt } from "@/core/physics/drive/machine-belt";
import { firstSketch, movedTo, nearestRun, readSketch, withBelt, withIdler } from "./sketch";

const machine = machineOf("ZT-1");
const bare = { ...machine, sheet: { ...machine.sheet, belt: undefined } } as Machine;

describe("a belt's sketch", () => {
  it.each(["us", "metric"] as const)("laid out in %s units and read again is the sheet's path", (system) => {
    const read = readSketch(firstSketch(machine, system), system, {});
    const [was, is] = [machineBelt(machine), machineBelt(withBelt(machine, read))];
    expect([read.isReadable, was?.ok, is?.ok]).toEqual([true, true, true]);
    if (was?.ok && is?.ok) expect(is.belt.route.lengthMetres).toBeCloseTo(was.belt.route.lengthMetres, 4);
    expect(read.lengthMetres).toBeCloseTo(machine.sheet.belt?.lengthMetres ?? 0, 4);
  });

  it("of a machine without one begins with a pulley over each blade and one to drive them, and lies tight", () => {
    const sketch = firstSketch(bare, "us");
    expect(sketch.pulleys.map(({ id, role }) => [id, role])).toEqual([
      ["drive-pulley", "drive"],
      ["right-pulley", "spindle"],
      ["middle-pulley", "spindle"],
      ["left-pulley", "spindle"],
    ]);
    const found = machineBelt(withBelt(bare, readSketch(sketch, "us", {})));
    expect(found?.ok && [found.belt.route.fouled, found.belt.wrongWay]).toEqual([[], []]);
  });

  it("takes an idler where it was touched, in the run that lies nearest, under a name of its own", () => {
    const sketch = firstSketch(bare, "us");
    const at = { x: -0.2, y: 0.3 };
    const run = nearestRun(readSketch(sketch, "us", {}).pulleys, at);
    // Between the left pulley, the last, and the drive pulley, the first.
    expect(run).toBe(3);
    const once = withIdler(sketch, at, run, "us");
    const twice = withIdler(once, at, run, "us");
    expect(once.pulleys.at(-1)).toMatchObject({ id: "idler-1", role: "idler", side: "outside", diameter: "3" });
    expect(new Set(twice.pulleys.map(({ id }) => id)).size).toBe(6);
  });

  it("keeps what cannot be read as it was typed, and lays no belt over it", () => {
    const sketch = firstSketch(machine, "us");
    const [first, ...rest] = sketch.pulleys;
    if (!first) throw new Error("no pulley");
    for (const diameter of ["0", "-5", "round", ""]) {
      const read = readSketch({ ...sketch, pulleys: [{ ...first, diameter }, ...rest] }, "us", {});
      expect([read.isReadable, read.pulleys.length]).toEqual([false, rest.length]);
    }
    expect(readSketch({ ...sketch, length: "long" }, "us", {}).isReadable).toBe(false);
    expect(readSketch({ ...sketch, length: "" }, "us", {})).toMatchObject({ isReadable: true });
  });

  it("is moved by a finger to the hundredth of an inch, or the millimetre", () => {
    const [first] = firstSketch(machine, "us").pulleys;
    if (!first) throw new Error("no pulley");
    expect(movedTo(first, { x: 0.1, y: -0.0254 }, "us")).toMatchObject({ x: "3.94", y: "-1" });
    expect(movedTo(first, { x: 0.1004, y: 0.2 }, "metric")).toMatchObject({ x: "100", y: "200" });
  });
});
