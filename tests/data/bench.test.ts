import { beforeEach, describe, expect, it } from "vitest";
import { seededRandom } from "@/core/random";
import type { Ground } from "@/core/reel";
import { allYes, itemsFor } from "@/core/safety";
import type { Db } from "@/data/connection";
import { listEvents } from "@/data/events";
import { newFixSchema, recordFix, undoStep } from "@/data/job-actions";
import { knivesOf } from "@/data/knives";
import { stateOfMachine } from "@/data/machine-state";
import { getMachineView } from "@/data/machine-view";
import { getMachine } from "@/data/machines";
import { recordConfirmation } from "@/data/safe-state";
import { recordTake } from "@/data/takes";
import { soundReadings, spoiled } from "@/stories/sound-readings";
import { type Clock, emptyDepot, makeSafe, openJob, refusedFor } from "./helpers";

let db: Db;
let clock: Clock;
let jobId: number;
beforeEach(() => {
  ({ db, clock } = emptyDepot());
  jobId = openJob(db, clock, "rt-1");
});

const GROUND: Ground = {
  isClamped: true,
  top: { plannedMetres: 0.0002, inFeeds: 5, inFeedMetres: 0.00005, passes: 10 },
  front: { plannedMetres: 0, inFeeds: 0, inFeedMetres: 0.00005, passes: 0 },
};

const machine = () => getMachine(db, "rt-1").machine;
function onTheBench(): void {
  recordConfirmation(db, clock.doing(), {
    jobId,
    state: "bench",
    answers: allYes(itemsFor(machine(), "bench")),
    parts: machine().units.map(({ id }) => id),
  });
}
function read(check: string, changes: Record<string, unknown> = {}, job = jobId): void {
  const sound = soundReadings({ machine: machine(), check, random: seededRandom(9), turf: "Square" }) ?? {};
  recordTake(db, clock.doing(), { jobId: job, checkId: check, readings: spoiled(sound, changes), asTyped: {} });
}
const grind = (units?: string[], ground?: Ground) =>
  recordFix(db, clock.doing(), {
    jobId,
    fix: "grind-bedknife",
    cause: "edge-nicked",
    words: "",
    ...(units ? { units } : {}),
    ...(ground ? { ground } : {}),
  });
const statusOf = (unit: string, check: string) =>
  getMachineView(db, "rt-1", { now: clock.doing().now })
    .bench.find((one) => one.unit === unit)
    ?.cells.find((cell) => cell.check === check)?.status.kind;

describe("what is done to one unit", () => {
  beforeEach(() => {
    makeSafe(db, clock, jobId, "locked-out", "rt-1");
    read("reel-contact");
    read("reel-edge", { "units.left.nick": "knife" });
    onTheBench();
  });

  it("is logged at that unit: its contact is read again, its sisters' stands, in another job too", () => {
    grind(["left"]);
    expect(listEvents(db, "rt-1").map(({ event, place }) => [event, place])).toContainEqual(["unit-ground", "left"]);
    expect(["left", "middle", "right"].map((unit) => statusOf(unit, "reel-contact"))).toEqual(["again", "read", "read"]);
  });

  it("without a unit is done to all of them", () => {
    grind();
    expect(["left", "middle", "right"].map((unit) => statusOf(unit, "reel-contact"))).toEqual(["again", "again", "again"]);
  });

  it("undone leaves the bench as it stood, and the knife as long as it was", () => {
    const { stepId } = grind(["left"]);
    undoStep(db, clock.doing(), { jobId, stepId, reason: "another unit" });
    expect(statusOf("left", "reel-contact")).toBe("read");
    expect(knivesOf(db, "rt-1").map(({ life }) => life.grindsMade)).toEqual([0, 0, 0]);
  });

  it("is refused at a unit the machine does not have", () => {
    expect(refusedFor(() => grind(["unit"]))).toContain("unknown-part");
    expect(refusedFor(() => grind(["front-left-wheel"]))).toContain("unknown-part");
    expect(refusedFor(() => grind([machine().wheels[0]?.id ?? ""]))).toContain("unknown-part");
    expect(listEvents(db, "rt-1").some(({ event }) => event === "unit-ground")).toBe(false);
  });
});

describe("units that still stand in a job", () => {
  const left = { worst: { left: "cut", middle: "cut", right: "cut" }, turns: "light-drag", closer: "cuts", bearing: "sound" };
  const onlyLeft = (job = jobId, readings: object = { units: { left } }) =>
    recordTake(db, clock.doing(), { jobId: job, checkId: "reel-contact", readings: readings as Record<string, unknown>, asTyped: {} });

  beforeEach(() => {
    makeSafe(db, clock, jobId, "locked-out", "rt-1");
    read("reel-contact", { "units.left.worst.right": "passes" });
    onTheBench();
    recordFix(db, clock.doing(), { jobId, fix: "set-parallel", cause: "contact-tapered", words: "", units: ["left"] });
  });

  it("need not be read again after a fix on another: the left alone makes it whole, and says on what it stands", () => {
    const { assessment } = onlyLeft();
    expect([assessment.verdict, assessment.stands]).toEqual(["in-tolerance", ["middle", "right"]]);
    expect(["left", "middle", "right"].map((unit) => statusOf(unit, "reel-contact"))).toEqual(["read", "read", "read"]);
  });

  it("do not reach into another job, nor past what was touched or read there since", () => {
    const other = openJob(db, clock, "rt-1");
    expect(onlyLeft(other).assessment.verdict).toBe("not-enough-readings");
    // Read now in the other job, the left is that job's; the middle and right are still this one's.
    expect(onlyLeft().assessment.stands).toEqual(["middle", "right"]);
    recordFix(db, clock.doing(), { jobId: other, fix: "set-contact", cause: "contact-loose", words: "", units: ["right"] });
    expect(onlyLeft().assessment).toMatchObject({ verdict: "not-enough-readings", stands: ["middle"] });
  });

  it("a stop another job found at a unit is not cleared by what stood before it", () => {
    makeSafe(db, clock, jobId, "raised", "rt-1");
    read("arm-play");
    const other = openJob(db, clock, "rt-1");
    read("arm-play", { "units.left.arm": "cracked" }, other);
    const right = { arm: "sound", bushings: "firm", playMetres: 0, skewMetres: 0 };
    const { assessment } = recordTake(db, clock.doing(), { jobId, checkId: "arm-play", readings: { units: { right } }, asTyped: {} });
    expect(assessment.told).not.toContain("left");
    expect(stateOfMachine(db, "rt-1").unsafe.map(({ key }) => key)).toContain("stop:arm-play:left");
  });

  it("what is bad and stands is bad still", () => {
    read("reel-contact", { "units.middle.worst.middle": "passes" });
    expect(onlyLeft().assessment).toMatchObject({ verdict: "out", stands: ["middle", "right"] });
  });

  it("cannot be sent: what stands is the record's word alone", () => {
    const sent = onlyLeft(openJob(db, clock, "rt-1"), { units: { left }, standing: { middle: left, right: left } });
    expect([sent.assessment.verdict, sent.assessment.stands]).toEqual(["not-enough-readings", undefined]);
  });

  it("a slip put right stands on what stood then, and a unit blanked in it is not read", () => {
    const { stepId } = onlyLeft();
    const corrected = recordTake(db, clock.doing(), {
      jobId,
      checkId: "reel-contact",
      readings: { units: {} },
      asTyped: {},
      correctsStepId: stepId,
    });
    expect(corrected.assessment).toMatchObject({ verdict: "not-enough-readings", stands: ["middle", "right"] });
  });
});

it("a unit that nobody put on the bench is not ground there, whatever else lies on it; a fix of the machine names no unit", () => {
  recordConfirmation(db, clock.doing(), { jobId, state: "bench", answers: allYes(itemsFor(machine(), "bench")), parts: ["right"] });
  expect(refusedFor(() => grind(["left"]))).toContain("not-on-bench");
  grind(["right"]);
  const speeds = { jobId, fix: "set-speeds", cause: "clip-too-long", words: "", units: ["right"] };
  makeSafe(db, clock, jobId, "parked", "rt-1");
  expect(refusedFor(() => recordFix(db, clock.doing(), speeds))).toContain("not-by-unit");
});

describe("a bedknife's tally", () => {
  beforeEach(onTheBench);

  it("is booked against the knife of that unit alone, every time it is ground, until another is fitted", () => {
    grind(["left"], GROUND);
    grind(["left"], GROUND);
    grind(["right"], GROUND);
    const made = () => Object.fromEntries(knivesOf(db, "rt-1").map(({ unit, life }) => [unit, life.grindsMade]));
    expect(made()).toEqual({ left: 2, middle: 0, right: 1 });
    const [left] = knivesOf(db, "rt-1");
    const asNew = machine().sheet.unit?.bedknife?.thicknessMetres ?? 0;
    expect(left?.life.topMetres).toBeCloseTo(asNew - 0.0005, 12);
    recordFix(db, clock.doing(), { jobId, fix: "replace-bedknife", cause: "edge-nicked", words: "", units: ["left"] });
    expect(made()).toEqual({ left: 0, middle: 0, right: 1 });
  });

  it("is of one knife: for several at once, for none named, or with no word that it was clamped it is refused", () => {
    expect(refusedFor(() => grind(["left", "right"], GROUND))).toContain("one-knife-a-tally");
    expect(refusedFor(() => grind(undefined, GROUND))).toContain("one-knife-a-tally");
    const { isClamped: _, ...loose } = GROUND;
    expect(newFixSchema.safeParse({ fix: "grind-bedknife", cause: "edge-nicked", words: "", ground: loose }).success).toBe(false);
    expect(knivesOf(db, "rt-1").map(({ life }) => life.grindsMade)).toEqual([0, 0, 0]);
  });

  it("a machine with blades has none", () => {
    expect(knivesOf(db, "zt-1")).toEqual([]);
    expect(getMachineView(db, "zt-1", { now: clock.doing().now }).bench).toEqual([]);
  });
});
