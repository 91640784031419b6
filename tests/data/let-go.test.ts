import { beforeEach, describe, expect, it } from "vitest";
import { allYes, itemsFor, type SafeState } from "@/core/job/safety";
import { usualMove } from "@/core/job/sequences/moves.fixtures";
import { heldReasons, mayRun, putBackPoints } from "@/core/job/status";
import { type Machine, machineSchema } from "@/core/machine";
import { recordFinding } from "@/data/checks/takes";
import { recordDeckMove } from "@/data/job/deck";
import { guidedStates, recordGuidedMove } from "@/data/job/guided";
import { closeJob, recordFix, recordHold, recordRelease, undoStep } from "@/data/job/job-actions";
import { getJobView } from "@/data/job/job-view";
import { recordRebuildMove } from "@/data/job/rebuild";
import { recordConfirmation, recordLift, recordPutBack } from "@/data/job/safe-state";
import { getMachine, replaceSheet } from "@/data/machine/machines";
import { stateOfMachine } from "@/data/projections/machine-state";
import { stepsOfMachine } from "@/data/record/step-data";
import { logEvent, voidEvent } from "@/data/service/events";
import { listOwed } from "@/data/service/owed";
import type { Db } from "@/data/store/db";
import { Clock, emptyDepot, makeReady, makeSafe, openJob, refusedFor } from "./helpers";

/** What two adversaries found, each as it was done; the walks of gate.test.ts hold the rule that they broke. */
const WHY = "seen again by the two of us";
let db: Db;
let ak: Clock;
let bl: Clock;
beforeEach(() => {
  ({ db, clock: ak } = emptyDepot());
  bl = new Clock("BL");
});

const keys = (machineId: string) => heldReasons(stateOfMachine(db, machineId)).map(({ key }) => key);
const lockedOn = (machineId: string) => stateOfMachine(db, machineId).locks.map(({ who, state }) => `${who} ${state}`);
const undoLast = (clock: Clock, jobId: number, reason = "") =>
  undoStep(db, clock.doing(), { jobId, stepId: getJobView(db, jobId).undoableStepId ?? 0, reason });
const refuseAt = (clock: Clock, jobId: number, state: SafeState, point: string) =>
  recordConfirmation(db, clock.doing(), {
    jobId,
    state,
    answers: { ...allYes(itemsFor(getMachine(db, "zt-1").machine, state)), [point]: { answer: "refused" } },
  });
const sheetOf = (machineId: string, change: (machine: Machine) => unknown) => {
  const { machine, sheetVersion } = getMachine(db, machineId);
  const told = JSON.parse(JSON.stringify(machine)) as Machine;
  change(told);
  return () =>
    replaceSheet(db, bl.doing(), { machineId, basedOnVersion: sheetVersion, machine: machineSchema.parse(told), reason: "as it is now" });
};
const letGoOf = (machineId: string) =>
  listOwed(db, machineId).flatMap(({ detail }) =>
    detail && "letGo" in detail ? [[detail.of, detail.by, detail.letGo.map(({ code }) => code)]] : [],
  );

describe("a lock-out", () => {
  it("stands though a later confirmation of its owner, kept as stopped, is undone by another", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId, "locked-out");
    expect(refuseAt(ak, jobId, "raised", "stands").outcome).toBe("stopped");
    undoLast(bl, jobId);
    expect(lockedOn("zt-1")).toEqual(["AK locked-out"]);
    expect(refusedFor(() => makeSafe(db, bl, openJob(db, bl), "running"))).toContain("locked-by");
  });

  it("stands as it was before where its owner takes back a fuller one, and the machine stands by it", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId, "locked-out");
    makeSafe(db, ak, jobId, "raised");
    undoLast(ak, jobId);
    expect(lockedOn("zt-1")).toEqual(["AK locked-out"]);
    expect(stateOfMachine(db, "zt-1").stands).toMatchObject({ state: "locked-out", who: "AK" });
  });

  it("is lifted by another with a reason of substance only, and stays owed to its owner", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId, "locked-out");
    const lift = (reason: string) => () => recordLift(db, bl.doing(), { jobId, owner: "AK", reason });
    expect(refusedFor(lift("ok"))).toEqual(["invalid", "reason-of-substance"]);
    lift("AK went home, telephoned, his key is here")();
    expect([lockedOn("zt-1"), letGoOf("zt-1")]).toEqual([[], [["AK", "BL", ["locked-by"]]]]);
    const own = openJob(db, bl);
    makeSafe(db, bl, own, "locked-out");
    recordLift(db, bl.doing(), { jobId: own, owner: "BL", reason: "" });
    expect(letGoOf("zt-1")).toHaveLength(1);
  });

  it("keeps another from putting the lead back on", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId, "raised");
    recordFix(db, ak.doing(), { jobId, fix: "replace-blades", cause: "blade-damaged", words: "" });
    const other = openJob(db, bl);
    const putBack = (clock: Clock, of: number) => () =>
      recordPutBack(db, clock.doing(), {
        jobId: of,
        answers: allYes(putBackPoints(getMachine(db, "zt-1").machine, stateOfMachine(db, "zt-1"))),
      });
    expect(refusedFor(putBack(bl, other))).toEqual(["not-safe", "locked-by"]);
    expect(keys("zt-1")).toContain("not-put-back");
    putBack(ak, jobId)();
    expect(keys("zt-1")).not.toContain("not-put-back");
  });
});

describe("what is open at a place", () => {
  const bladeOff = (machineId: string, steps: number) => {
    const jobId = openJob(db, ak, machineId);
    makeSafe(db, ak, jobId, "raised", machineId);
    const move = () => {
      const { machine } = getMachine(db, machineId);
      const at = guidedStates(machine, stepsOfMachine(db, machineId)).find(({ round, place }) => round === "blade" && place === "left");
      if (!at?.next) throw new Error("no next step");
      const { step, counts, answers = {}, sizes = {} } = usualMove(at.next.step, at.next.way);
      return {
        jobId,
        round: "blade" as const,
        place: "left",
        way: at.next.way,
        step,
        counts: { ...counts },
        answers: { ...answers },
        sizes: { ...sizes },
      };
    };
    for (let k = 0; k < steps; k++) recordGuidedMove(db, ak.doing(), move());
    return { jobId, move };
  };

  it("is not forgotten with its spindle, though a hanger goes by the same name: renamed or taken off, it is refused", () => {
    bladeOff("bd-1", 5);
    expect(keys("bd-1")).toContain("work-open:blade:left");
    const belted = (machine: Machine, now: string | undefined) => {
      for (const pulley of machine.sheet.belt?.pulleys ?? []) if (pulley.spindleId === "left") Object.assign(pulley, { spindleId: now });
    };
    const rename = sheetOf("bd-1", (machine) => {
      Object.assign(machine.spindles.find(({ id }) => id === "left") ?? {}, { id: "left-blade" });
      belted(machine, "left-blade");
    });
    const drop = sheetOf("bd-1", (machine) => {
      Object.assign(machine, { spindles: machine.spindles.filter(({ id }) => id !== "left") });
      belted(machine, undefined);
    });
    expect(refusedFor(rename)).toEqual(["invalid", "place-in-use"]);
    expect(refusedFor(drop)).toEqual(["invalid", "place-in-use"]);
    expect(keys("bd-1")).toContain("work-open:blade:left");
  });

  it("goes back with every part it came off with: the stack changes when it is on again", () => {
    const { move } = bladeOff("zt-1", 5);
    const shorter = sheetOf("zt-1", ({ sheet }) => sheet.blade && Object.assign(sheet.blade, { stack: ["bolt", "blade"] }));
    expect(refusedFor(shorter)).toEqual(["invalid", "work-is-open"]);
    // Another torque takes nothing out of the tray.
    sheetOf("zt-1", ({ sheet }) => Object.assign(sheet, { bladeBoltTorqueNewtonMetres: 90 }))();
    const parts = Object.values(move().counts).reduce((sum, count) => sum + count, 0);
    expect(parts).toBeGreaterThanOrEqual(1);
    recordGuidedMove(db, ak.doing(), move());
    expect(refusedFor(() => recordGuidedMove(db, ak.doing(), { ...move(), counts: { bolt: 1 } }))).toContain("fewer-back-than-came-off");
  });

  it("stays under another kind and other features: a spindle and a box that are apart are refused another, a belt stays to be seen", () => {
    const jobId = openJob(db, ak, "bd-1");
    makeSafe(db, ak, jobId, "locked-out", "bd-1");
    const { machine } = getMachine(db, "bd-1");
    const at = guidedStates(machine, []).find(({ round, place }) => round === "spindle" && place === "left");
    const first = usualMove(at?.next?.step as never, "off");
    recordGuidedMove(db, ak.doing(), {
      ...{ jobId, round: "spindle", place: "left", way: "off", step: first.step },
      ...{ counts: { ...first.counts }, answers: { ...first.answers } },
    });
    const walk = sheetOf("bd-1", (told) => Object.assign(told, { kind: "walk-petrol", features: undefined }));
    expect(refusedFor(walk)).toContain("work-is-open");
    expect(keys("bd-1")).toContain("work-open:spindle:left");

    logEvent(db, ak.doing(), { machineId: "zt-1", event: "belt-disturbed" });
    sheetOf("zt-1", (told) => Object.assign(told, { features: ["hangers", "air-tyres"] }))();
    expect(keys("zt-1")).toContain("belt-not-seated");
    const points = putBackPoints(getMachine(db, "zt-1").machine, stateOfMachine(db, "zt-1"));
    expect(points.map(({ id }) => id)).toContain("belt-seated");
  });

  it("a box that no specification names is not let go of with its gears", () => {
    const jobId = openJob(db, ak, "gr-1");
    makeSafe(db, ak, jobId, "locked-out", "gr-1");
    const { box, next } = getJobView(db, jobId).boxes[0] as ReturnType<typeof getJobView>["boxes"][number];
    const { step, counts, answers = {} } = usualMove(next?.step as never, "off");
    recordRebuildMove(db, ak.doing(), { jobId, box, way: "off", step, counts: { ...counts }, answers: { ...answers }, loose: [] });
    const apart = sheetOf("gr-1", (told) => {
      Object.assign(told, { kind: "zero-turn", features: undefined });
      told.spindles = told.spindles.map((one, k) => ({ ...one, xMetres: one.xMetres + k * 2 }));
    });
    expect(refusedFor(apart)).toContain("place-in-use");
    expect(keys("gr-1")).toContain(`box-apart:${box}`);
  });

  it("a strike is looked at as what the machine was when it was struck: a kind without hangers is refused until they were", () => {
    logEvent(db, ak.doing(), { machineId: "zt-1", event: "struck", words: "a kerb" });
    expect(keys("zt-1")).toContain("struck-not-looked:hanger-inspection");
    const without = sheetOf("zt-1", (told) => Object.assign(told, { features: ["belt", "air-tyres"] }));
    expect(refusedFor(without)).toEqual(["invalid", "read-first", "read-first"]);
  });
});

describe("what one wrote down and another takes back", () => {
  const holding = {
    "belt-disturbed": "belt-not-seated",
    "blade-changed": "blades-not-turned:left",
    "spindle-apart": "blades-not-turned:left",
    "deck-off": "belt-not-seated",
  } as const;

  it.each(Object.entries(holding))("%s goes with a reason of substance, kept and owed; by who wrote it without one", (event, key) => {
    const { eventId } = logEvent(db, ak.doing(), { machineId: "zt-1", event: event as keyof typeof holding });
    expect(keys("zt-1")).toContain(key);
    const back = (clock: Clock, reason: string) => () => voidEvent(db, clock.doing(), { machineId: "zt-1", eventId, reason });
    for (const thin of ["", "ok"]) expect(refusedFor(back(bl, thin))).toEqual(["invalid", "reason-of-substance"]);
    expect(keys("zt-1")).toContain(key);
    back(bl, WHY)();
    expect([keys("zt-1").includes(key), letGoOf("zt-1")[0]?.slice(0, 2)]).toEqual([false, ["AK", "BL"]]);
    const own = logEvent(db, ak.doing(), { machineId: "zt-1", event: event as keyof typeof holding });
    voidEvent(db, ak.doing(), { machineId: "zt-1", eventId: own.eventId });
    expect(keys("zt-1")).not.toContain(key);
  });

  it("so do a fix, a blade on the bench and the steps of a deck coming off", () => {
    const jobId = openJob(db, ak, "bd-1");
    makeSafe(db, ak, jobId, "locked-out", "bd-1");
    const step = getJobView(db, jobId).deck.next?.step;
    const { counts, answers = {} } = usualMove(step as never, "off");
    recordDeckMove(db, ak.doing(), { jobId, way: "off", step: step?.id ?? "", counts: { ...counts }, answers: { ...answers } });
    expect(refusedFor(() => undoLast(bl, jobId))).toEqual(["invalid", "reason-of-substance"]);
    undoLast(bl, jobId, WHY);
    expect(keys("bd-1")).not.toContain("deck-off");

    const other = openJob(db, ak);
    makeSafe(db, ak, other, "raised");
    recordFix(db, ak.doing(), { jobId: other, fix: "replace-blades", cause: "blade-damaged", words: "" });
    expect(refusedFor(() => undoLast(bl, other))).toEqual(["invalid", "reason-of-substance"]);
    recordConfirmation(db, ak.doing(), {
      ...{ jobId: other, state: "bench", parts: ["left"] },
      answers: allYes(itemsFor(getMachine(db, "zt-1").machine, "bench")),
    });
    expect(refusedFor(() => undoLast(bl, other))).toEqual(["invalid", "reason-of-substance"]);
    undoLast(ak, other);
    expect(keys("zt-1")).not.toContain("part-on-bench:left");
  });

  it("a hold that another gave goes with its reason, and stays owed to who gave it", () => {
    const jobId = openJob(db, ak);
    const { stepId } = recordHold(db, ak.doing(), { jobId, reason: "waits for the insurer" });
    recordRelease(db, bl.doing(), { jobId, reasons: [{ key: `hold:${stepId}`, reason: WHY }] });
    expect(letGoOf("zt-1")).toEqual([["AK", "BL", ["unsafe"]]]);
  });

  it("a job opened again makes nothing ready again: what was confirmed ended with its close", () => {
    const jobId = openJob(db, ak);
    makeReady(db, ak, jobId);
    closeJob(db, ak.doing(), { jobId, causes: ["nothing-found"], words: "", unprovedReason: "the operator took it" });
    expect(mayRun(stateOfMachine(db, "zt-1"), { to: "cut", who: "AK" }).reasons.map(({ code }) => code)).toEqual(["not-ready"]);
    undoLast(bl, jobId);
    expect(mayRun(stateOfMachine(db, "zt-1"), { to: "cut", who: "AK" }).reasons.map(({ code }) => code)).toEqual(["not-ready"]);
  });
});

describe("a strike", () => {
  it("is let go of by no look that suspects, and by none that names nothing", () => {
    const jobId = openJob(db, ak, "wp-1");
    makeSafe(db, ak, jobId, "raised", "wp-1");
    logEvent(db, ak.doing(), { machineId: "wp-1", event: "struck", words: "a root" });
    const look = (checkId: string, each: { cause: string; result: "suspect" | "not-found" | "seen" }[]) =>
      recordFinding(db, ak.doing(), { jobId, checkId, result: "not-found", causes: [], note: "", ...(each.length > 0 ? { each } : {}) });
    const struck = () => keys("wp-1").filter((key) => key.startsWith("struck"));
    const all = struck();
    expect(all).toHaveLength(3);
    look("blade-edge", [{ cause: "blade-damaged", result: "suspect" }]);
    look("blade-track", [{ cause: "crankshaft-bent", result: "suspect" }]);
    look("spindle-play", [{ cause: "key-sheared", result: "suspect" }]);
    expect(struck()).toEqual(all);
    for (const check of ["blade-edge", "blade-track", "spindle-play"]) look(check, []);
    expect(struck()).toEqual(all);
    look("blade-edge", [{ cause: "blade-damaged", result: "not-found" }]);
    expect(struck()).toEqual(all.filter((key) => !key.endsWith("blade-edge")));
  });
});
