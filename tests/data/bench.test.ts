import { beforeEach, describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { soundReadings, spoiled } from "@/core/checks/sound";
import { dueDay } from "@/core/fleet/reliability";
import { allYes, itemsFor } from "@/core/job/safety";
import { unitSheetOf } from "@/core/machine";
import type { Ground } from "@/core/physics/reel";
import { heightContext } from "@/data/checks/check-context";
import { takesOfPlace } from "@/data/checks/place-readings";
import { recordTake, takesOfMachine } from "@/data/checks/takes";
import { getMachineView } from "@/data/fleet/machine-view";
import { keepBenchSetting } from "@/data/job/bench-setting";
import { newFixSchema, recordFix, undoStep } from "@/data/job/job-actions";
import { recordConfirmation } from "@/data/job/safe-state";
import { logHours } from "@/data/machine/hours";
import { getMachine } from "@/data/machine/machines";
import { stateOfMachine } from "@/data/projections/machine-state";
import { serviceOf } from "@/data/service/due";
import { listEvents, logEvent, voidEvent } from "@/data/service/events";
import { knivesOf } from "@/data/service/knives";
import { paceOfMachine } from "@/data/service/season";
import { logService } from "@/data/service/service";
import type { Db } from "@/data/store/db";
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

  it("how paper cut stands in that unit's own book, and no longer once it was corrected", () => {
    const said = (place: string) =>
      takesOfPlace(db, { machineId: "rt-1", machine: machine(), place })
        .filter(({ checkId }) => checkId === "reel-contact")
        .flatMap(({ answers }) => answers.map(({ label, says }) => `${label}: ${says}`));
    const before = said("left");
    expect(before.length).toBeGreaterThan(2);
    // The left end of another unit's knife is not the left unit.
    expect(new Set(before).size).toBe(before.length);
    expect(said("mid")).toEqual([]);
    const own = takesOfMachine(db, "rt-1").find(({ checkId }) => checkId === "reel-contact");
    const changed = spoiled((own?.input ?? {}) as Record<string, unknown>, { "units.left.turns": "stiff" });
    recordTake(db, clock.doing(), { jobId, checkId: "reel-contact", readings: changed, asTyped: {}, correctsStepId: own?.stepId ?? 0 });
    expect(said("left")).toHaveLength(before.length);
    expect(said("left")).not.toEqual(before);
  });

  it("without a unit is done to all of them", () => {
    grind();
    expect(["left", "middle", "right"].map((unit) => statusOf(unit, "reel-contact"))).toEqual(["again", "again", "again"]);
  });

  it("undone leaves the bench as it stood, and the knife as long as it was", () => {
    const { stepId } = grind(["left"]);
    undoStep(db, clock.doing(), { jobId, stepId, reason: "another unit" });
    expect(statusOf("left", "reel-contact")).toBe("read");
    expect(knivesOf(db, "rt-1", clock.doing().now).map(({ life }) => life.grindsMade)).toEqual([0, 0, 0]);
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

  it("set parallel and nothing ground, it is logged as set, and no unit leaves the list of grinds for it", () => {
    const events = listEvents(db, "rt-1").map(({ event, place }) => [event, place]);
    expect(events).toContainEqual(["contact-set", "left"]);
    expect(events.map(([event]) => event)).not.toContain("unit-ground");
    const grind = serviceOf(db, getMachine(db, "rt-1"), clock.doing().now).find(({ what }) => what === "grind");
    expect(grind).toMatchObject({ state: "unknown" });
    expect(grind?.places).toBeUndefined();
  });

  it("a grind is written down in a job, by how much, and nowhere else: what says it is due and the knife's own table agree", () => {
    expect(refusedFor(() => logService(db, clock.doing(), { machineId: "rt-1", what: "grind", kind: "done", words: "" }))).toEqual([
      "invalid",
      "counted-in-a-job",
    ]);
    const face = (inFeeds: number) => ({ plannedMetres: 0.0001, inFeeds, inFeedMetres: 0.00005, passes: 2 * inFeeds });
    const tally = { isClamped: true as const, top: face(2), front: face(0) };
    recordFix(db, clock.doing(), { jobId, fix: "set-parallel", cause: "contact-tapered", words: "", units: ["left"], ground: tally });
    expect(listEvents(db, "rt-1").map(({ event, place }) => [event, place])).toContainEqual(["unit-ground", "left"]);
    expect(knivesOf(db, "rt-1", clock.doing().now).map(({ unit, life }) => [unit, life.grindsMade])).toEqual([
      ["left", 1],
      ["middle", 0],
      ["right", 0],
    ]);
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
    const made = () => Object.fromEntries(knivesOf(db, "rt-1", clock.doing().now).map(({ unit, life }) => [unit, life.grindsMade]));
    expect(made()).toEqual({ left: 2, middle: 0, right: 1 });
    const [left] = knivesOf(db, "rt-1", clock.doing().now);
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
    expect(knivesOf(db, "rt-1", clock.doing().now).map(({ life }) => life.grindsMade)).toEqual([0, 0, 0]);
  });

  it("a reel measured before two hundred later readings is measured still, and its step on the bench stands read", () => {
    makeSafe(db, clock, jobId, "locked-out", "rt-1");
    onTheBench();
    read("reel-cone");
    for (let k = 0; k < 205; k++) read("reel-edge");
    expect(knivesOf(db, "rt-1", clock.doing().now)[0]?.reel?.from).toBe("measured");
    expect(statusOf("left", "reel-cone")).toBe("read");
  });

  it("a reel spun alone is booked against the reel, not the knife, from its last measure on; undone it is not", () => {
    makeSafe(db, clock, jobId, "locked-out", "rt-1");
    onTheBench();
    read("reel-cone");
    const [before] = knivesOf(db, "rt-1", clock.doing().now);
    const none = { ...GROUND.top, inFeeds: 0, passes: 0 };
    const reel = { plannedMetres: 0.00025, inFeeds: 5, inFeedMetres: 0.00005, passes: 7, isRelieved: true };
    const spin = (fix: string) =>
      recordFix(db, clock.doing(), {
        jobId,
        fix,
        cause: fix === "grind-reel" ? "reel-dull" : "edge-nicked",
        words: "",
        units: ["left"],
        ground: { isClamped: true, top: none, front: none, reel },
      });
    expect(refusedFor(() => spin("grind-bedknife"))).toContain("no-reel-ground");
    // A tally without an in-feed is no grind: its edge is as old as it was.
    const blank = { jobId, fix: "grind-bedknife", cause: "edge-nicked", words: "", units: ["left"] };
    const ground = { isClamped: true as const, top: none, front: none };
    expect(refusedFor(() => recordFix(db, clock.doing(), { ...blank, ground }))).toEqual(["invalid", "no-in-feed"]);
    const { stepId } = spin("grind-reel");
    const [after] = knivesOf(db, "rt-1", clock.doing().now);
    expect([before?.reel?.from, after?.life.grindsMade, after?.reel?.grindsMade]).toEqual(["measured", 0, 1]);
    expect((before?.reel?.nowMetres ?? 0) - (after?.reel?.nowMetres ?? 0)).toBeCloseTo(0.0005, 4);
    undoStep(db, clock.doing(), { jobId, stepId, reason: "" });
    expect(knivesOf(db, "rt-1", clock.doing().now)[0]?.reel).toEqual(before?.reel);
  });

  it("the next knife is ordered on the day that the one forecast of the meter reaches it, sooner the more it runs", () => {
    grind(["left"], GROUND);
    const hours = (meterHours: number, at: string) =>
      logHours(db, { who: "AK", now: at }, { machineId: "rt-1", meterHours, isCorrection: false });
    hours(1000, "2026-05-05T08:00:00.000Z");
    const now = "2026-06-04T08:00:00.000Z";
    const orderAt = () => knivesOf(db, "rt-1", now)[0]?.orderAt ?? "";
    const left = knivesOf(db, "rt-1", now)[0]?.life.left?.orderInHours ?? 0;
    expect(orderAt()).toBe(dueDay(paceOfMachine(db, "rt-1", now), left, now).on);
    const usual = orderAt();
    // Six hours a day for a month, where three are taken for usual.
    hours(1180, now);
    expect(orderAt() < usual).toBe(true);
    expect(orderAt() > now).toBe(true);
  });

  it("a machine with blades has none", () => {
    expect(knivesOf(db, "zt-1", clock.doing().now)).toEqual([]);
    expect(getMachineView(db, "zt-1", { now: clock.doing().now }).bench).toEqual([]);
  });
});

describe("the height of a unit, learnt from its visits", () => {
  const visit = (offsets: Record<string, number>, turf = "Square") => {
    const job = openJob(db, clock, "rt-1");
    makeSafe(db, clock, job, "parked", "rt-1");
    const heights = (offset: number) => [0, 0.0001, -0.0001].map((by) => 0.0127 + offset + by);
    const unitHeights = Object.fromEntries(Object.entries(offsets).map(([unit, offset]) => [unit, heights(offset)]));
    recordTake(db, clock.doing(), {
      jobId: job,
      checkId: "cutting-height",
      readings: { settingMetres: 0.0127, wantedMetres: 0.0127, turf, heightsMetres: Object.values(unitHeights).flat(), unitHeights },
      asTyped: {},
    });
    return job;
  };
  const learnt = (unit: string) => {
    const brought = heightContext(db, { machineId: "rt-1", now: clock.doing().now }).unitVisits[unit] ?? [];
    return brought.map(({ offsetMetres }) => Math.round(offsetMetres * 1e4) / 10);
  };

  it("each from its own, newest first; one that was not read had no visit", () => {
    visit({ left: -0.0004, middle: 0.0001 });
    visit({ left: -0.0002 });
    expect([learnt("left"), learnt("middle"), learnt("right")]).toEqual([[-0.2, -0.4], [0.1], []]);
  });

  it("of a machine whose units have names of two words it is kept too, reading by reading", () => {
    const job = openJob(db, clock, "rf-1");
    makeSafe(db, clock, job, "parked", "rf-1");
    const heights = [0.0159, 0.0158, 0.016];
    const readings = {
      settingMetres: 0.0159,
      wantedMetres: 0.0159,
      heightsMetres: heights,
      unitHeights: { "far-left": heights, left: heights },
      unitSettings: { "far-left": 0.016 },
    };
    recordTake(db, clock.doing(), { jobId: job, checkId: "cutting-height", readings, asTyped: {} });
    const [take] = takesOfMachine(db, "rf-1");
    expect(take?.readings.filter(({ quantity }) => quantity === "far_left").map(({ place, value }) => [place, value])).toEqual([
      ["unitHeights:1", 0.0159],
      ["unitHeights:2", 0.0158],
      ["unitHeights:3", 0.016],
      ["unitSettings", 0.016],
    ]);
  });

  it("another roller under a unit begins anew for that unit, and for all where it is not said which; taken back, it counts again", () => {
    visit({ left: -0.0004, right: -0.0001 });
    const { eventId } = logEvent(db, clock.doing(), { machineId: "rt-1", event: "roller-changed", place: "left" });
    expect([learnt("left"), learnt("right")]).toEqual([[], [-0.1]]);
    const whole = () => heightContext(db, { machineId: "rt-1", now: clock.doing().now }).visits.length;
    expect(whole()).toBe(0);
    visit({ left: 0.0002 });
    expect([learnt("left"), whole()]).toEqual([[0.2], 1]);
    voidEvent(db, clock.doing(), { machineId: "rt-1", eventId, reason: "" });
    expect(learnt("left")).toEqual([0.2, -0.4]);
    logEvent(db, clock.doing(), { machineId: "rt-1", event: "roller-changed" });
    expect([learnt("left"), learnt("right")]).toEqual([[], []]);
  });

  it("is drawn over time by unit, each turf by itself, with the roller's change between", () => {
    visit({ left: -0.0004 });
    logEvent(db, clock.doing(), { machineId: "rt-1", event: "roller-changed", place: "left" });
    visit({ left: 0.0001 }, "Outfield");
    const [drift] = getMachineView(db, "rt-1", { now: clock.doing().now }).followed.filter(({ check }) => check === "cutting-height");
    expect(drift?.points.map(({ group, values }) => [group, values.left])).toEqual([
      ["Square", expect.closeTo(-0.0004, 9)],
      ["Outfield", expect.closeTo(0.0001, 9)],
    ]);
    expect(drift?.breaks).toMatchObject([{ event: "roller-changed", place: "left" }]);
    expect(drift?.lines.map(({ id }) => id)).toEqual(["machine", "left", "middle", "right"]);
  });
});

describe("a bench setting kept", () => {
  const settingFor = (unit: string, up: number) => {
    const { sideView } = unitSheetOf(machine(), unit);
    if (!sideView) throw new Error("no side view");
    return { frontZMetres: sideView.front.zMetres, rearZMetres: sideView.rear.zMetres + up };
  };
  const keep = (
    settings: Record<string, { frontZMetres: number; rearZMetres: number }>,
    basedOnVersion = getMachine(db, "rt-1").sheetVersion,
  ) => keepBenchSetting(db, clock.doing(), { machineId: "rt-1", basedOnVersion, settings, reason: "Bench setting 12.2 mm" });

  it("is a new version of the sheet, and makes that unit's later steps again, in no job at all", () => {
    makeSafe(db, clock, jobId, "locked-out", "rt-1");
    onTheBench();
    read("bedknife-attitude");
    expect(keep({ left: settingFor("left", 0.001) })).toMatchObject({ sheetVersion: 2, moved: ["left"] });
    expect(getMachine(db, "rt-1")).toMatchObject({ sheetVersion: 2, sheetReason: "Bench setting 12.2 mm", sheetBy: "AK" });
    expect(["left", "right"].map((unit) => statusOf(unit, "bedknife-attitude"))).toEqual(["again", "read"]);
    expect(listEvents(db, "rt-1").map(({ event, place }) => [event, place])).toContainEqual(["bench-height-set", "left"]);
    const { rearZMetres, frontZMetres } = settingFor("left", 0);
    keep({ left: { rearZMetres, frontZMetres: frontZMetres + 0.0005 } });
    expect(listEvents(db, "rt-1").map(({ event, place }) => [event, place])).toContainEqual(["roller-moved", "left"]);
  });

  it("as it stands already, may be kept: nothing is written and nothing wrong", () => {
    expect(keep({ left: settingFor("left", 0) })).toEqual({ sheetVersion: 1, moved: [] });
  });

  it.each([
    ["of a unit it has not", () => ({ front: settingFor("left", 0) }), "unknown-part"],
    ["past the screws' travel", () => ({ left: settingFor("left", 0.02) }), "out-of-travel"],
    [
      "a decimal point too high",
      () => ({ left: { ...settingFor("left", 0.012), frontZMetres: -0.4, rearZMetres: -0.4 } }),
      "height-not-credible",
    ],
    ["with the knife on the ground", () => ({ left: { ...settingFor("left", 0.007), frontZMetres: 0.08 } }), "rollers-above-knife"],
    [
      "with its heel in the plate",
      () => ({ left: { ...settingFor("left", 0), frontZMetres: settingFor("left", 0).frontZMetres + 0.022 } }),
      "stands-on-knife",
    ],
    ["of nothing", () => ({}), "nothing-set"],
  ])("is refused %s, and writes nothing", (_, settings, code) => {
    expect(refusedFor(() => keep(settings()))).toEqual(["invalid", code]);
    expect(getMachine(db, "rt-1").sheetVersion).toBe(1);
  });

  it("kept by a second person on an older sheet: told, not written over", () => {
    keep({ left: settingFor("left", 0.001) });
    expect(refusedFor(() => keep({ right: settingFor("right", 0.001) }, 1))).toEqual(["changed-since"]);
  });

  it("sent twice under one id it is done once", () => {
    const doing = clock.doing("7f6e5d4c-3b2a-4918-8776-655443322110");
    const args = { machineId: "rt-1", basedOnVersion: 1, settings: { left: settingFor("left", 0.001) }, reason: "again" };
    expect(keepBenchSetting(db, doing, args)).toEqual(keepBenchSetting(db, doing, args));
    expect(getMachine(db, "rt-1").sheetVersion).toBe(2);
  });
});
