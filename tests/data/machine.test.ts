import { beforeEach, describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import type { CheckRow } from "@/core/catalogue";
import { checkRow } from "@/core/checks";
import { SHEETS, type Spoil, spoilsOf, with_ } from "@/core/checks/every-answer.fixtures";
import { soundReadings, spoiled } from "@/core/checks/sound";
import { allYes, itemsFor } from "@/core/job/safety";
import { deckSteps } from "@/core/job/sequences/deck-off";
import { usualMove } from "@/core/job/sequences/moves.fixtures";
import { mayRun, putBackPoints } from "@/core/job/status";
import { machineSchema } from "@/core/machine";
import { recordFinding, recordTake } from "@/data/checks/takes";
import { getBay } from "@/data/fleet/bay";
import { takeComplaint } from "@/data/job/complaints";
import { recordDeckMove } from "@/data/job/deck";
import {
  closeJob,
  recordAnswer,
  recordFix,
  recordHandover,
  recordHold,
  recordJobEvent,
  recordRelease,
  undoStep,
} from "@/data/job/job-actions";
import { getJobView } from "@/data/job/job-view";
import { recordConfirmation, recordLift, recordPutBack } from "@/data/job/safe-state";
import { getMachine, replaceSheet } from "@/data/machine/machines";
import { machineLog, stateOfMachine } from "@/data/projections/machine-state";
import { listEvents, logEvent, newEventSchema, voidEvent } from "@/data/service/events";
import { listOwed } from "@/data/service/owed";
import type { Db } from "@/data/store/db";
import { Clock, cutWith, emptyDepot, LEDGE_INCHES, LEVEL_INCHES, makeReady, makeSafe, openJob, refusedFor, tips } from "./helpers";

let db: Db;
let ak: Clock;
let bl: Clock;
beforeEach(() => {
  ({ db, clock: ak } = emptyDepot());
  bl = new Clock("BL");
});

const ZT = "zt-1";
const random = seededRandom(9);
const sheet = (check: string, spoils: Record<string, unknown> = {}, machineId = ZT) =>
  JSON.parse(
    JSON.stringify(spoiled(soundReadings({ machine: getMachine(db, machineId).machine, check, random, turf: "Verge" }) ?? {}, spoils)),
  );
const CRACK = { "blades.left.crack": "cracked" };
const take = (clock: Clock, jobId: number, checkId: string, readings: unknown, more: object = {}) =>
  recordTake(db, clock.doing(), { jobId, checkId, readings, asTyped: {}, ...more });
const held = (machineId = ZT) => stateOfMachine(db, machineId).unsafe.map(({ key }) => key);
const WHY = "looked at again by two people";
const undoLast = (clock: Clock, jobId: number, reason = "") =>
  undoStep(db, clock.doing(), { jobId, stepId: getJobView(db, jobId).undoableStepId ?? 0, reason });

/** A job in which the left blade was found cracked. */
function crackedJob(clock = ak): number {
  const jobId = openJob(db, clock);
  makeSafe(db, clock, jobId, "raised");
  take(clock, jobId, "blade-edge", sheet("blade-edge", CRACK));
  return jobId;
}

describe("a stop found in one job", () => {
  it("binds every job of the machine, whoever has it: nothing is made ready, cut with, read running or proved", () => {
    crackedJob();
    const other = openJob(db, bl);
    expect(refusedFor(() => makeSafe(db, bl, other, "running"))).toEqual(["not-safe", "unsafe", "not-put-back", "locked-by"]);
    expect(refusedFor(() => cutWith(db, bl, other))).toEqual(["not-safe", "unsafe", "not-put-back", "locked-by", "not-ready"]);
    expect(refusedFor(() => take(bl, other, "tip-speed", sheet("tip-speed")))).toEqual(["not-safe", "state-needed"]);
    expect(getJobView(db, other).proof.gaps).toContainEqual(expect.objectContaining({ code: "open-on-machine" }));
    expect(getBay(db).held.map(({ machineId }) => machineId)).toEqual([ZT]);
    expect(getBay(db).jobs.every(({ isHeld }) => isHeld)).toBe(true);
  });

  it("binds a job that is opened after it was closed as far as it may be, and one in which it was already ready to run", () => {
    const first = openJob(db, ak);
    makeSafe(db, ak, first, "running");
    const second = openJob(db, bl);
    take(bl, second, "tip-speed", { spindles: { middle: { drivenPitchMetres: 0.1 } } });
    expect(refusedFor(() => cutWith(db, ak, first))).toEqual(["not-safe", "unsafe"]);
    expect(
      refusedFor(() => closeJob(db, bl.doing(), { jobId: second, causes: ["nothing-found"], words: "", unprovedReason: "no time" })),
    ).toEqual(["not-safe", "unsafe"]);
  });

  it("falls when another blade is in its place and read right, in whichever job; not by looking again", () => {
    crackedJob();
    const other = openJob(db, bl);
    take(bl, other, "blade-edge", sheet("blade-edge"));
    expect(held()).toHaveLength(1);
    logEvent(db, bl.doing(), { machineId: ZT, event: "blade-changed" });
    take(bl, other, "blade-edge", sheet("blade-edge"));
    expect(held()).toEqual([]);
  });

  it("falls when the blade was changed and its fit read; not by the fix alone", () => {
    const jobId = crackedJob();
    recordFix(db, ak.doing(), {
      jobId,
      fix: "replace-blades",
      cause: "blade-damaged",
      words: "",
      torqueHow: "wrench",
      torqueNewtonMetres: 122,
    });
    expect(held()).toHaveLength(1);
    take(ak, jobId, "blade-fit", sheet("blade-fit"));
    expect(held()).toEqual([]);
    makeReady(db, ak, jobId);
    cutWith(db, ak, jobId);
  });

  it("is not cleared by a look that says there is nothing, nor by the other blades", () => {
    const jobId = crackedJob();
    recordFinding(db, ak.doing(), { jobId, checkId: "blade-edge", result: "not-found", causes: ["blade-damaged", "blade-dull"], note: "" });
    expect(held()).toEqual(["stop:blade-edge:left"]);
    const others = sheet("blade-edge") as { blades: Record<string, unknown> };
    delete others.blades.left;
    take(ak, jobId, "blade-edge", others);
    expect(held()).toEqual(["stop:blade-edge:left"]);
  });

  it("holds when only looked at, too", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId, "raised");
    recordFinding(db, ak.doing(), { jobId, checkId: "blade-fit", result: "seen", causes: ["blade-loose"], note: "" });
    expect(held()).toEqual(["stop:blade-fit:machine#blade-loose"]);
    recordFinding(db, ak.doing(), { jobId, checkId: "blade-fit", result: "unclear", causes: ["blade-loose"], note: "" });
    expect(held()).toHaveLength(1);
  });
});

/** House rule: every stop of every worksheet blocks running and cutting in the record, not only in the core. */
describe("every stop against running and cutting", () => {
  const cases = SHEETS.filter(({ machine }) => machine.spindles.length > 0).flatMap((one): [string, (typeof SHEETS)[number], Spoil][] => {
    const stop = spoilsOf(one).find((spoil) => with_(one, spoil)?.verdict === "stop");
    return stop ? [[one.name, one, stop]] : [];
  });

  it.each(cases)("%s", (name, one, spoil) => {
    const machineId = (name.split(" of ")[1] ?? "").toLowerCase();
    const row = checkRow(one.check.id) as CheckRow;
    const jobId = openJob(db, ak, machineId);
    if (row.state === "running") makeReady(db, ak, jobId, machineId);
    else makeSafe(db, ak, jobId, row.state, machineId);
    const readings = JSON.parse(JSON.stringify(spoiled(one.sound, { [spoil.path]: spoil.value })));
    expect(take(ak, jobId, one.check.id, readings).assessment.verdict).toBe("stop");
    const other = openJob(db, bl, machineId);
    expect(refusedFor(() => makeSafe(db, bl, other, "running", machineId))).toContain("unsafe");
    expect(refusedFor(() => cutWith(db, bl, other))).toContain("unsafe");
    expect(refusedFor(() => cutWith(db, ak, jobId))).toContain("unsafe");
  });
});

describe("undo and correction of what holds", () => {
  it("a hold by word is not undone; it is released, for a reason, and that is said", () => {
    const jobId = openJob(db, ak);
    recordHold(db, ak.doing(), { jobId, reason: "waits for the insurer" });
    expect(refusedFor(() => undoLast(ak, jobId))).toEqual(["hold-stands"]);
    const [key = ""] = held();
    const release =
      (reason: string, what = key) =>
      () =>
        recordRelease(db, ak.doing(), { jobId, reasons: [{ key: what, reason }] });
    expect(refusedFor(release("ok"))).toEqual(["invalid", "reason-of-substance"]);
    expect(refusedFor(release(WHY, "hold:999"))).toEqual(["changed-since"]);
    expect(held()).toHaveLength(1);
    release("the insurer has been here")();
    expect([held(), stateOfMachine(db, ZT).released]).toEqual([[], []]);
  });

  it("taking back the take that stopped it is a correction that says so: without a reason it stays", () => {
    const jobId = crackedJob();
    expect(refusedFor(() => undoLast(ak, jobId))).toEqual(["invalid", "reason-of-substance"]);
    expect([held().length, getJobView(db, jobId).takes.length]).toEqual([1, 1]);
    undoLast(ak, jobId, "that was the other machine's blade");
    expect(held()).toEqual([]);
    expect(getJobView(db, jobId).steps.at(-1)?.data).toEqual({ reason: "that was the other machine's blade" });
  });

  it("so is a correction that is no stop; one that still is wants none", () => {
    const jobId = crackedJob();
    const correctsStepId = getJobView(db, jobId).takes[0]?.stepId;
    const correct = (readings: unknown, more = {}) => take(ak, jobId, "blade-edge", readings, { correctsStepId, ...more });
    expect(refusedFor(() => correct(sheet("blade-edge")))).toEqual(["invalid", "reason-of-substance"]);
    correct(sheet("blade-edge", { ...CRACK, "blades.right.A.edge": "dull" }));
    expect(held()).toHaveLength(1);
    const again = getJobView(db, jobId).takes[0]?.stepId;
    take(ak, jobId, "blade-edge", sheet("blade-edge"), { correctsStepId: again, reason: "a scratch in the paint, no crack" });
    expect(held()).toEqual([]);
  });

  it("no word lets go of what can fly, however good the reason: not a crack, a loose blade, nor one that touches", () => {
    const jobId = crackedJob();
    const by = (key: string) => () => recordRelease(db, ak.doing(), { jobId, reasons: [{ key, reason: "the boss wants it out today" }] });
    expect(refusedFor(by("stop:blade-edge:left"))).toEqual(["invalid", "not-by-word"]);
    take(ak, jobId, "blade-fit", sheet("blade-fit", { "blades.left.tightened": "loose", "blades.left.torqueNewtonMetres": undefined }));
    expect(refusedFor(by("stop:blade-fit:left"))).toEqual(["invalid", "not-by-word"]);
    // Together with a word that may be let go of neither goes.
    recordHold(db, ak.doing(), { jobId, reason: "kept for the insurer" });
    const word = held().find((key) => key.startsWith("hold:")) ?? "";
    const both = [word, "stop:blade-edge:left"].map((key) => ({ key, reason: WHY }));
    expect(refusedFor(() => recordRelease(db, ak.doing(), { jobId, reasons: both }))).toEqual(["invalid", "not-by-word"]);
    expect(held()).toHaveLength(3);
  });

  it("what cannot fly is released by word: written down as not read, owed, in the way of proof until it is read right", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId, "parked");
    const high = Object.fromEntries(
      ["left-drive", "left-caster", "right-caster", "right-drive"].map((id, k) => [id, { pressurePascals: k ? 124_000 : 170_000 }]),
    );
    take(ak, jobId, "tyre-pressure", { tyres: high });
    const [key = ""] = held();
    expect(key).toBe("stop:tyre-pressure:left-drive");
    recordRelease(db, ak.doing(), { jobId, reasons: [{ key, reason: WHY }] });
    expect(stateOfMachine(db, ZT).released.map(({ by, reason }) => [by, reason])).toEqual([["AK", WHY]]);
    expect(getJobView(db, jobId).proof.gaps.map(({ code }) => code)).toContain("released-unread");
    undoLast(ak, jobId);
    expect(held()).toEqual([key]);
    take(ak, jobId, "tyre-pressure", { tyres: Object.fromEntries(Object.keys(high).map((id) => [id, { pressurePascals: 82_737 }])) });
    expect(stateOfMachine(db, ZT).released).toEqual([]);
  });

  it("taking back a strike told, or the fix that handed it over, wants a reason", () => {
    const walk = openJob(db, ak, "wp-1");
    makeSafe(db, ak, walk, "locked-out", "wp-1");
    recordFix(db, ak.doing(), { jobId: walk, fix: "hand-to-engine-shop", cause: "crankshaft-bent", words: "" });
    expect(held("wp-1")).toHaveLength(1);
    expect(refusedFor(() => undoLast(ak, walk))).toEqual(["invalid", "reason-of-substance"]);
    recordJobEvent(db, ak.doing(), { jobId: walk, event: "struck" });
    expect(refusedFor(() => undoLast(ak, walk))).toEqual(["invalid", "reason-of-substance"]);
  });

  it("a released line in the log is no release: it is refused at the border", () => {
    expect(newEventSchema.safeParse({ event: "released" }).success).toBe(false);
    expect(newEventSchema.safeParse({ event: "struck" }).success).toBe(true);
  });
});

describe("a lock-out and its owner", () => {
  const confirm = (clock: Clock, jobId: number, state: Parameters<typeof makeSafe>[3]) => () => makeSafe(db, clock, jobId, state);

  it("is not lowered by another's word, in that job or another; joining it is no lowering", () => {
    const [mine, theirs] = [openJob(db, ak), openJob(db, bl)];
    confirm(ak, mine, "raised")();
    expect(refusedFor(confirm(bl, theirs, "parked"))).toEqual(["not-safe", "locked-by"]);
    expect(refusedFor(confirm(bl, mine, "running"))).toEqual(["not-safe", "not-put-back", "locked-by"]);
    confirm(bl, theirs, "locked-out")();
    expect(stateOfMachine(db, ZT)).toMatchObject({ stands: { state: "raised", who: "AK" }, locks: [{ who: "AK" }, { who: "BL" }] });
    expect(refusedFor(confirm(ak, mine, "parked"))).toEqual(["not-safe", "locked-by"]);
  });

  it("is lifted by its owner at a word, by another with a reason that is recorded", () => {
    const jobId = openJob(db, ak);
    confirm(ak, jobId, "locked-out")();
    expect(refusedFor(() => recordLift(db, bl.doing(), { jobId, owner: "AK", reason: "ok" }))).toEqual(["invalid", "reason-of-substance"]);
    recordLift(db, bl.doing(), { jobId, owner: "AK", reason: "AK went home, telephoned him" });
    expect(stateOfMachine(db, ZT)).toMatchObject({ locks: [] });
    expect(getJobView(db, jobId).steps.at(-1)).toMatchObject({ kind: "lift", who: "BL", data: { owner: "AK" } });
    expect(refusedFor(() => recordLift(db, bl.doing(), { jobId, owner: "AK", reason: WHY }))).toEqual(["changed-since"]);
    confirm(ak, jobId, "locked-out")();
    recordLift(db, ak.doing(), { jobId, owner: "AK", reason: "" });
    expect(stateOfMachine(db, ZT).stands).toBeUndefined();
  });

  it("is not taken off by another's undo; by his own it leaves nothing standing", () => {
    const jobId = openJob(db, ak);
    confirm(ak, jobId, "locked-out")();
    expect(refusedFor(() => undoLast(bl, jobId))).toEqual(["not-safe", "locked-by"]);
    undoLast(ak, jobId);
    expect(stateOfMachine(db, ZT)).toMatchObject({ locks: [] });
    expect(stateOfMachine(db, ZT).stands).toBeUndefined();
  });

  it("is not let go of by another's telling that the machine was run: that wants words, ends what was confirmed, and leaves the lock-out", () => {
    const jobId = openJob(db, ak);
    confirm(ak, jobId, "locked-out")();
    const other = openJob(db, bl);
    const tell = (words?: string) => () => recordJobEvent(db, bl.doing(), { jobId: other, event: "run", ...(words ? { words } : {}) });
    expect(refusedFor(tell())).toEqual(["invalid", "run-against-reasons"]);
    expect(refusedFor(tell("ok"))).toEqual(["invalid", "run-against-reasons"]);
    expect(refusedFor(() => logEvent(db, bl.doing(), { machineId: ZT, event: "run" }))).toEqual(["invalid", "run-against-reasons"]);
    tell("TV drove it round the yard before he saw the tag")();
    expect(stateOfMachine(db, ZT)).toMatchObject({ locks: [{ who: "AK" }], lapsed: { state: "locked-out", who: "AK" } });
    expect(refusedFor(() => take(ak, jobId, "blade-edge", sheet("blade-edge")))).toEqual(["not-safe", "state-needed"]);
    undoLast(bl, other);
    expect(stateOfMachine(db, ZT).locks).toMatchObject([{ who: "AK" }]);
  });

  it("is let go of by its owner's telling that it was run: who says so is not locked on to it", () => {
    const jobId = openJob(db, ak);
    confirm(ak, jobId, "locked-out")();
    const told = recordJobEvent(db, ak.doing(), { jobId, event: "run", words: "moved it to the other bay myself" });
    expect(told.stepId).toBeGreaterThan(0);
    expect(stateOfMachine(db, ZT).locks).toEqual([]);
  });

  it("a firm point refused later ends the state, with the words of the point on the record", () => {
    const jobId = openJob(db, ak);
    confirm(ak, jobId, "locked-out")();
    const items = itemsFor(getMachine(db, ZT).machine, "locked-out");
    const { outcome, stoppedAt } = recordConfirmation(db, bl.doing(), {
      jobId,
      state: "locked-out",
      answers: { isolated: { answer: "refused" } },
    });
    expect([outcome, stoppedAt]).toEqual(["stopped", ["isolated"]]);
    expect(getJobView(db, jobId).steps.at(-1)?.data).toMatchObject({ stoppedAt: [items.find(({ id }) => id === "isolated")?.text] });
    expect(stateOfMachine(db, ZT).stands).toBeUndefined();
  });

  it("a state its kind does not have, and a part it does not have, are refused", () => {
    const walk = openJob(db, ak, "wp-1");
    const answers = allYes(itemsFor(getMachine(db, "wp-1").machine, "deck-removed"));
    expect(refusedFor(() => recordConfirmation(db, ak.doing(), { jobId: walk, state: "deck-removed", answers }))).toEqual([
      "invalid",
      "state-not-of-this-kind",
    ]);
    const bench = allYes(itemsFor(getMachine(db, "wp-1").machine, "bench"));
    expect(refusedFor(() => recordConfirmation(db, ak.doing(), { jobId: walk, state: "bench", answers: bench, parts: ["moon"] }))).toEqual([
      "invalid",
      "unknown-part",
    ]);
  });
});

describe("put back, ready, cut, close", () => {
  const points = () => putBackPoints(getMachine(db, ZT).machine, stateOfMachine(db, ZT));

  it("in that order: neither ready nor cut before it was put back, and lead or battery is last on riders too", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId, "raised");
    recordFix(db, ak.doing(), { jobId, fix: "replace-blades", cause: "blade-dull", words: "" });
    take(ak, jobId, "blade-fit", sheet("blade-fit"));
    expect(refusedFor(() => makeSafe(db, ak, jobId, "running"))).toEqual(["not-safe", "blades-not-turned", "not-put-back"]);
    expect(points().at(-1)?.id).toBe("power-last");
    const answers = allYes(points());
    delete (answers as Record<string, unknown>)["turned:middle"];
    expect(refusedFor(() => recordPutBack(db, ak.doing(), { jobId, answers }))).toEqual(["invalid", "unanswered"]);
    recordPutBack(db, ak.doing(), { jobId, answers: allYes(points()) });
    makeSafe(db, ak, jobId, "running");
    cutWith(db, ak, jobId);
  });

  it("a blade that touches when it is turned by hand is a stop, until it was turned free", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId, "raised");
    recordFix(db, ak.doing(), { jobId, fix: "replace-blades", cause: "blade-dull", words: "" });
    const { outcome } = recordPutBack(db, ak.doing(), { jobId, answers: { ...allYes(points()), "turned:middle": { answer: "refused" } } });
    expect([outcome, held()]).toEqual(["stopped", ["touches:middle"]]);
    expect(refusedFor(() => makeSafe(db, ak, jobId, "running"))).toContain("unsafe");
    expect(refusedFor(() => undoLast(ak, jobId))).toEqual(["invalid", "reason-of-substance"]);
    recordPutBack(db, ak.doing(), { jobId, answers: allYes(points()) });
    expect(held()).toEqual([]);
  });

  it("bolts that no wrench was put on are owed one", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId, "raised");
    recordFix(db, ak.doing(), { jobId, fix: "replace-blades", cause: "blade-dull", words: "" });
    recordPutBack(db, ak.doing(), { jobId, answers: { ...allYes(points()), bolts: { answer: "not-here", reason: "wrench is lent out" } } });
    closeJob(db, ak.doing(), { jobId, causes: ["blade-dull"], words: "", unprovedReason: "no grass today" });
    expect(listOwed(db, ZT).map(({ code }) => code)).toContain("bolts-by-wrench");
  });

  it("by wrench needs its figure in a fix as in the worksheet; ten times the sheet's is refused, by feel is owed a wrench", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId, "raised");
    const fix = (more: object) => () =>
      recordFix(db, ak.doing(), { jobId, fix: "replace-blades", cause: "blade-dull", words: "", ...more });
    const wanted = getMachine(db, ZT).machine.sheet.bladeBoltTorqueNewtonMetres ?? 0;
    expect(refusedFor(fix({ torqueHow: "wrench" }))).toEqual(["invalid", "wrench-without-figure"]);
    expect(refusedFor(fix({ torqueHow: "wrench", torqueNewtonMetres: 10 * wanted }))).toEqual(["invalid", "torque-not-credible"]);
    expect(refusedFor(fix({ torqueHow: "by-feel", torqueNewtonMetres: wanted }))).toEqual(["invalid", "torque-without-wrench"]);
    fix({ torqueHow: "by-feel" })();
    closeJob(db, ak.doing(), { jobId, causes: ["blade-dull"], words: "", unprovedReason: "no grass today" });
    expect(listOwed(db, ZT).map(({ code }) => code)).toContain("bolts-by-wrench");
  });

  it("a deck taken off in one job is off in every other, and goes on from there", () => {
    const first = openJob(db, ak, "bd-1");
    makeSafe(db, ak, first, "locked-out", "bd-1");
    const off = (clock: Clock, jobId: number) => {
      const step = getJobView(db, jobId).deck.next?.step;
      const counts = Object.fromEntries((step?.parts ?? []).map(({ id, count }) => [id, count]));
      recordDeckMove(db, clock.doing(), { jobId, way: "off", step: step?.id ?? "", counts });
    };
    off(ak, first);
    const second = openJob(db, bl, "bd-1");
    expect(getJobView(db, second).deck.where).toBe("coming-off");
    off(bl, second);
    expect(getJobView(db, first).deck.done).toHaveLength(2);
    expect(refusedFor(() => undoLast(ak, first))).toEqual(["changed-since"]);
    expect(refusedFor(() => makeSafe(db, bl, second, "running", "bd-1"))).toContain("deck-off");
    expect(refusedFor(() => recordPutBack(db, bl.doing(), { jobId: second, answers: {} }))).toEqual(["not-safe", "locked-by"]);
    expect(refusedFor(() => recordPutBack(db, ak.doing(), { jobId: first, answers: {} }))).toEqual(["not-safe", "deck-off"]);
  });
});

describe("a deck and the order it comes off in", () => {
  const moveOn = (jobId: number) => {
    const next = getJobView(db, jobId).deck.next;
    const { way = "off", step } = next ?? {};
    const move = usualMove(step as NonNullable<typeof step>, way);
    return recordDeckMove(db, ak.doing(), { jobId, way, step: move.step, counts: move.counts, answers: move.answers ?? {} });
  };
  const reordered = (change: (steps: { id: string; words: string; parts: never[] }[]) => object[]) => {
    const { machine, sheetVersion } = getMachine(db, "bd-1");
    const deckOff = machine.sheet.deckOff as NonNullable<typeof machine.sheet.deckOff>;
    const next = { ...machine, sheet: { ...machine.sheet, deckOff: { ...deckOff, steps: change(deckOff.steps as never) } } };
    return replaceSheet(db, ak.doing(), {
      machineId: "bd-1",
      basedOnVersion: sheetVersion,
      machine: machineSchema.parse(next),
      reason: "as we do it",
    });
  };
  const withChute = () => reordered((steps) => [...steps.slice(0, 3), { id: "chute", words: "Chute off", parts: [] }, ...steps.slice(3)]);

  it("the order is not changed under a deck that is off; other words of a step are", () => {
    const jobId = openJob(db, ak, "bd-1");
    makeSafe(db, ak, jobId, "locked-out", "bd-1");
    moveOn(jobId);
    expect(refusedFor(withChute)).toContain("deck-is-off");
    expect(getJobView(db, jobId).deck.done).toHaveLength(1);
    expect(() => reordered((steps) => steps.map((step) => ({ ...step, words: `${step.words}, slowly` })))).not.toThrow();
  });

  it("a deck that was off and is on again is on by a longer order too, and comes off by it", () => {
    const jobId = openJob(db, ak, "bd-1");
    makeSafe(db, ak, jobId, "locked-out", "bd-1");
    const { off, on } = deckSteps(getMachine(db, "bd-1").machine);
    for (let k = 0; k < off.length + on.length; k++) moveOn(jobId);
    expect(listEvents(db, "bd-1").filter(({ event }) => event === "deck-off")).toHaveLength(1);
    withChute();
    expect(getJobView(db, jobId).deck).toMatchObject({ where: "on", done: [] });
    expect(stateOfMachine(db, "bd-1").apart).toEqual([]);
    for (let k = 0; k < 4; k++) moveOn(jobId);
    expect(getJobView(db, jobId).deck.done.at(-1)?.step.id).toBe("chute");
    expect(stateOfMachine(db, "bd-1").apart).toEqual([{ what: "deck", where: "coming-off" }]);
  });
});

describe("order is by the log, not by the clock", () => {
  it("a clock set back an hour neither keeps a safe state alive over a run nor lets a fix through after it", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId, "raised");
    const back = { who: "BL", now: "2026-05-04T05:00:00.000Z" };
    recordJobEvent(db, back, { jobId: openJob(db, ak), event: "run", words: "driven off its stands by the night shift" });
    expect(refusedFor(() => recordFix(db, ak.doing(), { jobId, fix: "replace-blades", cause: "blade-dull", words: "" }))).toEqual([
      "not-safe",
      "state-needed",
    ]);
    expect(stateOfMachine(db, ZT).stands).toBeUndefined();
  });

  it("a level read by a clock an hour slow is not stale by what was done before it", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId);
    recordFix(db, ak.doing(), { jobId, fix: "adjust-hangers", cause: "deck-out-of-level", words: "" });
    recordTake(
      db,
      { who: "AK", now: "2026-05-04T05:00:00.000Z" },
      { jobId, checkId: "deck-level", readings: tips(LEVEL_INCHES), asTyped: {} },
    );
    expect(getJobView(db, jobId).takes[0]?.stale).toEqual([]);
  });

  it("a correction keeps the place of what it corrects: a slip put right after the fix is no reading after the fix", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId);
    const { stepId } = take(ak, jobId, "deck-level", tips(LEDGE_INCHES));
    recordFix(db, ak.doing(), { jobId, fix: "adjust-hangers", cause: "deck-out-of-level", words: "" });
    take(ak, jobId, "deck-level", tips(LEVEL_INCHES), { correctsStepId: stepId });
    const [level] = getJobView(db, jobId).takes;
    expect([level?.stale.length, level?.verdict]).toEqual([1, "in-tolerance"]);
    expect(getJobView(db, jobId).proof.gaps.map(({ code }) => code)).toContain("not-read-again");
    take(ak, jobId, "deck-level", tips(LEVEL_INCHES));
    expect(getJobView(db, jobId).proof.gaps.map(({ code }) => code)).not.toContain("not-read-again");
  });

  it("a correction of a correction stands where the first slip stood", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId);
    const first = take(ak, jobId, "deck-level", tips(LEDGE_INCHES));
    const second = take(ak, jobId, "deck-level", tips(LEVEL_INCHES), { correctsStepId: first.stepId });
    take(ak, jobId, "deck-level", tips(LEVEL_INCHES), { correctsStepId: second.stepId });
    const root = getJobView(db, jobId).steps.find(({ id }) => id === first.stepId);
    expect(getJobView(db, jobId).takes.map(({ seq, at }) => [seq, at])).toEqual([[root?.seq, root?.at]]);
  });
});

describe("a strike told at intake", () => {
  const complain = (more: object) =>
    takeComplaint(db, ak.doing(), {
      machineId: ZT,
      words: "shakes",
      saidBy: "TV",
      place: "Apron verge",
      looks: { symptoms: ["vibration"], denied: [], contexts: ["struck-object"] },
      ...more,
    });

  it("stands on the machine's log with what, where on the site and whether it ran on, and nothing runs before each look", () => {
    const { jobId } = complain({ strike: { words: "a sprinkler head", where: "by the pump house", place: "right", droveOn: true } });
    const { struck } = stateOfMachine(db, ZT);
    expect(struck).toMatchObject({ words: "a sprinkler head", where: "by the pump house", place: "right", droveOn: true });
    expect(refusedFor(() => makeSafe(db, ak, jobId, "running"))).toEqual(["not-safe", "struck-not-looked", "blades-not-turned"]);
    expect(getJobView(db, jobId).ticked.map(({ context }) => context)).toContain("struck-object");
  });

  it("told by mistake it is taken back like one logged by hand, with a reason; one that a telephone answer told goes with its answer", () => {
    const strikeOf = (machineId: string) => listEvents(db, machineId).findLast(({ event }) => event === "struck")?.id ?? 0;
    const takeBack = (machineId: string, reason: string) => () =>
      voidEvent(db, bl.doing(), { machineId, eventId: strikeOf(machineId), reason });
    const { jobId } = complain({ strike: { words: "a kerb", where: "" } });
    expect(refusedFor(takeBack(ZT, "ok"))).toEqual(["invalid", "reason-of-substance"]);
    expect(stateOfMachine(db, ZT).struck?.words).toBe("a kerb");
    takeBack(ZT, "it was the other mower, seen")();
    expect(stateOfMachine(db, ZT).struck).toBeUndefined();
    makeSafe(db, ak, jobId, "running");
    const other = openJob(db, ak, "zt-2");
    recordAnswer(db, ak.doing(), { jobId: other, contexts: { "struck-object": true }, strike: { words: "a root", where: "" } });
    expect(refusedFor(takeBack("zt-2", WHY))).toEqual(["nothing-to-undo"]);
    expect(refusedFor(() => undoLast(ak, other))).toEqual(["invalid", "reason-of-substance"]);
    undoLast(ak, other, WHY);
    expect(stateOfMachine(db, "zt-2").struck).toBeUndefined();
  });

  it("told without more it stands there too, once; over the telephone likewise", () => {
    complain({});
    complain({});
    expect(machineLog(db, ZT).filter((line) => line.kind === "event" && line.event === "struck")).toHaveLength(1);
    const other = openJob(db, ak, "zt-2");
    recordAnswer(db, ak.doing(), { jobId: other, contexts: { "struck-object": true }, strike: { words: "a root", where: "" } });
    expect(stateOfMachine(db, "zt-2").struck?.words).toBe("a root");
  });

  it("a job with struck parts nobody looked at is not proved, and unproved owes the looks", () => {
    const { jobId } = complain({});
    expect(getJobView(db, jobId).proof.gaps.map((gap) => (gap.code === "open-on-machine" ? gap.reason.code : gap.code))).toContain(
      "struck-not-looked",
    );
    closeJob(db, ak.doing(), { jobId, causes: ["nothing-found"], words: "", unprovedReason: "goes to the shop" });
    expect(listOwed(db, ZT).some(({ detail }) => detail && "gap" in detail && detail.gap.code === "open-on-machine")).toBe(true);
    expect(stateOfMachine(db, ZT).struck).toBeDefined();
  });

  it("logged on the machine's page by hand and taken back without a reason it stays", () => {
    const { eventId } = logEvent(db, ak.doing(), { machineId: ZT, event: "struck" });
    expect(refusedFor(() => voidEvent(db, ak.doing(), { machineId: ZT, eventId }))).toEqual(["invalid", "reason-of-substance"]);
    expect(stateOfMachine(db, ZT).struck).toBeDefined();
  });
});

describe("two at one job", () => {
  it("a reading that another has just taken is shown before mine replaces it; my own does not stand in my way", () => {
    const jobId = openJob(db, ak);
    makeSafe(db, ak, jobId, "locked-out");
    const first = take(ak, jobId, "deck-level", tips(LEDGE_INCHES), { seenStepId: 0 });
    expect(refusedFor(() => take(bl, jobId, "deck-level", tips(LEVEL_INCHES), { seenStepId: 0 }))).toEqual(["read-since", "read-since"]);
    take(ak, jobId, "deck-level", tips(LEDGE_INCHES), { seenStepId: 0 });
    const last = take(bl, jobId, "deck-level", tips(LEVEL_INCHES), { seenStepId: first.stepId + 1 });
    expect(getJobView(db, jobId).takes.at(-1)?.stepId).toBe(last.stepId);
  });

  it("a machine's kept state is what its log folds to, after every kind of change", () => {
    const jobId = crackedJob();
    makeSafe(db, bl, openJob(db, bl), "raised");
    logEvent(db, ak.doing(), { machineId: ZT, event: "blade-changed" });
    take(ak, jobId, "blade-edge", sheet("blade-edge"));
    const kept = stateOfMachine(db, ZT);
    db.prepare("DELETE FROM machine_states").run();
    expect(stateOfMachine(db, ZT)).toEqual(JSON.parse(JSON.stringify(kept)));
    expect(mayRun(kept, { to: "prove" }).reasons.map(({ code }) => code)).toEqual(["blades-not-turned"]);
  });
});

describe("a part handed over", () => {
  it("goes with what is owed on it, by when, and the job stays open", () => {
    const jobId = openJob(db, ak, "gr-1");
    recordHandover(db, ak.doing(), {
      jobId,
      what: "left gearbox",
      to: "gear shop",
      owes: ["new seal", "oil after standing"],
      dueAt: "2026-06-01",
    });
    expect(getJobView(db, jobId).state).toBe("in-work");
    expect(
      listOwed(db, "gr-1").map(({ code, dueAt, detail }) => [code, dueAt.slice(0, 10), detail && "owes" in detail && detail.owes]),
    ).toEqual([
      ["handed-over", "2026-06-01", "new seal"],
      ["handed-over", "2026-06-01", "oil after standing"],
    ]);
    undoLast(ak, jobId);
    expect(listOwed(db, "gr-1")).toEqual([]);
  });
});
