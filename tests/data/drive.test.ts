import { beforeEach, describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { worksheetById } from "@/core/checks";
import { soundReadings, spoiled } from "@/core/checks/sound";
import type { SafeState } from "@/core/job/safety";
import { usualMoves } from "@/core/job/sequences/moves.fixtures";
import { REBUILD, type RebuildMove } from "@/core/job/sequences/rebuild";
import { contextOf } from "@/data/checks/check-context";
import { recordTake } from "@/data/checks/takes";
import { closeJob, recordFix, undoStep } from "@/data/job/job-actions";
import { getJobView } from "@/data/job/job-view";
import { recordOwnList } from "@/data/job/own-list";
import { recordRebuildMove } from "@/data/job/rebuild";
import { logHours } from "@/data/machine/hours";
import {
  addMachinePhotograph,
  machinePhotographOf,
  machinePhotographs,
  newMachinePhotographSchema,
  takeBackMachinePhotograph,
} from "@/data/machine/machine-photographs";
import { getMachine, replaceSheet } from "@/data/machine/machines";
import { stateOfMachine } from "@/data/projections/machine-state";
import { spindlesOf } from "@/data/service/due";
import { insertEvent, listEvents, logEvent, voidEvent } from "@/data/service/events";
import { listOwed } from "@/data/service/owed";
import { listSpindleLog, logSpindles, newSpindleEntrySchema, takeBackSpindleEntry } from "@/data/service/spindle-log";
import type { Db } from "@/data/store/db";
import { MOST_PHOTOGRAPHS } from "@/data/store/pictures";
import { type Clock, cutWith, emptyDepot, makeReady, makeSafe, openJob, refusedFor } from "./helpers";

let db: Db;
let clock: Clock;
const random = seededRandom(3);

beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

const GEARED = "gr-1";
const safe = (jobId: number, state: SafeState, machineId = GEARED) => makeSafe(db, clock, jobId, state, machineId);
const sound = (machineId: string, check: string) =>
  soundReadings({ machine: getMachine(db, machineId).machine, check, random, turf: "Verge" }) ?? {};
const take = (jobId: number, checkId: string, readings: object) => recordTake(db, clock.doing(), { jobId, checkId, readings, asTyped: {} });

const cut = (jobId: number) => cutWith(db, clock, jobId);
/** Put back, then made ready. */
const ready = (jobId: number, machineId = GEARED) => makeReady(db, clock, jobId, machineId);
const OPEN = ["blades-not-turned", "not-put-back"];

const timed = (phase: number, turned: "clear" | "touches" = "clear") => ({
  pairs: { "left:middle": { turned, phaseDegrees: phase }, "middle:right": { turned: "clear", phaseDegrees: 90 } },
});

describe("a geared deck that was disturbed", () => {
  it("is not run before its blades were turned by hand: neither made ready nor cut with", () => {
    const jobId = openJob(db, clock, GEARED);
    insertEvent(db, clock.doing(), { machineId: GEARED, event: "deck-off" });
    expect(refusedFor(() => safe(jobId, "running"))).toEqual(["not-safe", "timing-unseen", ...OPEN]);
    expect(refusedFor(() => cut(jobId))).toEqual(["not-safe", "timing-unseen", ...OPEN, "not-ready"]);
    safe(jobId, "raised");
    take(jobId, "blade-timing", timed(90));
    ready(jobId);
    cut(jobId);
    expect(getJobView(db, jobId).steps.at(-1)?.kind).toBe("test-cut");
  });

  it("refitted out of time is caught, and stays so until it was refitted and turned again", () => {
    const jobId = openJob(db, clock, GEARED);
    insertEvent(db, clock.doing(), { machineId: GEARED, event: "deck-off" });
    safe(jobId, "raised");
    expect(take(jobId, "blade-timing", timed(12)).assessment.verdict).toBe("stop");
    expect(refusedFor(() => safe(jobId, "running"))).toEqual(["not-safe", "unsafe", ...OPEN]);
    safe(jobId, "locked-out");
    recordFix(db, clock.doing(), { jobId, fix: "retime-blades", cause: "gearbox-mistimed", words: "" });
    expect(refusedFor(() => safe(jobId, "running"))).toEqual(["not-safe", "unsafe", "timing-unseen", ...OPEN]);
    safe(jobId, "raised");
    take(jobId, "blade-timing", timed(90));
    ready(jobId);
    expect(getJobView(db, jobId).proof.required.map(({ check }) => check)).toEqual(expect.arrayContaining(["deck-level", "blade-timing"]));
  });

  it("is not run either when it was disturbed before the job, and saying that it was run does not make it right; nor with a box apart", () => {
    insertEvent(db, clock.doing(), { machineId: GEARED, event: "deck-off" });
    const jobId = openJob(db, clock, GEARED);
    expect(refusedFor(() => safe(jobId, "running"))).toEqual(["not-safe", "timing-unseen", ...OPEN]);
    insertEvent(db, clock.doing(), { machineId: GEARED, event: "run" });
    const later = openJob(db, clock, GEARED);
    expect(refusedFor(() => safe(later, "running"))).toEqual(["not-safe", "timing-unseen", ...OPEN]);
    safe(later, "raised");
    take(later, "blade-timing", timed(90));
    recordRebuildMove(db, clock.doing(), { jobId: later, box: "left-box", way: "off", step: "timing-marks", counts: {}, loose: [] });
    expect(refusedFor(() => safe(later, "running"))).toEqual(["not-safe", "box-apart", "not-put-back"]);
    undoStep(db, clock.doing(), { jobId: later, stepId: getJobView(db, later).undoableStepId ?? 0, reason: "" });
    ready(later);
  });

  it("asks nothing of the kind of a belt deck, or of a geared one nobody touched", () => {
    const belt = openJob(db, clock, "zt-1");
    insertEvent(db, clock.doing(), { machineId: "zt-1", event: "deck-off" });
    expect(refusedFor(() => safe(belt, "running", "zt-1"))).toEqual(["not-safe", "belt-not-seated", ...OPEN]);
    const geared = openJob(db, clock, GEARED);
    safe(geared, "running");
    expect(getJobView(db, geared).machineState.stands?.state).toBe("running");
  });
});

describe("a gearbox rebuilt in a job", () => {
  const moves = (box = "left-box"): RebuildMove[] => usualMoves(REBUILD).map((move) => ({ ...move, box }));
  const make = (jobId: number, move: RebuildMove) =>
    recordRebuildMove(db, clock.doing(), {
      jobId,
      ...move,
      counts: { ...move.counts },
      answers: { ...move.answers },
      sizes: { ...move.sizes },
      loose: [...(move.loose ?? [])],
    });

  it("is not closed while it is apart; together it makes timing stale and owes its oil and what was left loose", () => {
    const jobId = openJob(db, clock, GEARED);
    safe(jobId, "locked-out");
    const all = moves().map((move) => (move.way === "on" && move.step === "box-off" ? { ...move, loose: ["box-bolts"] } : move));
    for (const move of all.slice(0, -1)) make(jobId, move);
    const close = () => closeJob(db, clock.doing(), { jobId, causes: ["nothing-found"], words: "", unprovedReason: "looked into" });
    expect(refusedFor(close)).toEqual(["invalid", "box-still-open"]);
    make(jobId, all.at(-1) as RebuildMove);
    expect(listEvents(db, GEARED).map(({ event, place }) => [event, place])).toContainEqual(["gearbox-off", "left-box"]);
    expect(getJobView(db, jobId).boxes.find(({ box }) => box === "left-box")).toMatchObject({ where: "on", loose: ["box-bolts"] });
    close();
    expect(
      listOwed(db, GEARED)
        .map(({ code }) => code)
        .filter((code) => code !== "proof-gap")
        .sort(),
    ).toEqual(["casing-bolts-again", "left-loose", "oil-after-standing"]);
  });

  it("once put together step by step keeps its cover on: the inspection that was bad is not made again for the proof", () => {
    const jobId = openJob(db, clock, GEARED);
    safe(jobId, "locked-out");
    const inspected = spoiled(sound(GEARED, "gearbox-inspection"), { "boxes.left-box.teeth": "broken" });
    expect(take(jobId, "gearbox-inspection", inspected).assessment.verdict).toBe("stop");
    const required = () => getJobView(db, jobId).proof.required.map(({ check }) => check);
    expect(required()).toContain("gearbox-inspection");
    for (const move of moves("right-box")) make(jobId, move);
    // Another box put together says nothing of the one that is bad.
    expect(required()).toContain("gearbox-inspection");
    for (const move of moves()) make(jobId, move);
    expect(required()).toContain("blade-timing");
    expect(required()).not.toContain("gearbox-inspection");
    // The stop stands until the blades were turned by hand in time after it; then it is gone, without the cover off once more.
    const held = () => getJobView(db, jobId).machineState.unsafe.map(({ key }) => key);
    expect(held()).toEqual(["stop:gearbox-inspection:left-box"]);
    safe(jobId, "raised");
    take(jobId, "blade-timing", timed(12));
    expect(held()).toContain("stop:gearbox-inspection:left-box");
    take(jobId, "blade-timing", timed(90));
    expect(held()).toEqual([]);
  });

  it("only written down as off is no such round: its inspection is still to be made again", () => {
    const jobId = openJob(db, clock, GEARED);
    safe(jobId, "locked-out");
    take(jobId, "gearbox-inspection", spoiled(sound(GEARED, "gearbox-inspection"), { "boxes.left-box.teeth": "broken" }));
    insertEvent(db, clock.doing(), { machineId: GEARED, event: "gearbox-off", place: "left-box" });
    expect(getJobView(db, jobId).proof.required.map(({ check }) => check)).toContain("gearbox-inspection");
  });

  it("is flagged not as built where a seal sits beside its usual place, and wants every question answered", () => {
    const jobId = openJob(db, clock, GEARED);
    safe(jobId, "locked-out");
    for (const move of moves().slice(0, REBUILD.off.length)) make(jobId, move);
    const back = moves()[REBUILD.off.length] as RebuildMove;
    expect(refusedFor(() => make(jobId, { ...back, answers: {} }))).toEqual(["invalid", "unanswered", "unanswered"]);
    expect(refusedFor(() => make(jobId, { ...back, answers: { ...back.answers, square: "no" } }))).toEqual(["invalid", "refused-answer"]);
    make(jobId, { ...back, answers: { ...back.answers, "seal-place": "beside" }, sizes: { "seal-depth": 0.003 } });
    expect(listEvents(db, GEARED).map(({ event, place }) => [event, place])).toContainEqual(["not-as-built", "left-box"]);
    const flagged = () => getJobView(db, jobId).machineState.notAsBuilt.map(({ place, words, who }) => [place, words, who]);
    const flag = ["left-box", "The seal sits beside its usual place, on clean shaft", "AK"];
    expect(flagged()).toEqual([flag]);
    // Said of another box it stays; taken back, the flag is there again; taken back itself with its step, it is gone.
    logEvent(db, clock.doing(), { machineId: GEARED, event: "as-built", place: "right-box" });
    expect(flagged()).toEqual([flag]);
    const { eventId } = logEvent(db, clock.doing(), { machineId: GEARED, event: "as-built", place: "left-box" });
    expect(flagged()).toEqual([]);
    voidEvent(db, clock.doing(), { machineId: GEARED, eventId });
    expect(flagged()).toEqual([flag]);
    undoStep(db, clock.doing(), { jobId, stepId: getJobView(db, jobId).undoableStepId ?? 0, reason: "" });
    expect(flagged()).toEqual([]);
  });

  it("holds what this machine's box really holds, once told: its own list, of that box alone", () => {
    const jobId = openJob(db, clock, GEARED);
    safe(jobId, "locked-out");
    const list = (counts: Record<string, number>, place = "left-box") =>
      recordOwnList(db, clock.doing(), { jobId, round: "box", place, counts });
    list({ "snap-rings": 3, gasket: 0 });
    for (const move of moves().slice(0, 5))
      make(jobId, { ...move, counts: Object.fromEntries(Object.entries(move.counts).filter(([id]) => id !== "gasket")) });
    const box = (id: string) => getJobView(db, jobId).boxes.find((one) => one.box === id);
    expect(box("left-box")?.next?.step.parts).toMatchObject([{ id: "snap-rings", count: 3 }]);
    expect(refusedFor(() => list({ sprockets: 1 }))).toEqual(["invalid", "unknown-part"]);
    expect(refusedFor(() => list({ "snap-rings": 1 }, "fourth"))).toEqual(["invalid", "unknown-part"]);
    // Told of one step it keeps what was told of another, and never counts fewer than lie in the tray by now.
    list({ pin: 2 });
    expect(box("left-box")?.next?.step.parts).toMatchObject([{ id: "snap-rings", count: 3 }]);
    expect(refusedFor(() => list({ "box-bolts": 0 }))).toEqual(["invalid", "in-tray"]);
    const later = openJob(db, clock, GEARED);
    expect(getJobView(db, later).boxes.find((one) => one.box === "left-box")?.next?.step.parts).toMatchObject([{ count: 3 }]);
  });

  it("tightened later owes it no more; undone, it stands a step back", () => {
    const jobId = openJob(db, clock, GEARED);
    safe(jobId, "locked-out");
    const all = moves().map((move) => (move.way === "on" && move.step === "cover" ? { ...move, loose: ["cover-bolts"] } : move));
    for (const move of all) make(jobId, move);
    recordRebuildMove(db, clock.doing(), { jobId, box: "left-box", tightened: "cover-bolts" });
    expect(refusedFor(() => recordRebuildMove(db, clock.doing(), { jobId, box: "left-box", tightened: "cover-bolts" }))).toEqual([
      "changed-since",
    ]);
    const { boxes, undoableStepId = 0 } = getJobView(db, jobId);
    expect(boxes[0]?.loose).toEqual([]);
    undoStep(db, clock.doing(), { jobId, stepId: undoableStepId, reason: "" });
    expect(getJobView(db, jobId).boxes[0]?.loose).toEqual(["cover-bolts"]);
  });

  it("refuses a step out of turn, a box that is not there, parts that are short and gears left loose", () => {
    const jobId = openJob(db, clock, GEARED);
    expect(refusedFor(() => make(jobId, moves()[0] as RebuildMove))[0]).toBe("not-safe");
    safe(jobId, "locked-out");
    expect(refusedFor(() => make(jobId, moves()[3] as RebuildMove))).toEqual(["changed-since"]);
    expect(refusedFor(() => make(jobId, { ...(moves()[0] as RebuildMove), box: "fourth" }))).toEqual(["invalid", "unknown-gearbox"]);
    for (const move of moves().slice(0, REBUILD.off.length)) make(jobId, move);
    const back = moves()[REBUILD.off.length] as RebuildMove;
    expect(refusedFor(() => make(jobId, { ...back, counts: { bearings: 2, seals: 2 } }))).toEqual(["invalid", "fewer-back-than-came-off"]);
    expect(refusedFor(() => make(jobId, { ...back, loose: ["bearings"] }))).toEqual(["invalid", "not-left-loose"]);
  });
});

describe("tip speed on paper", () => {
  it("is written down in whatever state the machine stands; a tachometer's reading is not", () => {
    const jobId = openJob(db, clock);
    expect(take(jobId, "tip-speed", { paper: { slip: 0.02 } }).assessment.verdict).toBe("not-enough-readings");
    expect(refusedFor(() => take(jobId, "tip-speed", sound("zt-1", "tip-speed")))).toEqual(["not-safe", "state-needed"]);
    safe(jobId, "running", "zt-1");
    expect(take(jobId, "tip-speed", sound("zt-1", "tip-speed")).assessment.verdict).toBe("in-tolerance");
  });
});

describe("the spindle log", () => {
  const log = (entry: Parameters<typeof logSpindles>[2]) => logSpindles(db, clock.doing(), entry);
  const at = (place: string) => spindlesOf(db, "zt-1", clock.doing().now).find((one) => one.place === place);

  it("bearings written down by mistake are taken back with what they left to be done; another's want a reason, and are owed", () => {
    const { entryIds } = log({ machineId: "zt-1", kind: "bearings-new", places: ["left"] });
    expect(stateOfMachine(db, "zt-1").unturned).toHaveLength(3);
    takeBackSpindleEntry(db, clock.doing(), { machineId: "zt-1", entryId: entryIds[0] ?? 0 });
    const { unturned, toPutBack } = stateOfMachine(db, "zt-1");
    expect([unturned, toPutBack]).toEqual([[], undefined]);
    const [second = 0] = log({ machineId: "zt-1", kind: "bearings-new", places: ["left"] }).entryIds;
    const byOther = (reason: string) => () =>
      takeBackSpindleEntry(db, { ...clock.doing(), who: "BL" }, { machineId: "zt-1", entryId: second, reason });
    expect(refusedFor(byOther(""))).toContain("reason-of-substance");
    expect(stateOfMachine(db, "zt-1").unturned).toHaveLength(3);
    expect(refusedFor(byOther("it was the other machine, AK says so"))).toEqual([]);
    expect(stateOfMachine(db, "zt-1").unturned).toEqual([]);
    expect(listOwed(db, "zt-1").map(({ code }) => code)).toContain("let-go");
  });

  it("counts by the hour meter, ticks greasing overdue, and asks for it when the spindle is looked at", () => {
    logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 100, isCorrection: false, isSure: true });
    log({ machineId: "zt-1", kind: "topped-up", places: ["left", "middle"] });
    logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 100, isCorrection: false, isSure: true });
    logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 162, isCorrection: false, isSure: true });
    expect(at("left")).toMatchObject({ sinceGreaseHours: 62, state: "overdue", next: { what: "top-up", inHours: -12 } });
    expect(at("right")?.state).toBe("unknown");
    const jobId = openJob(db, clock);
    expect(getJobView(db, jobId, clock.doing().now).ticked.map(({ context }) => context)).toContain("grease-overdue");
    safe(jobId, "raised", "zt-1");
    const { assessment } = take(jobId, "spindle-play", sound("zt-1", "spindle-play"));
    expect(assessment.actions.map((action) => [action.code, "place" in action ? action.place : ""])).toEqual([
      ["grease-spindle", "left"],
      ["grease-spindle", "middle"],
    ]);
  });

  it("goes with a spindle that is moved, and takes entries back without erasing them", () => {
    logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 100, isCorrection: false, isSure: true });
    log({ machineId: "zt-1", kind: "purged", places: ["left"] });
    const { entryIds } = log({ machineId: "zt-1", kind: "moved", moves: { left: "right", right: "left" } });
    expect([at("right")?.from, at("right")?.sincePurgeHours, at("left")?.from]).toEqual(["left", 0, "right"]);
    takeBackSpindleEntry(db, clock.doing(), { machineId: "zt-1", entryId: entryIds[0] ?? 0 });
    expect([at("left")?.from, listSpindleLog(db, "zt-1").length]).toEqual(["left", 1]);
    expect(refusedFor(() => takeBackSpindleEntry(db, clock.doing(), { machineId: "zt-1", entryId: entryIds[0] ?? 0 }))).toEqual([
      "nothing-to-undo",
    ]);
    expect((db.prepare("SELECT count(*) AS n FROM spindle_log").get() as { n: number }).n).toBe(3);
    expect(() => db.prepare("DELETE FROM spindle_log").run()).toThrow("never erased");
    expect(() => db.prepare("UPDATE spindle_log SET place = 'left'").run()).toThrow("only added to");
  });

  it("refuses a spindle that is not there, a move that leaves a place empty, and anything that is no entry", () => {
    expect(refusedFor(() => log({ machineId: "zt-1", kind: "purged", places: ["fourth"] }))).toEqual(["invalid", "unknown-spindle"]);
    expect(refusedFor(() => log({ machineId: "zt-1", kind: "moved", moves: { left: "right" } }))).toEqual(["invalid", "not-a-rotation"]);
    expect(refusedFor(() => log({ machineId: "wp-1", kind: "topped-up", places: ["blade"] }))).toEqual(["invalid", "unknown-spindle"]);
    for (const bad of [{ kind: "greased", places: ["left"] }, { kind: "purged", places: [] }, { kind: "moved" }])
      expect(newSpindleEntrySchema.safeParse(bad).success).toBe(false);
  });
});

describe("a belt's path", () => {
  it("is as the picture only where there is one: a photograph that is kept, or the sheet's sketch", () => {
    const withoutSketch = "zt-2";
    const isHeld = (machineId: string) => {
      const jobId = openJob(db, clock, machineId);
      const check = worksheetById("belt-inspection");
      if (!check) throw new Error("no such check");
      return (contextOf(db, { jobId, check, now: clock.doing().now }) as { isPictureHeld: boolean }).isPictureHeld;
    };
    const { machine, sheetVersion } = getMachine(db, withoutSketch);
    const { belt: _, ...sheet } = machine.sheet;
    replaceSheet(db, clock.doing(), {
      machineId: withoutSketch,
      basedOnVersion: sheetVersion,
      machine: { ...machine, sheet } as typeof machine,
      reason: "no sketch of this one",
    });
    expect(isHeld(withoutSketch)).toBe(false);
    const picture = { mime: "image/jpeg", bytes: Buffer.from("picture") };
    const { photographId } = addMachinePhotograph(db, clock.doing(), { machineId: withoutSketch, about: "belt-path", picture });
    expect(isHeld(withoutSketch)).toBe(true);
    takeBackMachinePhotograph(db, clock.doing(), { machineId: withoutSketch, photographId });
    expect(isHeld(withoutSketch)).toBe(false);
    expect(isHeld("zt-1")).toBe(true);
  });
});

describe("pictures kept with a machine", () => {
  const picture = { mime: "image/jpeg", bytes: Buffer.from("picture") };

  it("come back as they were taken, the newest first, and belong to their machine alone", () => {
    const first = addMachinePhotograph(db, clock.doing(), { machineId: "zt-1", about: "belt-path", picture });
    const second = addMachinePhotograph(db, clock.doing(), { machineId: "zt-1", about: "belt-path", picture });
    expect(machinePhotographs(db, "zt-1").map(({ id }) => id)).toEqual([second.photographId, first.photographId]);
    expect(machinePhotographOf(db, "zt-1", first.photographId)).toEqual(picture);
    expect(() => machinePhotographOf(db, "zt-2", first.photographId)).toThrow("photograph-not-found");
    expect(getJobView(db, openJob(db, clock)).kept).toHaveLength(2);
    expect(() => db.prepare("DELETE FROM machine_photographs").run()).toThrow("never erased");
  });

  it("taken back are out of sight, there and at their address, and stay in the record with who took them back", () => {
    const { photographId } = addMachinePhotograph(db, clock.doing(), { machineId: "zt-1", about: "timing", picture });
    const takeBack = () => takeBackMachinePhotograph(db, clock.doing(), { machineId: "zt-1", photographId });
    expect(refusedFor(() => takeBackMachinePhotograph(db, clock.doing(), { machineId: "zt-2", photographId }))[0]).toBe("nothing-to-undo");
    takeBack();
    expect(machinePhotographs(db, "zt-1").map(({ id }) => id)).not.toContain(photographId);
    expect(() => machinePhotographOf(db, "zt-1", photographId)).toThrow("photograph-not-found");
    expect(refusedFor(takeBack)[0]).toBe("nothing-to-undo");
    expect(db.prepare("SELECT who FROM machine_photographs_taken_back").all()).toEqual([{ who: "AK" }]);
    expect(db.prepare("SELECT count(*) AS n FROM machine_photographs WHERE id = ?").get(photographId)).toEqual({ n: 1 });
  });

  it("are as many as a machine may keep", () => {
    for (let k = 0; k < MOST_PHOTOGRAPHS; k++) addMachinePhotograph(db, clock.doing(), { machineId: "zt-2", about: "timing", picture });
    expect(refusedFor(() => addMachinePhotograph(db, clock.doing(), { machineId: "zt-2", about: "timing", picture }))[0]).toBe(
      "photographs-full",
    );
  });

  it("are pictures, of something that is kept", () => {
    expect(newMachinePhotographSchema.safeParse({ about: "belt-path", dataUrl: "data:text/html;base64,PGI+" }).success).toBe(false);
    expect(newMachinePhotographSchema.safeParse({ about: "cat", dataUrl: "data:image/png;base64,AAAA" }).success).toBe(false);
  });
});
