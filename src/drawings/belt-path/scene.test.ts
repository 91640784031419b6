import { describe, expect, it } from "vitest";
import { machineOf } from "@/core/checks/sheets.fixtures";
import type { Standpoint } from "@/core/machine";
import { machineBelt } from "@/core/physics/drive/machine-belt";
import { beltScene } from "./scene";

const machine = machineOf("ZT-1");
const pulleys = machine.sheet.belt?.pulleys ?? [];
const around = (line: readonly { x: number; y: number }[]) =>
  line.reduce((sum, { x, y }, k) => {
    const next = line[(k + 1) % line.length] ?? { x, y };
    return sum + Math.hypot(next.x - x, next.y - y);
  }, 0);

describe("a belt drawn round its pulleys", () => {
  it("is as long on the drawing as it is reckoned, from whichever side one looks", () => {
    const found = machineBelt(machine);
    const length = found?.ok ? found.belt.route.lengthMetres : 0;
    // Short chords of the arcs: a thousandth less than the arcs themselves.
    for (const standpoint of ["behind", "front", "left", "right", "underneath"] as Standpoint[])
      expect(around(beltScene(machine, pulleys, standpoint).belt ?? []) / length).toBeCloseTo(1, 2);
  });

  it("moves when a pulley is moved, and is not drawn where the pulleys make no path", () => {
    const shifted = pulleys.map((one) => (one.role === "drive" ? { ...one, yMetres: one.yMetres - 0.05 } : one));
    expect(around(beltScene(machine, shifted, "behind").belt ?? [])).toBeGreaterThan(
      around(beltScene(machine, pulleys, "behind").belt ?? []) + 0.02,
    );
    const sunk = pulleys.map((one) => (one.id === "middle-pulley" ? { ...one, yMetres: 0.4 } : one));
    expect(beltScene(machine, sunk, "behind").belt).toBeUndefined();
  });
});
