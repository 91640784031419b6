import { describe, expect, it } from "vitest";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { type StruckTake, underSuspicion } from "./strike";

const machineOf = (fleetNumber: string) => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);
const at = (minute: number) => new Date(Date.UTC(2026, 2, 1, 8, minute)).toISOString();
const struck = { event: "struck", seq: 10, at: at(10), who: "AK" } as const;
const held = (
  fleetNumber: string,
  takes: Parameters<typeof underSuspicion>[0]["takes"] = [],
  events: Parameters<typeof underSuspicion>[0]["events"] = [struck],
) => underSuspicion({ machineAt: () => machineOf(fleetNumber), events, takes })?.checks;

/** Common practice: after a strike, edge, track, shaft, hanger and gearbox until each is looked at. */
describe("a strike", () => {
  it("holds what this machine has under suspicion: no gearbox on a belt deck, no hanger on a walk-behind", () => {
    expect(held("ZT-1")).toEqual(["hanger-inspection", "deck-level", "blade-edge", "blade-track", "spindle-play"]);
    expect(held("GR-1")).toContain("gearbox-inspection");
    expect(held("WP-1")).toEqual(["blade-edge", "blade-track", "spindle-play"]);
    expect(held("RT-1")).toEqual(expect.arrayContaining(["reel-edge", "reel-contact", "arm-play", "roller-square"]));
  });

  type Struck = "blade-edge" | "blade-track" | "spindle-play";
  const read = (check: Struck, minute: number, couldTell = true): StruckTake => ({ check, seq: minute, by: "worksheet", couldTell });
  const look = (check: Struck, minute: number, cleared: string[], left: string[] = []): StruckTake => ({
    check,
    seq: minute,
    by: "look",
    cleared,
    left,
  });

  it("lets each go once it was read since, not before and not when nobody could tell", () => {
    expect(held("WP-1", [read("blade-edge", 5)])).toContain("blade-edge");
    expect(held("WP-1", [read("blade-edge", 15, false)])).toContain("blade-edge");
    expect(held("WP-1", [read("blade-edge", 15), read("blade-track", 16)])).toEqual(["spindle-play"]);
    expect(held("WP-1", [read("blade-edge", 15), read("blade-track", 16), read("spindle-play", 17)])).toBeUndefined();
  });

  it("is let go by a look only of what the look found not to be there: no suspicion, no half of it, nothing unnamed", () => {
    expect(held("WP-1", [look("blade-edge", 15, [])])).toContain("blade-edge");
    expect(held("WP-1", [look("blade-edge", 15, [], ["blade-damaged"])])).toContain("blade-edge");
    expect(held("WP-1", [look("blade-edge", 15, ["blade-dull"])])).toContain("blade-edge");
    expect(held("WP-1", [look("blade-edge", 15, ["blade-damaged"])])).not.toContain("blade-edge");
    // The track of a walk-behind tells of blade and crankshaft: one of them looked for is not both.
    expect(held("WP-1", [look("blade-track", 15, ["blade-bent"])])).toContain("blade-track");
    expect(held("WP-1", [look("blade-track", 15, ["blade-bent"]), look("blade-track", 16, ["crankshaft-bent"])])).not.toContain(
      "blade-track",
    );
    expect(
      held("WP-1", [look("blade-track", 15, ["blade-bent", "crankshaft-bent"]), look("blade-track", 16, [], ["blade-bent"])]),
    ).toContain("blade-track");
  });

  it("counts anew with the next strike, and is nothing without one", () => {
    const looked = [read("blade-edge", 15)];
    expect(held("WP-1", looked, [struck, { ...struck, seq: 20, at: at(1) }])).toContain("blade-edge");
    expect(held("WP-1", [], [{ ...struck, event: "run" }])).toBeUndefined();
  });

  it("asks what the machine had when it was struck, though a later specification has it no more; a second strike hides nothing of the first", () => {
    const [withHangers, without] = [machineOf("ZT-1"), machineOf("WP-1")];
    const machineAt = (seq: number) => (seq < 15 ? withHangers : without);
    const again = { ...struck, seq: 20, at: at(20) };
    expect(underSuspicion({ machineAt, events: [struck], takes: [] })?.checks).toContain("hanger-inspection");
    expect(underSuspicion({ machineAt, events: [struck, again], takes: [] })).toMatchObject({ strike: { seq: 20 } });
    expect(underSuspicion({ machineAt, events: [struck, again], takes: [] })?.checks).toContain("hanger-inspection");
  });
});
