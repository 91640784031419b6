import { describe, expect, it } from "vitest";
import type { SymptomId } from "@/core/catalogue";
import { type LogLine, machineState } from "@/core/job/status";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import {
  askedForItself,
  type CutWanted,
  doubtsOf,
  type FixRecord,
  gradeCut,
  isSeenInGrass,
  liveSteps,
  type ProofArgs,
  type Step,
  stateOf,
  type TakeRecord,
  type TestCut,
  undoable,
  workOutProof,
} from "./index";

const machine = machineSchema.parse(FLEET.find(({ fleetNumber }) => fleetNumber === "ZT-1")?.machine);
const minute = (n: number) => new Date(Date.UTC(2026, 2, 1, 8, n)).toISOString();
const level = (id: number, seq: number, verdict: TakeRecord["verdict"], isProvisional = false): TakeRecord => ({
  id,
  check: "deck-level",
  seq,
  verdict,
  isProvisional,
});
const turned = (id: number, seq: number): FixRecord => ({ id, fix: "adjust-hangers", cause: "deck-out-of-level", seq });
const goodCut = (seq: number, more: Partial<TestCut> = {}): TestCut => ({
  seq,
  looks: "all-alike",
  turf: "good",
  dryness: "dry",
  light: "day",
  patch: "same",
  height: "as-complained",
  drivenBy: "same",
  ...more,
});
const touched = (seq: number) => ({ event: "hanger-touched", seq, at: minute(seq), who: "AK" }) as const;

const proofOf = (args: Partial<ProofArgs>) =>
  workOutProof({
    machine,
    state: machineState(machine, []),
    complained: ["step-between-passes"],
    hasPlace: false,
    takes: [],
    fixes: [],
    testCuts: [],
    events: [],
    ...args,
  });
const codes = (args: Partial<ProofArgs>) => proofOf(args).gaps.map(({ code }) => code);

describe("proof", () => {
  const done = {
    takes: [level(1, 1, "out"), level(2, 9, "in-tolerance")],
    fixes: [turned(5, 5)],
    events: [touched(5)],
    testCuts: [goodCut(12)],
  };

  it("is what was out read again after the change, in tolerance, and a good cut on good turf after that", () => {
    expect(codes(done)).toEqual([]);
    expect(proofOf(done).required[0]?.changedBetween).toEqual([5]);
  });

  it("lacks something when nothing was read again, or it is out, stale or provisional", () => {
    expect(codes({ ...done, takes: [level(1, 1, "out")] })).toEqual(["not-read-again"]);
    expect(codes({ ...done, takes: [level(1, 1, "out"), level(2, 9, "watch")] })).toEqual(["still-out"]);
    expect(codes({ ...done, events: [touched(5), touched(10)] })).toEqual(["stale"]);
    expect(codes({ ...done, takes: [level(1, 1, "out"), level(2, 9, "in-tolerance", true)] })).toEqual(["provisional"]);
  });

  it("takes no slip put right for a reading after the fix: a correction stands where what it corrects stood", () => {
    // The record gives a correction the place of its root: here 1, although it was typed after the fix at 5.
    expect(codes({ ...done, takes: [level(9, 1, "in-tolerance")] })).toEqual(["not-read-again"]);
  });

  it("lacks a cut, or has one that is too old or proves too little", () => {
    expect(codes({ ...done, testCuts: [] })).toEqual(["no-test-cut"]);
    expect(codes({ ...done, testCuts: [goodCut(3)] })).toEqual(["test-cut-older-than-change"]);
    expect(codes({ ...done, testCuts: [goodCut(12, { turf: "thin" })] })).toEqual(["test-cut-not-proof"]);
  });

  it("says that nothing was changed when nothing was", () => {
    expect(codes({ testCuts: [goodCut(3)] })).toEqual(["nothing-changed"]);
  });

  it("credits every change between bad and good, when several were made", () => {
    const proof = proofOf({ ...done, fixes: [turned(5, 5), turned(6, 6)] });
    expect(proof.required[0]?.changedBetween).toEqual([5, 6]);
  });

  it("wants the same patch only where the look was of a place in the grass, the same operator only where it was a matter of driving", () => {
    expect(proofOf({ ...done, hasPlace: true }).wanted).toEqual({ samePatch: true, sameDriver: false });
    expect(proofOf({ ...done, hasPlace: true, complained: ["vibration"] }).wanted.samePatch).toBe(false);
    const briefed = { id: 7, fix: "brief-operator", cause: "ground-speed-high", seq: 6 };
    expect(proofOf({ ...done, fixes: [briefed] }).wanted.sameDriver).toBe(true);
    expect(codes({ ...done, hasPlace: true, testCuts: [goodCut(12, { patch: "other" })] })).toEqual(["test-cut-not-proof"]);
  });
});

describe("proof of one unit among several", () => {
  const reels = machineSchema.parse(FLEET.find(({ fleetNumber }) => fleetNumber === "RF-1")?.machine);
  const square = (seq: number, more: Partial<TakeRecord>): TakeRecord => ({
    id: seq,
    check: "roller-square",
    seq,
    verdict: "not-enough-readings",
    isProvisional: true,
    ...more,
  });
  const others = ["far-left", "left", "right", "far-right"];
  const bad = square(1, { verdict: "out", badPlaces: ["middle"], doubtfulPlaces: others });
  const again = square(9, { soundPlaces: ["middle"], doubtfulPlaces: others });
  const fix = { id: 5, fix: "square-roller", cause: "front-roller-not-square", seq: 5, units: ["middle"] };
  const moved = { event: "roller-moved", seq: 5, at: minute(5), who: "AK", place: "middle" } as const;
  const run = (seq: number) => ({ event: "run", seq, at: minute(seq), who: "AK" }) as const;
  const height: TakeRecord = { id: 13, check: "cutting-height", seq: 13, verdict: "in-tolerance", isProvisional: false };
  const of = (more: Partial<ProofArgs>) =>
    codes({ machine: reels, takes: [bad, again, height], fixes: [fix], events: [moved, run(12)], testCuts: [goodCut(12)], ...more });

  it("is read again there and right there: its sisters stand", () => {
    expect(of({})).toEqual([]);
  });

  it("is still owed where that one was not read, is doubtful, or another was found bad", () => {
    expect(of({ takes: [bad, square(9, { soundPlaces: ["left"], doubtfulPlaces: others }), height] })).toEqual(["still-out"]);
    expect(of({ takes: [bad, { ...again, doubtfulPlaces: ["middle"] }, height] })).toEqual(["still-out"]);
    expect(of({ takes: [bad, { ...again, doubtfulPlaces: [undefined] }, height] })).toEqual(["still-out"]);
    expect(of({ takes: [bad, { ...again, verdict: "out", badPlaces: ["left"] }, height] })).toEqual(["still-out"]);
    // Done on all of them, as far as anybody said: all of them are wanted.
    expect(of({ fixes: [{ ...fix, units: undefined }] })).toEqual(["still-out"]);
    expect(of({ fixes: [{ ...fix, units: ["middle", "left"] }] })).toEqual(["still-out"]);
  });

  it("wants a reading of the cut from after a cut", () => {
    expect(of({ events: [moved, run(14)], testCuts: [goodCut(14)] })).toEqual(["read-before-cut"]);
    // Run and not cut with it says nothing of the turf.
    expect(of({ events: [moved, run(12), run(14)], testCuts: [goodCut(14)] })).toEqual(["read-before-cut"]);
    expect(of({ events: [run(2), moved, run(14)], testCuts: [goodCut(14)] })).toEqual(["read-before-cut"]);
  });
});

describe("proof asks for what the complaint was", () => {
  const mended = { takes: [level(1, 1, "out"), level(2, 9, "in-tolerance")], fixes: [turned(5, 5)], events: [touched(5)] };
  const shake: SymptomId[] = ["vibration"];

  it("a shake is not proved by grass that looks alike: it is asked for, or read", () => {
    expect(codes({ ...mended, complained: shake, testCuts: [goodCut(12)] })).toEqual(["symptom-not-asked"]);
    expect(codes({ ...mended, complained: shake, testCuts: [goodCut(12, { symptoms: { vibration: "gone" } })] })).toEqual([]);
    expect(codes({ ...mended, complained: shake, testCuts: [goodCut(12, { symptoms: { vibration: "still-there" } })] })).toEqual([
      "symptom-still-there",
    ]);
    const read: TakeRecord = { id: 3, check: "vibration-reading", seq: 13, verdict: "in-tolerance", isProvisional: false };
    expect(codes({ ...mended, takes: [...mended.takes, read], complained: shake, testCuts: [goodCut(12)] })).toEqual([]);
    expect(codes({ ...mended, takes: [...mended.takes, { ...read, seq: 4 }], complained: shake, testCuts: [goodCut(12)] })).toEqual([
      "symptom-not-asked",
    ]);
  });

  it("an answer from before the last change does not count", () => {
    const cuts = [goodCut(4, { symptoms: { vibration: "gone" } }), goodCut(12)];
    expect(codes({ ...mended, complained: shake, testCuts: cuts })).toEqual(["symptom-not-asked"]);
  });

  it("heat by a hub that was felt, not by a spindle looked at cold; collecting by collecting", () => {
    const play: TakeRecord = { id: 3, check: "spindle-play", seq: 13, verdict: "in-tolerance", isProvisional: false };
    const hot = (figures: string[]) =>
      codes({ ...mended, takes: [...mended.takes, { ...play, figures }], complained: ["hot-hub"], testCuts: [goodCut(12)] });
    expect([hot(["tip-play"]), hot(["tip-play", "hub-heat"])]).toEqual([["symptom-not-asked"], []]);
    const bag = (now: "gone" | "still-there") =>
      codes({ ...mended, complained: ["poor-collection"], testCuts: [goodCut(12, { symptoms: { "poor-collection": now } })] });
    expect([bag("gone"), bag("still-there")]).toEqual([[], ["symptom-still-there"]]);
  });

  it("where nothing was seen in grass, a cut on poor grass does not stand in the way; where both were, both are wanted", () => {
    const gone = { symptoms: { vibration: "gone" as const }, turf: "thin" as const };
    expect(codes({ ...mended, complained: shake, testCuts: [goodCut(12, gone)] })).toEqual([]);
    expect(codes({ ...mended, complained: ["vibration", "stragglers"], testCuts: [goodCut(12, gone)] })).toEqual(["test-cut-not-proof"]);
    expect(isSeenInGrass([])).toBe(true);
    expect(askedForItself(["stragglers", "vibration", "hot-hub"])).toEqual(["vibration", "hot-hub"]);
  });
});

describe("proof and the machine", () => {
  const line = (seq: number, entry: object): LogLine => ({ seq, at: minute(seq), who: "AK", jobId: 1, ...entry }) as LogLine;
  const done = { takes: [level(1, 1, "out"), level(2, 9, "in-tolerance")], fixes: [turned(5, 5)], testCuts: [goodCut(12)] };
  const with_ = (...log: LogLine[]) => proofOf({ ...done, state: machineState(machine, log) }).gaps;

  it("is none while something holds the machine, was struck and not looked at, or was let go by word only", () => {
    expect(with_(line(3, { kind: "event", event: "struck" })).map(({ code }) => code)).toContain("open-on-machine");
    const held = [line(3, { kind: "hold", stepId: 3, reason: "crack in the shell" })];
    expect(with_(...held)).toMatchObject([{ code: "open-on-machine", reason: { code: "unsafe" } }]);
    const stop = line(4, {
      kind: "take",
      stepId: 4,
      check: "blade-edge",
      ruleVersion: 2,
      verdict: "stop",
      findings: [{ place: "left", code: "crack", verdict: "stop" }],
      told: ["left"],
      evidence: [],
    });
    const released = line(6, {
      kind: "release",
      reason: "",
      reasons: [{ key: "stop:blade-edge:left", reason: "looked again by two people" }],
    });
    expect(with_(stop, released).map(({ code }) => code)).toEqual(["released-unread"]);
  });

  it("a belt that was off is proved by a run that saw every blade cut, not by one turned by hand", () => {
    const off = line(3, { kind: "event", event: "belt-disturbed" });
    const putBack = line(4, {
      kind: "put-back",
      stepId: 4,
      outcome: "safe",
      turned: ["left", "middle", "right"],
      touching: [],
      isBeltSeated: true,
    });
    const cut = (seenCutting: string[]) => line(7, { kind: "test-cut", seenCutting });
    expect(with_(off, putBack).map(({ code }) => code)).toEqual(["blades-not-seen-cutting"]);
    expect(with_(off, putBack, cut(["left", "right"])).map(({ code }) => code)).toEqual(["blades-not-seen-cutting"]);
    expect(with_(off, putBack, cut(["left", "middle", "right"]))).toEqual([]);
  });
});

describe("what a test cut proves", () => {
  const anywhere: CutWanted = { samePatch: false, sameDriver: false };
  const grade = (more: Partial<TestCut>, wanted = anywhere) => gradeCut(goodCut(1, more), wanted);

  it("is graded by its turf: thin grass shows only that the blades turn, another lawn only looks right", () => {
    expect([
      grade({}),
      grade({ turf: "thin" }),
      grade({ turf: "other-lawn" }),
      grade({ looks: "better" }),
      grade({ looks: "same" }),
    ]).toEqual(["proof", "blades-turn", "looks-right", "looks-right", "not-cured"]);
  });

  it.each([
    ["wet grass", { dryness: "wet" }, "not-dry"],
    ["dew", { dryness: "damp" }, "not-dry"],
    ["dawn or dusk", { light: "dawn-or-dusk" }, "low-light"],
    ["another height", { height: "other" }, "other-height"],
  ] as const)("%s only looks right, and it is said why", (_, more, doubt) => {
    expect([grade(more), doubtsOf(goodCut(1, more), anywhere)]).toEqual(["looks-right", [doubt]]);
  });

  it("another patch or driver doubts it only where that one was wanted; not said is not the same one", () => {
    expect(grade({ patch: "other", drivenBy: "other" })).toBe("proof");
    expect(doubtsOf(goodCut(1, { patch: undefined, drivenBy: "other" }), { samePatch: true, sameDriver: true })).toEqual([
      "other-patch",
      "other-driver",
    ]);
  });

  it("making one answer worse never makes the grade better", () => {
    const order = ["not-cured", "blades-turn", "looks-right", "proof"];
    const worse: Partial<TestCut>[] = [
      { looks: "better" },
      { looks: "worse" },
      { turf: "thin" },
      { turf: "other-lawn" },
      { dryness: "wet" },
      { light: "dawn-or-dusk" },
      { height: "other" },
      { patch: "other" },
    ];
    const wanted = { samePatch: true, sameDriver: false };
    for (const one of worse) {
      for (const two of worse) {
        const [alone, both] = [grade(one, wanted), grade({ ...two, ...one }, wanted)];
        // Of two turfs or two looks the first stands: only different answers are compared.
        const isSameField = Object.keys(one)[0] === Object.keys(two)[0];
        if (!isSameField) expect([one, two, order.indexOf(both) <= order.indexOf(alone)]).toEqual([one, two, true]);
      }
    }
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

  it("where a job stands does not hang on whether its machine is held: that is the machine's own", () => {
    const held = [step(1, "complaint"), step(2, "hold")];
    expect(stateOf(held)).toBe("waiting");
    expect(stateOf([...held, step(3, "take"), step(4, "fix"), step(5, "put-back")])).toBe("awaiting-proof");
  });
});
