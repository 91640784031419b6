import { describe, expect, it } from "vitest";
import { type Assessment, assessCheck } from "@/core/checks";
import { type MachineInput, machineSchema } from "@/core/machine";
import { FLEET } from "@/demo/fleet";
import type { SpeedDetail } from "./index";

const machineOf = (fleetNumber: string) => FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine as MachineInput;
const zeroTurn = machineOf("ZT-1");
const ids = machineSchema.parse(zeroTurn).spindles.map(({ id }) => id);

function outcomeOf(
  speeds: readonly number[],
  machine: MachineInput = zeroTurn,
  names: readonly string[] = machineSchema.parse(machine).spindles.map(({ id }) => id),
) {
  const spindles = speeds.map((revolutionsPerMinute, k) => ({ spindleId: names[k] ?? "none", revolutionsPerMinute }));
  return assessCheck("tip-speed", { machine, readings: { spindles } });
}

function assess(speeds: readonly number[], machine: MachineInput = zeroTurn): Assessment<SpeedDetail> {
  const outcome = outcomeOf(speeds, machine);
  if (outcome.kind !== "assessed") throw new Error(JSON.stringify(outcome));
  return outcome.assessment as Assessment<SpeedDetail>;
}

/** r/min that puts this machine's blades at so many feet a minute (17 in tip circle). */
const at = (feetPerMinute: number) => feetPerMinute / (Math.PI * (17 / 12));

describe("tip-speed", () => {
  it("is right in the working range, watched beyond it, out where it tears (trade handbook, common practice)", () => {
    const verdictAt = (feet: number) => assess([at(feet), at(feet), at(feet)]).verdict;
    expect(verdictAt(17_000)).toBe("in-tolerance");
    expect(verdictAt(15_000)).toBe("watch");
    expect(verdictAt(18_700)).toBe("watch");
    expect(verdictAt(13_900)).toBe("out");
  });

  it("stops at the published limit of 19,000 ft/min (from memory), and then speaks to no cause", () => {
    const over = assess([at(17_000), at(19_050), at(17_000)]);
    expect(over.verdict).toBe("stop");
    expect(over.warnings.map(({ code, place }) => [code, place])).toEqual([["over-tip-speed-limit", ids[1]]]);
    expect(over.evidence).toEqual([]);
    expect(assess([at(18_990), at(18_990), at(18_990)]).verdict).toBe("watch");
  });

  it("names what the pattern says: one standing, one low, all low, all alike", () => {
    const told = (speeds: readonly number[]) => {
      const { detail, evidence } = assess(speeds);
      return [
        detail.pattern,
        evidence.flatMap((one) => ("result" in one && one.result === "suspect" ? ("causes" in one ? one.causes : [one.cause]) : [])),
      ];
    };
    const good = at(17_000);
    expect(told([good, 0, good])).toEqual(["one-stopped", ["belt-off"]]);
    expect(told([good, 0.93 * good, good])).toEqual(["one-low", ["belt-slipping"]]);
    expect(told([at(14_500), at(14_500), at(14_500)])).toEqual(["all-low", ["engine-speed-low", "belt-slipping"]]);
    expect(told([good, good, 0.98 * good])).toEqual(["alike", []]);
  });

  it("on a walk-behind without a belt speaks to the engine alone", () => {
    const walk = machineOf("WP-1");
    const diameter = machineSchema.parse(walk).spindles[0]?.tipCircleDiameterMetres ?? 1;
    const slow = 14_500 / (Math.PI * (diameter / 0.3048));
    expect(assess([slow], walk).evidence).toEqual([{ check: "tip-speed", cause: "engine-speed-low", result: "suspect" }]);
  });

  it("is not good before every spindle was read: the one left out may be the one that stands", () => {
    const some = assess([at(17_000), at(17_000)]);
    expect(some.verdict).toBe("not-enough-readings");
    expect(some.provisional).toEqual([{ code: "spindle-unread", place: ids[2] }]);
    expect(some.evidence).toEqual([]);
  });

  it("refuses 60,000 r/min, less than nothing, a spindle twice and one the machine does not have", () => {
    const codes = (outcome: ReturnType<typeof outcomeOf>) => (outcome.kind === "invalid" ? outcome.issues.map(({ code }) => code) : []);
    expect(codes(outcomeOf([60_000, 3000, 3000]))).toEqual(["too-big"]);
    expect(codes(outcomeOf([-1, 3000, 3000]))).toEqual(["too-small"]);
    expect(codes(outcomeOf([3000, 3000], zeroTurn, [ids[0] ?? "", ids[0] ?? ""]))).toEqual(["place-read-twice"]);
    expect(codes(outcomeOf([3000], zeroTurn, ["fourth"]))).toEqual(["unknown-spindle"]);
  });
});
