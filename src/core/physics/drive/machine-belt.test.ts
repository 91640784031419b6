import { describe, expect, it } from "vitest";
import { machineOf } from "@/core/checks/sheets.fixtures";
import type { Machine } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { machineBelt } from "./machine-belt";

const belted = FLEET.map(({ fleetNumber }) => fleetNumber).filter((one) => machineOf(one).sheet.belt);

function changed(machine: Machine, id: string, more: object): Machine {
  const copy = structuredClone(machine);
  for (const pulley of copy.sheet.belt?.pulleys ?? []) if (pulley.id === id) Object.assign(pulley, more);
  return copy;
}

const lies = (machine: Machine) => {
  const found = machineBelt(machine);
  if (!found?.ok) throw new Error(JSON.stringify(found));
  return found.belt;
};

describe("the belt of a machine's sheet", () => {
  it.each(belted)("%s: lies clear of every pulley it passes, turns every blade its own way, and is as long as its belt", (fleetNumber) => {
    const belt = lies(machineOf(fleetNumber));
    expect([belt.route.fouled, belt.route.isCrossed, belt.wrongWay]).toEqual([[], false, []]);
    expect(Math.abs(belt.spareMetres ?? 1)).toBeLessThan(0.02);
  });

  it("names the blade that a belt laid round the other side would turn backwards", () => {
    const backwards = changed(machineOf("ZT-1"), "middle-pulley", { side: "outside", yMetres: 0.61 });
    expect(lies(backwards).wrongWay).toEqual(["middle"]);
  });

  it("names the pulley with least belt round it, and a path that does not close", () => {
    expect(lies(machineOf("ZT-1")).slipsFirst?.id).toBe("middle-pulley");
    expect(machineBelt(changed(machineOf("ZT-1"), "middle-pulley", { yMetres: 0.4 }))).toMatchObject({
      ok: false,
      problem: { place: "middle-pulley" },
    });
    expect(machineBelt(machineOf("WP-1"))).toBeUndefined();
  });
});
