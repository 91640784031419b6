import { describe, expect, it } from "vitest";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/demo/fleet";
import { type FixRecord, gradeCut, liveSteps, type Step, stateOf, type TakeRecord, undoable, workOutProof } from "./index";

const machine = machineSchema.parse(FLEET.find(({ fleetNumber }) => fleetNumber === "ZT-1")?.machine);
const minute = (n: number) => new Date(Date.UTC(2026, 2, 1, 8, n)).toISOString();
const level = (id: number, at: number, verdict: TakeRecord["verdict"], isProvisional = false): TakeRecord => ({
  id,
  check: "deck-level",
  at: minute(at),
  verdict,
  isProvisional,
});
const turned = (id: number, at: number): FixRecord => ({ id, fix: "adjust-hangers", cause: "deck-out-of-level", at: minute(at) });
const goodCut = (at: number) => ({ at: minute(at), looks: "all-alike", turf: "good" }) as const;
const touched = (at: number) => ({ event: "hanger-touched", at: minute(at), who: "AK" }) as const;

const codes = (args: Partial<Parameters<typeof workOutProof>[0]>) =>
  workOutProof({ machine, takes: [], fixes: [], testCuts: [], events: [], ...args }).gaps.map(({ code }) => code);

describe("proof", () => {
  const done = {
    takes: [level(1, 1, "out"), level(2, 9, "in-tolerance")],
    fixes: [turned(5, 5)],
    events: [touched(5)],
    testCuts: [goodCut(12)],
  };

  it("is what was out read again after the change, in tolerance, and a good cut on good turf after that", () => {
    expect(codes(done)).toEqual([]);
    expect(workOutProof({ machine, ...done }).required[0]?.changedBetween).toEqual([5]);
  });

  it("lacks something when nothing was read again, or it is out, stale or provisional", () => {
    expect(codes({ ...done, takes: [level(1, 1, "out")] })).toEqual(["not-read-again"]);
    expect(codes({ ...done, takes: [level(1, 1, "out"), level(2, 9, "watch")] })).toEqual(["still-out"]);
    expect(codes({ ...done, events: [touched(5), touched(10)] })).toEqual(["stale"]);
    expect(codes({ ...done, takes: [level(1, 1, "out"), level(2, 9, "in-tolerance", true)] })).toEqual(["provisional"]);
  });

  it("lacks a cut, or has one that is too old or proves too little", () => {
    expect(codes({ ...done, testCuts: [] })).toEqual(["no-test-cut"]);
    expect(codes({ ...done, testCuts: [goodCut(3)] })).toEqual(["test-cut-older-than-change"]);
    expect(codes({ ...done, testCuts: [{ ...goodCut(12), turf: "thin" }] })).toEqual(["test-cut-not-proof"]);
  });

  it("says that nothing was changed when nothing was", () => {
    expect(codes({ testCuts: [goodCut(3)] })).toEqual(["nothing-changed"]);
  });

  it("credits every change between bad and good, when several were made", () => {
    const proof = workOutProof({ machine, ...done, fixes: [turned(5, 5), turned(6, 6)] });
    expect(proof.required[0]?.changedBetween).toEqual([5, 6]);
  });

  it("grades a cut by its turf: thin grass shows only that the blades turn, another lawn only looks right", () => {
    expect(gradeCut({ looks: "all-alike", turf: "good" })).toBe("proof");
    expect(gradeCut({ looks: "all-alike", turf: "thin" })).toBe("blades-turn");
    expect(gradeCut({ looks: "all-alike", turf: "other-lawn" })).toBe("looks-right");
    expect(gradeCut({ looks: "better", turf: "good" })).toBe("looks-right");
    expect(gradeCut({ looks: "same", turf: "good" })).toBe("not-cured");
  });
});

describe("steps", () => {
  const step = (id: number, kind: Step["kind"], undoesId?: number): Step => ({
    id,
    kind,
    data: {},
    who: "AK",
    at: minute(id),
    ...(undoesId ? { undoesId } : {}),
  });

  it("undone steps do not count, and the state follows those that do", () => {
    const steps = [step(1, "complaint"), step(2, "confirmation"), step(3, "fix"), step(4, "close"), step(5, "undo", 4)];
    expect(liveSteps(steps).map(({ id }) => id)).toEqual([1, 2, 3]);
    expect(stateOf(steps)).toBe("awaiting-proof");
    expect(stateOf(steps.slice(0, 4))).toBe("closed");
    expect(undoable(steps)?.id).toBe(3);
  });

  it("the complaint itself is never undone", () => {
    expect(undoable([step(1, "complaint")])).toBeUndefined();
  });

  it("a hold outweighs everything until it is released", () => {
    const held = [step(1, "complaint"), step(2, "fix"), step(3, "hold")];
    expect(stateOf(held)).toBe("held-out");
    expect(stateOf([...held, step(4, "release")])).toBe("awaiting-proof");
  });
});
