import { beforeEach, describe, expect, it } from "vitest";
import { guidedOrder, type Round } from "@/core/job/sequences/guided";
import { usualMoves } from "@/core/job/sequences/moves.fixtures";
import { recordGuidedMove } from "@/data/job/guided";
import { closeJob, undoStep } from "@/data/job/job-actions";
import { getJobView } from "@/data/job/job-view";
import { getMachine } from "@/data/machine/machines";
import { listEvents } from "@/data/service/events";
import { listOwed } from "@/data/service/owed";
import { logSpindles } from "@/data/service/spindle-log";
import type { Db } from "@/data/store/db";
import { type Clock, emptyDepot, makeReady, makeSafe, openJob, refusedFor } from "./helpers";

let db: Db;
let clock: Clock;
beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

/** Moves of a round in its order, as a mechanic answers them on a good day. */
const movesOf = (round: Round, place = "left") =>
  usualMoves(guidedOrder(getMachine(db, "zt-1").machine, round)).map((move) => ({ ...move, round, place }));
const make = (jobId: number, move: ReturnType<typeof movesOf>[number]) =>
  recordGuidedMove(db, clock.doing(), {
    ...move,
    jobId,
    counts: { ...move.counts },
    answers: { ...move.answers },
    sizes: { ...move.sizes },
  });

describe("a blade off and on", () => {
  it("keeps the machine from running, in every job, until it is on again, and leaves its event at its place", () => {
    const jobId = openJob(db, clock);
    const moves = movesOf("blade");
    expect(refusedFor(() => make(jobId, moves[0] as (typeof moves)[number]))[0]).toBe("not-safe");
    makeSafe(db, clock, jobId, "raised");
    for (const move of moves.slice(0, 5)) make(jobId, move);
    const other = openJob(db, clock);
    expect(getJobView(db, other).guided.find(({ round, place }) => round === "blade" && place === "left")?.where).toBe("off");
    expect(refusedFor(() => makeReady(db, clock, other))).toContain("work-open");
    for (const move of moves.slice(5)) make(other, move);
    expect(listEvents(db, "zt-1").map(({ event, place }) => [event, place])).toContainEqual(["blade-refitted", "left"]);
    makeReady(db, clock, other);
  });

  it("takes steps in their turn, each answered, and gives the last one back", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    const moves = movesOf("blade");
    const [first, second] = moves as [(typeof moves)[number], (typeof moves)[number]];
    expect(refusedFor(() => make(jobId, second))).toEqual(["changed-since"]);
    make(jobId, first);
    expect(refusedFor(() => make(jobId, { ...second, answers: {} }))).toEqual(["invalid", "unanswered"]);
    expect(refusedFor(() => make(jobId, { ...second, answers: { block: "slips" } }))).toEqual(["invalid", "refused-answer"]);
    expect(refusedFor(() => make(jobId, { ...first, place: "fourth" }))).toEqual(["invalid", "unknown-part"]);
    make(jobId, second);
    undoStep(db, clock.doing(), { jobId, stepId: getJobView(db, jobId).undoableStepId ?? 0, reason: "" });
    expect(getJobView(db, jobId).guided.find(({ round, place }) => round === "blade" && place === "left")?.next?.step.id).toBe("block");
  });

  it("is not taken back from under another job that went on with it, and no job closes while it is off", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    const [first, second] = movesOf("blade") as [Parameters<typeof make>[1], Parameters<typeof make>[1]];
    make(jobId, first);
    const mine = getJobView(db, jobId).undoableStepId ?? 0;
    const other = openJob(db, clock);
    make(other, second);
    expect(refusedFor(() => undoStep(db, clock.doing(), { jobId, stepId: mine, reason: "" }))).toEqual(["changed-since"]);
    const close = (id: number) =>
      refusedFor(() => closeJob(db, clock.doing(), { jobId: id, causes: ["nothing-found"], words: "", unprovedReason: "no time" }));
    expect([close(jobId), close(other)]).toEqual([
      ["invalid", "work-open"],
      ["invalid", "work-open"],
    ]);
  });

  it("owes its bolts after the first run, and a wrench where there was none", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    for (const move of movesOf("blade")) make(jobId, move.step === "torque" ? { ...move, answers: { how: "by-feel" } } : move);
    closeJob(db, clock.doing(), { jobId, causes: ["nothing-found"], words: "", unprovedReason: "no grass today" });
    expect(listOwed(db, "zt-1").map(({ code }) => code)).toEqual(expect.arrayContaining(["bolts-after-first-run", "bolts-by-wrench"]));
  });
});

describe("a spindle served", () => {
  it("makes stale what was read of it, and so does a spindle moved or given bearings in the log", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "locked-out");
    for (const move of movesOf("spindle")) make(jobId, move);
    const spindles = () => listEvents(db, "zt-1").filter(({ event }) => event === "spindle-apart");
    expect(spindles().map(({ place }) => place)).toEqual(["left"]);
    logSpindles(db, clock.doing(), { machineId: "zt-1", kind: "bearings-new", places: ["right"] });
    logSpindles(db, clock.doing(), { machineId: "zt-1", kind: "moved", moves: { left: "right", right: "left", middle: "middle" } });
    expect(spindles().map(({ place }) => place)).toEqual(["left", "right", "left", "right"]);
    logSpindles(db, clock.doing(), { machineId: "zt-1", kind: "topped-up", places: ["left"] });
    expect(spindles()).toHaveLength(4);
  });
});
