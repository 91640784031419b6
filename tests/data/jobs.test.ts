import { beforeEach, describe, expect, it } from "vitest";
import { deckLevel } from "@/core/checks/deck-level";
import { withSheet } from "@/core/machine";
import { recordFinding, recordTake, takesOfJob } from "@/data/checks/takes";
import { getBay, jobsOfMachine } from "@/data/fleet/bay";
import { closeJob, recordAnswer, recordFix, recordNote, undoStep } from "@/data/job/job-actions";
import { getJobView } from "@/data/job/job-view";
import { recordConfirmation } from "@/data/job/safe-state";
import { logHours } from "@/data/machine/hours";
import { getMachine, replaceSheet } from "@/data/machine/machines";
import { stateOfMachine } from "@/data/projections/machine-state";
import { listEvents, logEvent, voidEvent } from "@/data/service/events";
import { listOwed, settleOwed } from "@/data/service/owed";
import type { Db } from "@/data/store/db";
import { type Clock, cutWith, emptyDepot, LEDGE_INCHES, LEVEL_INCHES, makeReady, makeSafe, openJob, tips, tyres } from "./helpers";

let db: Db;
let clock: Clock;
beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

const take = (jobId: number, checkId: string, readings: unknown, correctsStepId?: number) =>
  recordTake(db, clock.doing(), { jobId, checkId, readings, asTyped: {}, ...(correctsStepId ? { correctsStepId } : {}) });
const fail = (work: () => unknown) => {
  try {
    work();
  } catch (error) {
    return { code: (error as { code?: string }).code, issues: (error as { issues?: { code: string }[] }).issues?.map(({ code }) => code) };
  }
  return { code: "nothing thrown" };
};
const count = (table: string) => (db.prepare(`SELECT count(*) AS n FROM ${table}`).get() as { n: number }).n;
/** Put back, made ready and cut. */
const cut = (jobId: number) => {
  makeReady(db, clock, jobId);
  return cutWith(db, clock, jobId);
};
const turn = (jobId: number) =>
  recordFix(db, clock.doing(), {
    jobId,
    fix: "adjust-hangers",
    cause: "deck-out-of-level",
    words: "",
    turns: [{ hangerId: "left-rear", turns: 6.25 }],
  });

function levelledJob(): number {
  const jobId = openJob(db, clock);
  makeSafe(db, clock, jobId);
  take(jobId, "tyre-pressure", tyres([12, 18, 18, 12]));
  take(jobId, "deck-level", tips(LEDGE_INCHES));
  turn(jobId);
  take(jobId, "deck-level", tips(LEVEL_INCHES));
  return jobId;
}

describe("a job from complaint to close", () => {
  it("a ledge that was mended owes no look for browning: nothing was torn", () => {
    const jobId = levelledJob();
    cut(jobId);
    closeJob(db, clock.doing(), { jobId, causes: ["deck-out-of-level"], words: "" });
    expect(listOwed(db, "zt-1")).toEqual([]);
  });

  it("moves through the bay, is proved by its readings and leaves a second look owed where tips were torn", () => {
    const jobId = levelledJob();
    recordAnswer(db, clock.doing(), { jobId, symptoms: { "torn-tips": "present" }, contexts: {} });
    expect(getBay(db).jobs.find((job) => job.jobId === jobId)?.state).toBe("awaiting-proof");
    cut(jobId);
    expect(closeJob(db, clock.doing(), { jobId, causes: ["deck-out-of-level"], words: "" }).isProved).toBe(true);
    expect(getBay(db).jobs).toEqual([]);
    expect(jobsOfMachine(db, "zt-1")[0]).toMatchObject({ jobId, isProved: true, causes: ["deck-out-of-level"] });
    const [owed] = listOwed(db, "zt-1");
    expect(owed?.code).toBe("second-look");
    settleOwed(db, clock.doing(), { owedId: owed?.id ?? 0 });
    expect(listOwed(db)).toEqual([]);
  });

  it("is not closed without proof, says every gap, and writes nothing; with a reason it is closed as unproved", () => {
    const jobId = levelledJob();
    const before = count("steps");
    expect(fail(() => closeJob(db, clock.doing(), { jobId, causes: ["deck-out-of-level"], words: "" }))).toEqual({
      code: "not-proved",
      issues: ["no-test-cut"],
    });
    expect(count("steps")).toBe(before);
    const closed = closeJob(db, clock.doing(), {
      jobId,
      causes: ["deck-out-of-level"],
      words: "",
      unprovedReason: "needed for the airshow",
    });
    expect(closed.isProved).toBe(false);
  });

  it("takes nothing more once closed, until the close is undone", () => {
    const jobId = levelledJob();
    cut(jobId);
    const { stepId } = closeJob(db, clock.doing(), { jobId, causes: ["deck-out-of-level"], words: "" });
    expect(fail(() => take(jobId, "tyre-pressure", tyres([12, 18, 18, 12]))).code).toBe("job-closed");
    undoStep(db, clock.doing(), { jobId, stepId, reason: "" });
    expect(getJobView(db, jobId).state).toBe("awaiting-proof");
    expect(listOwed(db)).toEqual([]);
  });

  it("reopened, takes nothing back from before the closing unless somebody says why; what was written since comes off in a touch", () => {
    const jobId = levelledJob();
    const { stepId: cutId } = cut(jobId);
    const { stepId } = closeJob(db, clock.doing(), { jobId, causes: ["deck-out-of-level"], words: "" });
    undoStep(db, clock.doing(), { jobId, stepId, reason: "reopened" });
    const undoCut = (reason: string) => undoStep(db, clock.doing(), { jobId, stepId: cutId, reason });
    expect(fail(() => undoCut("")).issues).toEqual(["reason-of-substance"]);
    const note = recordNote(db, clock.doing(), { jobId, text: "looked once more" });
    undoStep(db, clock.doing(), { jobId, stepId: note.stepId, reason: "" });
    undoCut("the wrong lawn was cut");
    expect(getJobView(db, jobId).steps.find(({ id }) => id === cutId)?.isUndone).toBe(true);
  });
});

describe("the safe state", () => {
  it("is asked for before hands go near: readings are refused without it and after a run", () => {
    const jobId = openJob(db, clock);
    expect(fail(() => take(jobId, "deck-level", tips(LEVEL_INCHES))).code).toBe("not-safe");
    makeSafe(db, clock, jobId);
    take(jobId, "deck-level", tips(LEVEL_INCHES));
    cut(jobId);
    expect(stateOfMachine(db, "zt-1").stands?.state).toBe("running");
    expect(fail(() => take(jobId, "deck-level", tips(LEVEL_INCHES))).code).toBe("not-safe");
  });

  it("a refused isolation is written down and opens nothing", () => {
    const jobId = openJob(db, clock);
    const answers = {
      "level-hard-ground": { answer: "yes" },
      "blades-stopped": { answer: "refused" },
      "brake-and-key": { answer: "yes" },
      "cool-to-touch": { answer: "yes" },
    } as const;
    expect(recordConfirmation(db, clock.doing(), { jobId, state: "parked", answers })).toMatchObject({
      outcome: "stopped",
      stoppedAt: ["blades-stopped"],
    });
    expect(stateOfMachine(db, "zt-1").stands).toBeUndefined();
    const stopped = getJobView(db, jobId).steps.at(-1);
    expect(stopped?.kind === "confirmation" && stopped.data.stoppedAt).toEqual([
      "Blade drive off, engine stopped, blades seen to stand still",
    ]);
  });
});

describe("nothing measured is overwritten", () => {
  it("a correction is a new take whose changed readings point back; both stay", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    const first = take(jobId, "deck-level", tips([3, 3.31, 3.25, 31.9 / 10]));
    const second = take(jobId, "deck-level", tips(LEVEL_INCHES), first.stepId);
    expect(takesOfJob(db, jobId).map(({ stepId }) => stepId)).toEqual([second.stepId]);
    const pointed = db.prepare("SELECT count(*) AS n FROM readings WHERE step_id = ? AND corrects_id IS NOT NULL").get(second.stepId) as {
      n: number;
    };
    expect(pointed.n).toBe(4);
    expect(count("readings")).toBe(8);
    undoStep(db, clock.doing(), { jobId, stepId: second.stepId, reason: "" });
    expect(takesOfJob(db, jobId).map(({ stepId }) => stepId)).toEqual([first.stepId]);
  });

  it("the database itself refuses to change or erase what was measured", () => {
    levelledJob();
    for (const table of ["readings", "takes", "steps", "events", "audit", "machine_sheets"]) {
      expect(() => db.prepare(`DELETE FROM ${table}`).run(), table).toThrow(/never erased/);
    }
    expect(() => db.prepare("UPDATE readings SET value = 0").run()).toThrow(/corrected/);
  });

  it("undoing a fix takes its event off the log, and the level it made stale is good again", () => {
    const jobId = levelledJob();
    const { stepId } = turn(jobId);
    expect(getJobView(db, jobId).takes.at(-1)?.stale).toHaveLength(1);
    undoStep(db, clock.doing(), { jobId, stepId, reason: "wrong job" });
    expect(getJobView(db, jobId).takes.at(-1)?.stale).toEqual([]);
    expect(getJobView(db, jobId).steps.find(({ id }) => id === stepId)?.isUndone).toBe(true);
  });

  it("undo answers when the last step is not the one meant", () => {
    const jobId = levelledJob();
    expect(fail(() => undoStep(db, clock.doing(), { jobId, stepId: 1, reason: "" })).code).toBe("changed-since");
  });

  it("keeps with a verdict the inputs, tolerances, sheet and rule it rests on", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    const { machine, sheetVersion } = getMachine(db, "zt-1");
    replaceSheet(db, clock.doing(), {
      machineId: "zt-1",
      basedOnVersion: sheetVersion,
      machine: withSheet(machine, { sideToleranceMetres: 0.02 }),
      reason: "maker's bulletin",
    });
    const { stepId } = take(jobId, "deck-level", tips(LEDGE_INCHES));
    const row = db.prepare("SELECT * FROM takes WHERE step_id = ?").get(stepId) as {
      sheet_version: number;
      rule_version: number;
      tolerances_json: string;
      input_json: string;
    };
    expect([row.sheet_version, row.rule_version]).toEqual([2, deckLevel.ruleVersion]);
    expect(JSON.parse(row.tolerances_json)).toContainEqual({
      id: "side",
      tolerance: { kind: "about", target: 0, plusMinus: 0.02, standing: "sheet" },
    });
    expect(JSON.parse(row.input_json).tips).toHaveLength(4);
  });
});

describe("sent twice, stale or wrong", () => {
  it("the same submission again is answered alike and done once", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    const args = { jobId, checkId: "tyre-pressure", readings: tyres([12, 18, 18, 12]), asTyped: {} };
    const id = "3f0f9d36-6b1e-4b60-8f6e-1c2b8d1f0a11";
    const first = recordTake(db, clock.doing(id), args);
    expect(recordTake(db, clock.doing(id), args)).toEqual(first);
    expect(takesOfJob(db, jobId)).toHaveLength(1);
    expect(
      fail(() => recordFinding(db, clock.doing(id), { jobId, checkId: "blade-edge", result: "seen", causes: [], note: "" })).code,
    ).toBe("submission-reused");
  });

  it("names what does not exist", () => {
    expect(fail(() => openJob(db, clock, "zt-99")).code).toBe("machine-not-found");
    expect(fail(() => take(999, "deck-level", tips(LEVEL_INCHES))).code).toBe("job-not-found");
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    expect(fail(() => take(jobId, "phase-of-moon", {})).code).toBe("check-not-found");
    const look = { jobId, checkId: "hanger-inspection", result: "seen" as const, causes: ["moon"], note: "" };
    expect(fail(() => recordFinding(db, clock.doing(), look)).issues).toEqual(["unknown-cause"]);
    expect(fail(() => recordFix(db, clock.doing(), { jobId, fix: "adjust-hangers", cause: "blade-dull", words: "" })).issues).toEqual([
      "unknown-fix",
    ]);
  });

  it("a sheet changed by somebody else meanwhile is not overwritten", () => {
    const { machine } = getMachine(db, "zt-1");
    replaceSheet(db, clock.doing(), { machineId: "zt-1", basedOnVersion: 1, machine, reason: "first" });
    expect(fail(() => replaceSheet(db, clock.doing(), { machineId: "zt-1", basedOnVersion: 1, machine, reason: "second" })).code).toBe(
      "changed-since",
    );
  });

  it("a meter that runs backwards is refused unless it is a correction", () => {
    logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 1240, isCorrection: false });
    expect(fail(() => logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 124, isCorrection: false })).issues).toEqual([
      "hours-run-backwards",
    ]);
    logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 1204, isCorrection: true });
    expect(getMachine(db, "zt-1").meterHours).toBe(1204);
  });
});

describe("the log", () => {
  it("ticks contexts until the next proved cut, and an entry taken back stops ticking", () => {
    const { eventId } = logEvent(db, clock.doing(), { machineId: "zt-1", event: "struck", words: "kerb" });
    const jobId = levelledJob();
    expect(getJobView(db, jobId).ticked.map(({ context }) => context)).toContain("struck-object");
    // It keeps the machine from running: taken back it wants a reason.
    expect(fail(() => voidEvent(db, clock.doing(), { machineId: "zt-1", eventId, reason: "ok" })).issues).toEqual(["reason-of-substance"]);
    voidEvent(db, clock.doing(), { machineId: "zt-1", eventId, reason: "it was another machine" });
    expect(getJobView(db, jobId).ticked.map(({ context }) => context)).not.toContain("struck-object");
    expect(listEvents(db, "zt-1").some(({ event }) => event === "struck")).toBe(false);
  });

  it("a strike asks for the rake on both outer blades before a level counts", () => {
    logEvent(db, clock.doing(), { machineId: "zt-1", event: "struck" });
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    take(jobId, "tyre-pressure", tyres([12, 18, 18, 12]));
    const { assessment } = take(jobId, "deck-level", tips(LEVEL_INCHES));
    expect(assessment.provisional).toEqual([{ code: "hangers-first" }, { code: "rake-wanted-on-both-outer-blades" }]);
    // The same quick form again must not pass for the answer.
    expect(take(jobId, "deck-level", tips(LEVEL_INCHES)).assessment.provisional).toEqual(assessment.provisional);
  });
});

describe("spindle speeds", () => {
  const speeds = (jobId: number, rpm: readonly number[]) =>
    take(jobId, "tip-speed", {
      spindles: ["left", "middle", "right"].map((spindleId, k) => ({ spindleId, revolutionsPerMinute: rpm[k] ?? 0 })),
    });

  it("are kept as they were read, spindle by spindle", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "running");
    expect(speeds(jobId, [3700, 0, 3690]).assessment.verdict).toBe("out");
    expect(takesOfJob(db, jobId)[0]?.readings.map(({ place, quantity, value }) => [place, quantity, value])).toEqual([
      ["spindles:left", "revolutions_per_minute", 3700],
      ["spindles:middle", "revolutions_per_minute", 0],
      ["spindles:right", "revolutions_per_minute", 3690],
    ]);
    expect(getJobView(db, jobId).state).toBe("in-work");
  });
});
