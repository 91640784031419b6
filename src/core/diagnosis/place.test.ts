import { describe, expect, it } from "vitest";
import { cutters, type Machine, machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { allFeatures, diagnose, knowledgeOf, meaningOf, placeOdds } from "./index";

const machineOf = (fleetNumber: string) => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);
const zeroTurn = machineOf("ZT-1");
const rotary = knowledgeOf({ cutsWith: "rotary", features: allFeatures("rotary") });
const reel = knowledgeOf({ cutsWith: "reel", features: allFeatures("reel") });
const band = (fromMetres: number, toMetres: number) => ({ where: "band" as const, fromMetres, toMetres });

/** Middle of the join between the first blade and the next. */
function firstJoin(machine: Machine): number {
  const [one, other] = cutters(machine);
  return ((one?.right ?? 0) + (other?.left ?? 0)) / 2;
}

describe("a place in the swath, by the machine's own geometry", () => {
  it("is a join where two blades meet, for a strip but not for a band", () => {
    const at = firstJoin(zeroTurn);
    const [left, middle] = cutters(zeroTurn);
    expect(meaningOf(zeroTurn, band(at - 0.02, at + 0.02))).toEqual({ kind: "join", between: [left?.id, middle?.id] });
    expect(meaningOf(zeroTurn, band(at - 0.3, at + 0.3)).kind).not.toBe("join");
  });

  it("is one blade's where the band lies over it: over the middle blade it is no band between passes", () => {
    const middle = cutters(zeroTurn)[1];
    expect(meaningOf(zeroTurn, band((middle?.left ?? 0) + 0.05, (middle?.right ?? 0) - 0.05))).toEqual({
      kind: "on-one",
      cutter: middle?.id,
    });
  });

  it("moves with the spindles: the same strip is a join no longer once they stand elsewhere", () => {
    const at = firstJoin(zeroTurn);
    const shifted = { ...zeroTurn, spindles: zeroTurn.spindles.map((spindle) => ({ ...spindle, xMetres: spindle.xMetres + 0.12 })) };
    expect(meaningOf(zeroTurn, band(at - 0.01, at + 0.01)).kind).toBe("join");
    expect(meaningOf(shifted, band(at - 0.01, at + 0.01)).kind).toBe("on-one");
  });

  it("is between passes when said so or when it lies outside all blades; all over means nothing", () => {
    const width = 5;
    expect(meaningOf(zeroTurn, { where: "between-passes" })).toEqual({ kind: "passes" });
    expect(meaningOf(zeroTurn, band(width, width + 0.1))).toEqual({ kind: "passes" });
    expect(meaningOf(zeroTurn, { where: "all-over" })).toEqual({ kind: "none" });
    expect(meaningOf(zeroTurn, undefined)).toEqual({ kind: "none" });
  });

  it("finds joins between reel units too", () => {
    const triplex = machineOf("RT-1");
    const at = firstJoin(triplex);
    expect(meaningOf(triplex, band(at, at)).kind).toBe("join");
  });
});

/** Estimates. */
describe("what a place multiplies", () => {
  it("is 4 for the overlap causes at a join, 6 for small pass overlap, 4 for what belongs to one blade or unit", () => {
    expect(placeOdds(rotary, { kind: "join", between: ["a", "b"] })).toEqual({ "blade-worn-short": 4, "turn-too-tight": 4 });
    expect(placeOdds(reel, { kind: "join", between: ["a", "b"] })).toEqual({ "arm-worn-or-bent": 4, "turn-too-tight": 4 });
    expect(placeOdds(rotary, { kind: "passes" })).toEqual({ "pass-overlap-small": 6 });
    expect(placeOdds(rotary, { kind: "on-one", cutter: "middle" })).toMatchObject({ "blade-bent": 4, "belt-off": 4 });
    expect(placeOdds(rotary, { kind: "none" })).toEqual({});
  });

  it("changes the diagnosis and is named among the reasons", () => {
    const given = { symptoms: { "uncut-strip-inside": "present" }, context: [], evidence: [] } as const;
    const worn = (place: ReturnType<typeof placeOdds>) =>
      diagnose(rotary, { ...given, place }).causes.find(({ id }) => id === "blade-worn-short");
    const without = worn({});
    const withIt = worn(placeOdds(rotary, { kind: "join", between: ["a", "b"] }));
    expect(withIt?.presence).toBeGreaterThan(without?.presence ?? 1);
    expect(withIt?.reasons.some(({ kind }) => kind === "place")).toBe(true);
    expect(without?.reasons.some(({ kind }) => kind === "place")).toBe(false);
  });
});
