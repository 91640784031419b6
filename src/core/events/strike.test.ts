import { describe, expect, it } from "vitest";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/demo/fleet";
import { underSuspicion } from "./strike";

const machineOf = (fleetNumber: string) => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);
const at = (minute: number) => new Date(Date.UTC(2026, 2, 1, 8, minute)).toISOString();
const struck = { event: "struck", seq: 10, at: at(10), who: "AK" } as const;
const held = (
  fleetNumber: string,
  takes: Parameters<typeof underSuspicion>[0]["takes"] = [],
  events: Parameters<typeof underSuspicion>[0]["events"] = [struck],
) => underSuspicion({ machine: machineOf(fleetNumber), events, takes })?.checks;

/** Trade handbook, "what depends on what": after a strike, edge, track, shaft, hanger and gearbox until each is looked at. */
describe("a strike", () => {
  it("holds what this machine has under suspicion: no gearbox on a belt deck, no hanger on a walk-behind", () => {
    expect(held("ZT-1")).toEqual(["hanger-inspection", "deck-level", "blade-edge", "blade-track", "spindle-play"]);
    expect(held("GR-1")).toContain("gearbox-inspection");
    expect(held("WP-1")).toEqual(["blade-edge", "blade-track", "spindle-play"]);
    expect(held("RT-1")).toEqual(expect.arrayContaining(["reel-edge", "reel-contact", "arm-play", "roller-square"]));
  });

  it("lets each go once it was looked at since, not before and not when nobody could tell", () => {
    const look = (check: "blade-edge" | "blade-track" | "spindle-play", minute: number, couldTell = true) => ({
      check,
      seq: minute,
      couldTell,
    });
    expect(held("WP-1", [look("blade-edge", 5)])).toContain("blade-edge");
    expect(held("WP-1", [look("blade-edge", 15, false)])).toContain("blade-edge");
    expect(held("WP-1", [look("blade-edge", 15), look("blade-track", 16)])).toEqual(["spindle-play"]);
    expect(held("WP-1", [look("blade-edge", 15), look("blade-track", 16), look("spindle-play", 17)])).toBeUndefined();
  });

  it("counts anew with the next strike, and is nothing without one", () => {
    const looked = [{ check: "blade-edge" as const, seq: 15, couldTell: true }];
    expect(held("WP-1", looked, [struck, { ...struck, seq: 20, at: at(1) }])).toContain("blade-edge");
    expect(held("WP-1", [], [{ ...struck, event: "run" }])).toBeUndefined();
  });
});
