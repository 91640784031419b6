import { beforeEach, describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import type { HeightReadings } from "@/core/checks";
import { soundReadings, spoiled } from "@/core/checks/sound";
import { pricks } from "@/core/checks/sound-basics";
import { EXPLAINED_LEVEL, workUp } from "@/core/diagnosis";
import { deckSteps } from "@/core/job/sequences/deck-off";
import { usualMoves } from "@/core/job/sequences/moves.fixtures";
import { putBackPoints } from "@/core/job/status";
import type { CheckContexts } from "@/data/checks/check-context";
import { getReckonerView } from "@/data/checks/reckoner";
import { recordTake, takesOfMachine } from "@/data/checks/takes";
import { takeComplaint } from "@/data/job/complaints";
import { newPhotographSchema, photographOf, recordDeckMove, recordPhotograph } from "@/data/job/deck";
import { closeJob, recordFix, undoStep } from "@/data/job/job-actions";
import { getJobView } from "@/data/job/job-view";
import { getMachine } from "@/data/machine/machines";
import type { Db } from "@/data/store/db";
import { type Clock, cutWith, emptyDepot, LEVEL_INCHES, makeReady, makeSafe, openJob, refusedFor, tips } from "./helpers";

let db: Db;
let clock: Clock;
const random = seededRandom(1);

beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

const sound = (machineId: string, check: string) =>
  soundReadings({ machine: getMachine(db, machineId).machine, check, random, turf: "Verge" }) ?? {};
const take = (jobId: number, checkId: string, readings: object, more: object = {}) =>
  recordTake(db, clock.doing(), { jobId, checkId, readings, asTyped: {}, ...more });

const heightsOf = ({ contexts }: { contexts: CheckContexts }) =>
  contexts["cutting-height"] as Pick<HeightReadings, "visits" | "rakeMetres">;

describe("a worksheet in the record", () => {
  it("keeps every number as a row with what was typed, and the whole input", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    const readings = { blades: { left: { lengthMetres: 0.43 }, middle: { lengthMetres: 0.431 }, right: { lengthMetres: 0.4318 } } };
    const { stepId } = take(jobId, "blade-overlap", readings, { asTyped: { "blades.left.lengthMetres": "430" } });
    const [row] = getJobView(db, jobId).takes;
    expect(row?.readings.map(({ place, quantity, value, asTyped }) => [place, quantity, value, asTyped])).toEqual([
      ["blades:left", "length_metres", 0.43, "430"],
      ["blades:middle", "length_metres", 0.431, undefined],
      ["blades:right", "length_metres", 0.4318, undefined],
    ]);
    expect([row?.stepId, row?.input]).toEqual([stepId, readings]);
  });

  it.each([
    ["of another value", { "blades.left.lengthMetres": "16 15/16" }, "as-typed-differs"],
    ["in words", { "blades.left.lengthMetres": "about a foot" }, "as-typed-differs"],
    ["of a place that was not read", { "blades.fourth.lengthMetres": "430" }, "as-typed-of-nothing"],
    ["under a name all objects have", { constructor: "430" }, "as-typed-of-nothing"],
  ])("is refused with a text %s beside it", (_, asTyped, code) => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    const readings = { blades: { left: { lengthMetres: 0.43 }, middle: { lengthMetres: 0.431 }, right: { lengthMetres: 0.4318 } } };
    expect(refusedFor(() => take(jobId, "blade-overlap", readings, { asTyped }))).toEqual(["invalid", code]);
    expect(take(jobId, "blade-overlap", readings, { asTyped: { "blades.left.lengthMetres": "43 cm" } }).stepId).toBeGreaterThan(0);
  });

  it("is corrected by another take whose changed rows point back; nothing is overwritten", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "parked");
    const first = take(jobId, "cutting-height", { settingMetres: 0.06, heightsMetres: [0.06, 0.062, 0.61 / 10] });
    take(jobId, "cutting-height", { settingMetres: 0.06, heightsMetres: [0.06, 0.062, 0.06] }, { correctsStepId: first.stepId });
    const rows = db.prepare("SELECT place, quantity, value, corrects_id FROM readings ORDER BY id").all() as {
      place: string;
      corrects_id: number | null;
    }[];
    expect(rows).toHaveLength(8);
    expect(rows.filter(({ corrects_id }) => corrects_id !== null).map(({ place }) => place)).toEqual(["machine:3"]);
    expect(getJobView(db, jobId).takes).toHaveLength(1);
  });

  it("is refused with its path where it contradicts the machine, and before the machine is safe", () => {
    const jobId = openJob(db, clock);
    expect(() => take(jobId, "blade-fit", sound("zt-1", "blade-fit"))).toThrow("not-safe");
    makeSafe(db, clock, jobId, "raised");
    expect(() => take(jobId, "blade-fit", { blades: { tail: { sail: "to-deck" } } })).toThrow("invalid");
    expect(getJobView(db, jobId).takes).toEqual([]);
  });

  it.each([null, {}, "thirty", 7, [1]])("refuses readings that are none (%o) with a sentence, and writes nothing", (readings) => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    expect(() => take(jobId, "blade-edge", readings as object)).toThrow("invalid");
    expect(() => take(jobId, "cutting-height", readings as object)).toThrow("invalid");
    expect(getJobView(db, jobId).takes).toEqual([]);
  });

  it("moves the diagnosis: blades seen upside down become the cause, seen right they go down", () => {
    const looks = { symptoms: ["torn-tips" as const, "clumps" as const], denied: [], contexts: [] };
    const chance = (jobId: number) => {
      const { causes } = workUp({ ...getJobView(db, jobId).case.input, order: "information" }).diagnosis;
      return causes.find(({ id }) => id === "blade-upside-down")?.presence ?? 0;
    };
    const taken = (machineId: string, spoils: Record<string, unknown>) => {
      const { jobId } = takeComplaint(db, clock.doing(), { machineId, words: "torn", saidBy: "TV", place: "", looks });
      const before = chance(jobId);
      makeSafe(db, clock, jobId, "raised", machineId);
      take(jobId, "blade-fit", spoiled(sound(machineId, "blade-fit"), spoils));
      return { before, after: chance(jobId) };
    };
    const wrong = taken("zt-1", { "blades.left.sail": "to-ground", "blades.left.leads": "back" });
    expect(wrong.after).toBeGreaterThan(Math.max(EXPLAINED_LEVEL, 3 * wrong.before));
    const right = taken("zt-3", {});
    expect(right.after).toBeLessThan(0.2 * right.before);
  });
});

describe("what the record brings to a check", () => {
  it("cutting height: earlier visits, one a job with what was read last, never the one in hand", () => {
    const visit = (offset: number) => {
      const jobId = openJob(db, clock, "bd-2");
      makeSafe(db, clock, jobId, "parked", "bd-2");
      pricked(jobId, offset);
      return jobId;
    };
    const pricked = (jobId: number, offset: number) =>
      take(
        jobId,
        "cutting-height",
        pricks({ settingMetres: 0.0635, offsetMetres: offset, spreadMetres: 0.002, random, turf: "South wing" }),
      );
    const first = visit(-0.004);
    pricked(first, -0.001);
    visit(-0.005);
    const jobId = visit(-0.009);
    const { visits } = heightsOf(getJobView(db, jobId, "2026-06-01T00:00:00.000Z"));
    expect(visits.map(({ turf, count }) => [turf, count])).toEqual([
      ["South wing", 10],
      ["South wing", 10],
    ]);
    expect(visits.every(({ ageDays }) => ageDays > 20)).toBe(true);
    const reckoner = getReckonerView(db, "bd-2", "2026-06-01T00:00:00.000Z");
    expect(visits.map(({ offsetMetres }) => Math.round(offsetMetres * 1000))).toEqual([
      expect.toSatisfy((mm: number) => mm < -3),
      expect.toSatisfy((mm: number) => mm > -3),
    ]);
    expect(heightsOf(reckoner).visits).toHaveLength(3);
    expect(reckoner.jobs.map(({ id }) => id)).toContain(jobId);
  });

  it("cutting height: the rake of the last level, until a hanger was touched", () => {
    const jobId = openJob(db, clock, "zt-1");
    makeSafe(db, clock, jobId, "locked-out");
    take(jobId, "deck-level", tips(LEVEL_INCHES));
    const rake = () => heightsOf(getJobView(db, jobId, "2026-06-01T00:00:00.000Z")).rakeMetres;
    expect(rake()).toBeLessThan(0);
    recordFix(db, clock.doing(), { jobId, fix: "adjust-hangers", cause: "deck-out-of-level", words: "" });
    expect(rake()).toBeUndefined();
  });

  it("deck-cleanliness: how often decks of that site were found packed", () => {
    const jobId = openJob(db, clock, "fd-1");
    makeSafe(db, clock, jobId, "raised", "fd-1");
    const clean = sound("fd-1", "deck-cleanliness");
    take(jobId, "deck-cleanliness", clean);
    take(jobId, "deck-cleanliness", spoiled(clean, { "pack.depthMetres": 0.03 }));
    expect(getJobView(db, jobId).contexts["deck-cleanliness"]).toEqual({ site: { looks: 2, packed: 1 } });
    expect(getReckonerView(db, "zt-1", "2026-06-01T00:00:00.000Z").contexts["deck-cleanliness"]).toEqual({});
  });
});

describe("the deck off and on", () => {
  const moveAll = (jobId: number, from: number, until?: number) => {
    const moves = usualMoves(deckSteps(getMachine(db, "bd-1").machine));
    for (const { way, step, counts, answers, sizes } of moves.slice(from, until))
      recordDeckMove(db, clock.doing(), { jobId, way, step, counts: { ...counts }, answers: { ...answers }, sizes: { ...sizes } });
    return moves.length;
  };

  it("keeps the job open while it is off, then owes the level, the belt and every blade seen to turn", () => {
    const jobId = openJob(db, clock, "bd-1");
    makeSafe(db, clock, jobId, "locked-out", "bd-1");
    moveAll(jobId, 0, 7);
    expect(getJobView(db, jobId).deck.where).toBe("off");
    const close = () => closeJob(db, clock.doing(), { jobId, causes: ["nothing-found"], words: "", unprovedReason: "no time" });
    expect(close).toThrow("invalid");
    expect(() => recordDeckMove(db, clock.doing(), { jobId, way: "on", step: "belt-slack", counts: {} })).toThrow("changed-since");
    const all = moveAll(jobId, 7);
    const view = getJobView(db, jobId);
    expect([view.deck.where, all]).toEqual(["on", 13]);
    expect(view.proof.gaps.map((gap) => ("check" in gap ? gap.check : gap.code))).toEqual(
      expect.arrayContaining(["deck-level", "belt-inspection"]),
    );
    expect(putBackPoints(view.machine.machine, view.machineState).map(({ id }) => id)).toEqual(
      expect.arrayContaining(["belt-seated", "turned:left"]),
    );
    expect(view.ticked.map(({ context }) => context)).toContain("deck-refitted");
  });

  it("refuses fewer parts back than came off, and an undone step comes again", () => {
    const jobId = openJob(db, clock, "bd-1");
    makeSafe(db, clock, jobId, "locked-out", "bd-1");
    moveAll(jobId, 0, 8);
    expect(() => recordDeckMove(db, clock.doing(), { jobId, way: "on", step: "front-link", counts: {} })).toThrow("invalid");
    const view = getJobView(db, jobId);
    undoStep(db, clock.doing(), { jobId, stepId: view.undoableStepId ?? 0, reason: "" });
    expect(getJobView(db, jobId).deck).toMatchObject({ where: "off", next: { way: "on", step: { id: "out" } } });
  });

  it("keeps a photograph as it was taken, and refuses what is none", () => {
    const jobId = openJob(db, clock, "bd-1");
    const picture = { mime: "image/jpeg", bytes: Buffer.from("picture") };
    const { stepId } = recordPhotograph(db, clock.doing(), { jobId, about: "belt", picture });
    expect(photographOf(db, stepId).bytes.toString()).toBe("picture");
    expect(getJobView(db, jobId).photographs).toMatchObject([{ stepId, about: "belt" }]);
    expect(newPhotographSchema.safeParse({ about: "x", dataUrl: "data:text/html;base64,PGI+" }).success).toBe(false);
    expect(() => photographOf(db, 9999)).toThrow("photograph-not-found");
    undoStep(db, clock.doing(), { jobId, stepId, reason: "" });
    expect(() => photographOf(db, stepId)).toThrow("photograph-not-found");
    expect(getJobView(db, jobId).photographs).toEqual([]);
    expect(() => db.prepare("DELETE FROM photographs").run()).toThrow("never erased");
  });
});

it("a job that disturbed a belt is not proved before a run saw every blade cut: turned by hand a dragging belt turns them too", () => {
  const jobId = openJob(db, clock, "zt-3");
  makeSafe(db, clock, jobId, "locked-out", "zt-3");
  recordFix(db, clock.doing(), { jobId, fix: "reseat-belt", cause: "belt-off", words: "" });
  const gaps = () => getJobView(db, jobId).proof.gaps.map(({ code }) => code);
  const look = (turns: string) => ({
    belt: { seated: "every-groove", path: "as-picture", state: "sound", width: "at-rim", tension: "right" },
    idlers: { state: "free", spring: "pulls" },
    guards: { state: "on" },
    spindles: { left: { turns: "turns" }, middle: { turns }, right: { turns: "turns" } },
  });
  expect(refusedFor(() => makeSafe(db, clock, jobId, "running", "zt-3"))).toEqual(["not-safe", "belt-not-seated", "not-put-back"]);
  take(jobId, "belt-inspection", look("turns"));
  makeReady(db, clock, jobId, "zt-3");
  cutWith(db, clock, jobId, { seenCutting: ["left", "right"] });
  expect(gaps()).toContain("blades-not-seen-cutting");
  expect(refusedFor(() => cutWith(db, clock, jobId, { seenCutting: ["left", "moon"] }))).toEqual(["invalid", "unknown-spindle"]);
  cutWith(db, clock, jobId, { seenCutting: ["left", "middle", "right"] });
  expect(gaps()).not.toContain("blades-not-seen-cutting");
});

it("a worn-short set is found, replaced, measured again and proved by a cut", () => {
  const jobId = openJob(db, clock, "zt-2");
  makeSafe(db, clock, jobId, "raised", "zt-2");
  const worn = take(jobId, "blade-overlap", { blades: { left: { lengthMetres: 0.517 }, right: { lengthMetres: 0.516 } } });
  expect(worn.assessment.verdict).toBe("out");
  recordFix(db, clock.doing(), { jobId, fix: "replace-blades", cause: "blade-worn-short", words: "" });
  expect(getJobView(db, jobId).takes[0]?.stale.length).toBeGreaterThan(0);
  take(jobId, "blade-overlap", sound("zt-2", "blade-overlap"));
  take(jobId, "blade-fit", sound("zt-2", "blade-fit"));
  makeReady(db, clock, jobId, "zt-2");
  cutWith(db, clock, jobId);
  expect(closeJob(db, clock.doing(), { jobId, causes: ["blade-worn-short"], words: "" }).isProved).toBe(true);
});

/** What is wrong on a machine for each worksheet, and the cause that shows it. */
const WRONG: readonly [check: string, machineId: string, spoils: Record<string, unknown>, cause: string][] = [
  ["turf-condition", "zt-1", { moisture: "wet" }, "too-wet-or-tall"],
  ["cutting-height", "zt-1", { settingMetres: 0.08 }, "height-misset"],
  ["hanger-inspection", "zt-1", { "hangers.left-rear.state": "missing" }, "hanger-failed"],
  ["anti-scalp-wheels", "zt-1", { "wheels.rim-left-front.clearanceMetres": 0.04 }, "anti-scalp-misset"],
  ["deck-cleanliness", "zt-1", { "pack.depthMetres": 0.03 }, "deck-packed"],
  ["blade-edge", "zt-1", { "blades.left.A.edge": "rounded" }, "blade-dull"],
  ["blade-fit", "zt-1", { "blades.left.stack": "washer-reversed" }, "blade-loose"],
  [
    "blade-track",
    "wp-1",
    { "blades.blade.markedMetres": 0.09, "blades.blade.swappedMarkedMetres": 0.08, "blades.blade.swappedOtherMetres": 0.09 },
    "blade-bent",
  ],
  ["blade-balance", "zt-1", { "blades.left.addedKilograms": 0.01 }, "blade-unbalanced"],
  ["blade-overlap", "zt-1", { "blades.left.lengthMetres": 0.4, "blades.middle.lengthMetres": 0.4 }, "blade-worn-short"],
];

it.each(WRONG)("%s on %s: wrong and right both reach the case, the machine's takes and its history", (check, machineId, spoils, cause) => {
  const told = (spoil: Record<string, unknown>) => {
    const jobId = openJob(db, clock, machineId);
    for (const state of ["parked", "locked-out", "raised", "bench"] as const) {
      makeSafe(db, clock, jobId, state, machineId);
      try {
        take(jobId, check, spoiled(sound(machineId, check), spoil));
        break;
      } catch (error) {
        if (!String(error).includes("not-safe")) throw error;
      }
    }
    const view = getJobView(db, jobId);
    const evidence = view.case.input.given.evidence.find((one) => "cause" in one && one.cause === cause);
    const weight = !evidence
      ? 1
      : "likelihoodRatio" in evidence
        ? evidence.likelihoodRatio
        : evidence.result === "seen"
          ? 1000
          : evidence.result === "not-found"
            ? 0.01
            : 1;
    return { weight, verdict: view.takes[0]?.verdict, kept: takesOfMachine(db, machineId).length };
  };
  const wrong = told(spoils);
  const right = told({});
  expect(wrong.verdict).toBe("out");
  expect(wrong.weight).toBeGreaterThan(3);
  expect(right.verdict).toBe("in-tolerance");
  expect(right.weight).toBeLessThan(0.6);
  expect(right.kept).toBe(2);
});
