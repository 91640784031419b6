import { describe, expect, it } from "vitest";
import type { EventId } from "@/core/catalogue";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { cutters } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { BELT_SEATED, putBackPoints, TURNED, turnedOneByOne } from "./put-back";

const FLEET_NUMBERS = FLEET.map(({ fleetNumber }) => fleetNumber);
const pointsAfter = (fleetNumber: string, events: readonly EventId[], more: { wasLockedOut?: boolean; beltUnseated?: object } = {}) => {
  const machine = machineOf(fleetNumber);
  return putBackPoints(machine, {
    toPutBack: { sinceSeq: 1, events: [...events], wasLockedOut: more.wasLockedOut ?? true },
    unturned: turnedOneByOne(machine, events),
    ...(more.beltUnseated ? { beltUnseated: more.beltUnseated } : {}),
  });
};
const ids = (...args: Parameters<typeof pointsAfter>) => pointsAfter(...args).map(({ id }) => id);

describe("putting back", () => {
  it.each(FLEET_NUMBERS)("%s: guards before tools, tools before anything is turned, lead or battery last of all", (fleetNumber) => {
    const points = ids(fleetNumber, ["blade-changed"]);
    const turned = points.findIndex((id) => id.startsWith(TURNED));
    expect(points.indexOf("guards")).toBeLessThan(points.indexOf("tools"));
    expect(points.indexOf("tools")).toBeLessThan(turned);
    expect(points.at(-1)).toBe("power-last");
    expect(new Set(points).size).toBe(points.length);
  });

  it.each(FLEET_NUMBERS)(
    "%s: after a fitting every blade or reel is turned for itself, and nothing stands for all of them",
    (fleetNumber) => {
      const each = cutters(machineOf(fleetNumber)).map(({ id }) => `${TURNED}${id}`);
      for (const event of ["blade-changed", "blade-refitted", "struck", "deck-off"] as const) {
        const points = ids(fleetNumber, [event]);
        expect(points.filter((id) => id.startsWith(TURNED))).toEqual(each);
        expect(points).not.toContain("turned-all");
      }
      expect(ids(fleetNumber, ["hanger-touched"])).toContain("turned-all");
    },
  );

  it("asks only for what the work could have put wrong", () => {
    expect(ids("ZT-1", ["tyre-changed"])).toEqual(["level", "guards", "tools", "turned-all", "power-last"]);
    expect(ids("ZT-1", ["blade-changed"])).toEqual(
      expect.arrayContaining(["washers", "bolts", "turned:left", "turned:middle", "turned:right"]),
    );
    expect(ids("ZT-1", ["blade-changed"])).not.toContain(BELT_SEATED);
    expect(ids("ZT-1", ["deck-off"])).toEqual(expect.arrayContaining([BELT_SEATED, "level"]));
    expect(ids("RT-1", ["unit-ground"])).toContain("bench-chain");
  });

  it("asks for no belt where there is none, no hanger where nothing hangs, no reel's chain of a rotary", () => {
    expect(ids("WP-1", ["spindle-apart"])).not.toContain(BELT_SEATED);
    expect(ids("WP-1", ["spindle-apart"])).not.toContain("level");
    expect(ids("GR-1", ["gearbox-off"])).not.toContain(BELT_SEATED);
    expect(ids("ZT-1", ["blade-changed"])).not.toContain("bench-chain");
  });

  it("goes on asking for the grooves until somebody looked, whatever else was done since", () => {
    expect(ids("ZT-1", ["tyre-changed"], { beltUnseated: { seq: 1, at: "" } })).toContain(BELT_SEATED);
    // Also where a later specification has no belt: what stands is not done away with by it.
    expect(ids("WP-1", ["blade-changed"], { beltUnseated: { seq: 1, at: "" } })).toContain(BELT_SEATED);
  });

  it("names what is put on last by what the machine has, and nothing where nothing was off", () => {
    const last = (fleetNumber: string) => pointsAfter(fleetNumber, ["blade-changed"]).at(-1)?.text;
    expect(last("ZT-1")).toBe("Plug lead or battery back on, last of all");
    expect(last("WP-1")).toBe("Plug lead back on, last of all");
    expect(last("WC-1")).toBe("Safety key and pack back in, last of all");
    expect(ids("ZT-1", ["hanger-touched"], { wasLockedOut: false })).not.toContain("power-last");
  });

  it("a bolt by feel may pass with a reason; a washer, a guard, a tool or a turn may not", () => {
    const points = pointsAfter("ZT-1", ["blade-changed", "deck-off"]);
    expect(points.filter(({ isFirm }) => !isFirm).map(({ id }) => id)).toEqual(["bolts"]);
  });
});
