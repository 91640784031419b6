import { beforeEach, describe, expect, it } from "vitest";
import { wantedBlade } from "@/core/fleet/parts";
import { allYes, itemsFor } from "@/core/job/safety";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { templateMachine, withValue } from "@/core/machine/specification";
import { jobsBy, keepProcedure, proceduresInForce, withdrawProcedure } from "@/data/catalogue/procedures";
import { recordTake } from "@/data/checks/takes";
import { bookOf, sheetChanges } from "@/data/fleet/book";
import { fleetRows } from "@/data/fleet/fleet";
import { closedJobs, holdsOf } from "@/data/fleet/holds";
import { addRound, getRound, isThrough } from "@/data/fleet/rounds";
import { families, readingsDrift, sinceBaseline, sisterDifferences, sistersOf } from "@/data/fleet/sisters";
import { takeComplaint } from "@/data/job/complaints";
import { awayNow, owedByMachine } from "@/data/job/handover";
import { closeJob, recordFix, recordHandover, undoStep } from "@/data/job/job-actions";
import { recordConfirmation } from "@/data/job/safe-state";
import { logHours, meterReadings, swapMeter } from "@/data/machine/hours";
import { addMachine, getMachine, listMachineNames, renameMachine, replaceSheet, setStanding } from "@/data/machine/machines";
import { schoolStandings, setSchool } from "@/data/machine/schools";
import { addPlace, gonePlaces, hazardsOf, listSites, placeBack, placeGone } from "@/data/machine/site-places";
import { dueNow, serviceOf } from "@/data/service/due";
import { logEvent } from "@/data/service/events";
import { settleOwed } from "@/data/service/owed";
import {
  addPart,
  addSet,
  changePart,
  getPart,
  getSet,
  listSets,
  logSet,
  lotsOf,
  movePart,
  movesOf,
  takeBackMove,
  takeBackSetEntry,
  whatFits,
} from "@/data/service/parts";
import { logService, postponeService, takeBackService } from "@/data/service/service";
import { serviceEntries } from "@/data/service/service-log";
import { addRule } from "@/data/service/service-rules";
import { localDay } from "@/data/store/clock";
import type { Db } from "@/data/store/db";
import { type Clock, emptyDepot, LEDGE_INCHES, LEVEL_INCHES, makeSafe, openJob, refusedFor, tips } from "./helpers";

let db: Db;
let clock: Clock;
beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

const at = (day: number, who = "AK") => ({ who, now: new Date(Date.UTC(2026, 4, 5) + day * 86_400_000).toISOString() });
const hours = (machineId: string, meterHours: number, day: number) =>
  logHours(db, at(day), { machineId, meterHours, isCorrection: false, isSure: true });
const tyresOf = (machineId: string) =>
  Object.fromEntries(
    getMachine(db, machineId).machine.wheels.flatMap(({ id, isPneumatic }) => (isPneumatic ? [[id, { pressurePascals: 83_000 }]] : [])),
  );

const blade = {
  kind: "blade" as const,
  label: "Blade 17",
  supplier: "",
  currency: "£",
  lowMark: 3,
  notes: "",
  price: 24,
  lengthMetres: 0.4318,
};

describe("machines as a whole", () => {
  it("a job closed on a machine that was retired since is not opened again by an undo, until the machine is back", () => {
    const jobId = openJob(db, clock, "zt-2");
    const done = { jobId, causes: ["nothing-found"], words: "", unprovedReason: "went out as it was, nobody there to cut" };
    const { stepId } = closeJob(db, clock.doing(), done as never);
    setStanding(db, clock.doing(), { machineId: "zt-2", kind: "retired", reason: "sold on" });
    const undo = () => undoStep(db, clock.doing(), { jobId, stepId, reason: "closed by a slip" });
    expect(refusedFor(undo)).toEqual(["machine-retired"]);
    setStanding(db, clock.doing(), { machineId: "zt-2", kind: "back", reason: "bought back" });
    expect(undo).not.toThrow();
  });

  it("retired leaves every list and takes no complaint, keeps its book, and comes back whole", () => {
    setStanding(db, clock.doing(), { machineId: "zt-2", kind: "retired", reason: "sold on" });
    expect(listMachineNames(db).some(({ id }) => id === "zt-2")).toBe(false);
    expect(dueNow(db, clock.doing().now).some(({ machineId }) => machineId === "zt-2")).toBe(false);
    const complaint = { machineId: "zt-2", words: "a ledge", saidBy: "TV", place: "", looks: { symptoms: [], denied: [], contexts: [] } };
    expect(refusedFor(() => takeComplaint(db, clock.doing(), complaint))).toEqual(["machine-retired"]);
    expect(getMachine(db, "zt-2").retired).toMatchObject({ reason: "sold on", who: "AK" });
    expect(fleetRows(db, clock.doing().now).find(({ id }) => id === "zt-2")?.state).toBe("retired");
    expect(refusedFor(() => setStanding(db, clock.doing(), { machineId: "zt-2", kind: "retired", reason: "again" }))).toEqual([
      "invalid",
      "nothing-set",
    ]);
    setStanding(db, clock.doing(), { machineId: "zt-2", kind: "back", reason: "bought back" });
    expect(listMachineNames(db).some(({ id }) => id === "zt-2")).toBe(true);
    expect(getMachine(db, "zt-2").retired).toBeUndefined();
  });

  it("is not retired while a job is open on it, and says which", () => {
    const jobId = openJob(db, clock, "zt-2");
    expect(refusedFor(() => setStanding(db, clock.doing(), { machineId: "zt-2", kind: "retired", reason: "sold" }))).toEqual([
      "invalid",
      "jobs-open",
    ]);
    expect(jobId).toBeGreaterThan(0);
  });

  it("another meter goes on where the old one stopped, and what is counted by hours does not jump", () => {
    hours("zt-1", 500, 0);
    swapMeter(db, at(10), { machineId: "zt-1", oldHours: 520, newHours: 3 });
    hours("zt-1", 13, 15);
    expect(meterReadings(db, "zt-1").map(({ meterHours }) => meterHours)).toEqual([500, 520, 520, 530]);
    expect(getMachine(db, "zt-1")).toMatchObject({ meterHours: 13, totalHours: 530 });
    expect(refusedFor(() => swapMeter(db, at(16), { machineId: "zt-1", oldHours: 5, newHours: 0 }))).toEqual([
      "invalid",
      "hours-run-backwards",
    ]);
    expect(refusedFor(() => hours("zt-1", 12, 17))).toEqual(["invalid", "hours-run-backwards"]);
  });

  it("begins with its hour meter, and moved to another site it says so on its log", () => {
    const machine = machineSchema.parse(FLEET[0]?.machine);
    const { machineId } = addMachine(db, clock.doing(), {
      fleetNumber: "ZT-9",
      name: "From the sale",
      site: "North",
      machine,
      meterHours: 412.5,
    });
    expect(getMachine(db, machineId).meterHours).toBe(412.5);
    renameMachine(db, clock.doing(), { machineId, name: "From the sale", site: "South" });
    expect(bookOf(db, machineId).find((line) => line.of === "event" && line.event === "site-changed")).toMatchObject({
      words: "North to South",
    });
  });

  it("a place that something is written down of stays on the sheet until it is settled", () => {
    const { machine, sheetVersion } = getMachine(db, "zt-1");
    const without = (id: string) =>
      ({
        ...machine,
        deck: machine.deck && { ...machine.deck, hangers: machine.deck.hangers.filter((one) => one.id !== id) },
      }) as typeof machine;
    const replace = (id: string) =>
      replaceSheet(db, clock.doing(), { machineId: "zt-1", basedOnVersion: sheetVersion, machine: without(id), reason: "none there" });
    const struck = logEvent(db, clock.doing(), { machineId: "zt-1", event: "struck", place: "left-rear", words: "a kerb" });
    expect(refusedFor(() => replace("left-rear"))).toEqual(["invalid", "place-in-use"]);
    expect(struck.eventId).toBeGreaterThan(0);
    expect(replace("right-front").sheetVersion).toBe(sheetVersion + 1);
  });
});

describe("service", () => {
  const of = (what: string, day: number, machineId = "zt-1") =>
    serviceOf(db, getMachine(db, machineId), at(day).now).find((one) => one.what === what);

  it("counts what a job did and what was done outside one, and is taken back", () => {
    hours("zt-1", 100, 0);
    hours("zt-1", 130, 20);
    expect(of("sharpen", 20)?.state).toBe("unknown");
    const { entryId } = logService(db, at(19), { machineId: "zt-1", what: "sharpen", kind: "done", words: "" });
    expect(of("sharpen", 20)).toMatchObject({ state: "good", last: { how: "service" } });
    takeBackService(db, at(20), { machineId: "zt-1", entryId });
    expect(of("sharpen", 20)?.state).toBe("unknown");
    expect(refusedFor(() => takeBackService(db, at(20), { machineId: "zt-1", entryId }))).toEqual(["nothing-to-undo"]);
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "locked-out");
    recordTake(db, clock.doing(), { jobId, checkId: "tyre-pressure", readings: { tyres: tyresOf("zt-1") }, asTyped: {} });
    expect(of("tyre-check", 0)).toMatchObject({ last: { how: "job", jobId } });
  });

  it("the shop's rule for a machine goes before the sheet's, and one that is off leaves nothing due", () => {
    const rule = { what: "sharpen" as const, scope: "machine" as const, machineId: "zt-1", isOff: false, everyHours: 6, reason: "sand" };
    addRule(db, clock.doing(), rule);
    expect(of("sharpen", 1)?.rule).toMatchObject({ everyHours: 6, scope: "machine" });
    addRule(db, clock.doing(), { ...rule, isOff: true, reason: "sent out" });
    expect(of("sharpen", 1)).toBeUndefined();
    expect(refusedFor(() => addRule(db, clock.doing(), { ...rule, machineId: "zt-99" }))).toEqual(["machine-not-found"]);
  });

  it("is put off to a day that is to come, with the reason, and owes again from then", () => {
    hours("zt-1", 100, 0);
    logService(db, at(0), { machineId: "zt-1", what: "sharpen", kind: "done", words: "" });
    hours("zt-1", 140, 20);
    expect(of("sharpen", 20)?.state).toBe("overdue");
    const until = at(25).now.slice(0, 10);
    postponeService(db, at(20), { machineId: "zt-1", what: "sharpen", untilDay: until, words: "blades on order" });
    expect(of("sharpen", 21)?.state).toBe("postponed");
    expect(of("sharpen", 26)?.state).toBe("overdue");
    // Today and yesterday are the shop's own, whatever day it is in Greenwich.
    const today = localDay(at(20).now);
    const putOff = (untilDay: string) =>
      refusedFor(() => postponeService(db, at(20), { machineId: "zt-1", what: "sharpen", untilDay, words: "x" }));
    expect(putOff(today)).toEqual(["invalid", "day-gone"]);
    expect(putOff(localDay(at(21).now))).toEqual([]);
    expect(refusedFor(() => logService(db, at(20), { machineId: "zt-1", what: "grind", kind: "done", words: "" }))).toEqual([
      "invalid",
      "not-of-this-sort",
    ]);
  });

  it("a round counts machine by machine, asks for a second look after, and takes no machine that is not in it", () => {
    const { roundId } = addRound(db, at(0), {
      what: "sharpen",
      title: "Blades",
      byDay: "2026-06-12",
      machines: ["zt-1", "zt-2", "zt-1"],
      recheckDays: 1,
    });
    expect(getRound(db, roundId).lines.map(({ machineId }) => machineId)).toEqual(["zt-1", "zt-2"]);
    const { entryId } = logService(db, at(1), { machineId: "zt-1", what: "sharpen", kind: "done", words: "", roundId });
    expect(getRound(db, roundId).lines[0]).toMatchObject({ done: { entryId }, recheck: { dueAt: at(2).now } });
    logService(db, at(1), { machineId: "zt-2", what: "sharpen", kind: "done", words: "", roundId });
    expect(isThrough(getRound(db, roundId))).toBe(false);
    for (const machineId of ["zt-1", "zt-2"]) logService(db, at(3), { machineId, what: "sharpen", kind: "rechecked", words: "", roundId });
    expect(isThrough(getRound(db, roundId))).toBe(true);
    takeBackService(db, at(4), { machineId: "zt-1", entryId });
    expect(isThrough(getRound(db, roundId))).toBe(false);
    expect(refusedFor(() => logService(db, at(4), { machineId: "bd-1", what: "sharpen", kind: "done", words: "", roundId }))).toEqual([
      "round-not-found",
    ]);
    expect(refusedFor(() => addRound(db, at(0), { what: "grind", title: "G", byDay: "2026-06-12", machines: ["zt-1"] }))).toEqual([
      "invalid",
      "not-of-this-sort",
    ]);
    expect(serviceEntries(db, "zt-1").map(({ kind }) => kind)).toEqual(["rechecked"]);
  });
});

describe("parts and the sets made of them", () => {
  const bought = (partId: number, count: number, lot?: string) =>
    movePart(db, clock.doing(), { partId, move: { why: "bought", count, ...(lot ? { lot } : {}) } });

  it("stock is what came less what went, by lot; it never goes under nothing, and a count sets it right", () => {
    const { partId } = addPart(db, clock.doing(), { part: blade });
    expect(getPart(db, partId)).toMatchObject({ stock: 0, isLow: true });
    bought(partId, 6, "A");
    const { moveId } = bought(partId, 3, "B");
    expect(refusedFor(() => movePart(db, clock.doing(), { partId, move: { why: "fitted", count: 4, lot: "B" } }))).toEqual([
      "invalid",
      "not-so-many",
    ]);
    movePart(db, clock.doing(), { partId, move: { why: "fitted", count: 2, lot: "B", machineId: "zt-1" } });
    expect(getPart(db, partId).byLot).toEqual([
      { lot: "A", stock: 6 },
      { lot: "B", stock: 1 },
    ]);
    // What it brought has left since: it cannot be taken back.
    expect(refusedFor(() => takeBackMove(db, clock.doing(), { partId, moveId }))).toEqual(["invalid", "not-so-many"]);
    movePart(db, clock.doing(), { partId, move: { why: "counted", count: 4, lot: "A" } });
    expect(getPart(db, partId).stock).toBe(5);
    expect(refusedFor(() => movePart(db, clock.doing(), { partId, move: { why: "counted", count: 4, lot: "A" } }))).toEqual([
      "invalid",
      "nothing-set",
    ]);
    const [last] = movesOf(db, partId);
    takeBackMove(db, clock.doing(), { partId, moveId: last?.id ?? 0 });
    expect(getPart(db, partId).stock).toBe(7);
    expect(refusedFor(() => takeBackMove(db, clock.doing(), { partId, moveId: last?.id ?? 0 }))).toEqual(["nothing-to-undo"]);
  });

  it("a set comes off the shelf the first time it is fitted, and lies there again when that is taken back; not every time it comes back sharp", () => {
    const { partId } = addPart(db, clock.doing(), { part: blade });
    bought(partId, 6, "A");
    const { setId } = addSet(db, clock.doing(), { partId, mark: "C1", lot: "A" });
    const putOn = () => logSet(db, clock.doing(), { setId, entry: { kind: "fitted", machineId: "zt-1", work: "rough" } });
    const { entryId } = putOn();
    expect(getPart(db, partId).stock).toBe(3);
    takeBackSetEntry(db, clock.doing(), { setId, entryId });
    expect(getPart(db, partId).stock).toBe(6);
    putOn();
    logSet(db, clock.doing(), { setId, entry: { kind: "came-off", why: "dull" } });
    logSet(db, clock.doing(), { setId, entry: { kind: "sharpened" } });
    putOn();
    expect(getPart(db, partId).stock).toBe(3);
    // What the book does not know to lie there does not leave it.
    const { setId: other } = addSet(db, clock.doing(), { partId, mark: "D1", lot: "B" });
    logSet(db, clock.doing(), { setId: other, entry: { kind: "fitted", machineId: "zt-2", work: "rough" } });
    expect(getPart(db, partId).byLot).toEqual([{ lot: "A", stock: 3 }]);
    // Nobody said of which lot it is: it comes off the shelf all the same, from the first that holds as many.
    const { setId: third } = addSet(db, clock.doing(), { partId, mark: "E1" });
    bought(partId, 4, "F");
    const fitted = logSet(db, clock.doing(), { setId: third, entry: { kind: "fitted", machineId: "zt-3", work: "rough" } });
    expect(getPart(db, partId)).toMatchObject({ stock: 4, byLot: [{ lot: "F", stock: 4 }] });
    takeBackSetEntry(db, clock.doing(), { setId: third, entryId: fitted.entryId });
    expect(getPart(db, partId).stock).toBe(7);
  });

  it("a part changed by two is told, and its versions stay", () => {
    const { partId } = addPart(db, clock.doing(), { part: blade });
    changePart(db, clock.doing(), { partId, basedOnVersion: 1, part: { ...blade, price: 30 } });
    expect(refusedFor(() => changePart(db, clock.doing(), { partId, basedOnVersion: 1, part: { ...blade, price: 31 } }))).toEqual([
      "changed-since",
    ]);
    expect((db.prepare("SELECT count(*) AS n FROM part_versions").get() as { n: number }).n).toBe(2);
  });

  it("what fits a deck comes first, and what lies in stock before what does not", () => {
    const { machine } = getMachine(db, "zt-1");
    const whole = {
      ...blade,
      ...wantedBlade(machine),
    };
    addPart(db, clock.doing(), { part: { ...whole, label: "too long", lengthMetres: 0.5 } });
    addPart(db, clock.doing(), { part: { ...whole, label: "none left" } });
    const { partId } = addPart(db, clock.doing(), { part: { ...whole, label: "on the shelf" } });
    addPart(db, clock.doing(), { part: { ...blade, label: "unmeasured" } });
    bought(partId, 3);
    expect(whatFits(db, machine).map(({ record, fit }) => [record.part.label, fit.verdict])).toEqual([
      ["on the shelf", "fits"],
      ["none left", "fits"],
      ["unmeasured", "cannot-tell"],
      ["too long", "does-not-fit"],
    ]);
    expect(whatFits(db, getMachine(db, "rt-1").machine)).toEqual([]);
  });

  it("a set is on one machine at a time, its hours are its machines', and only its last entry is taken back", () => {
    hours("zt-1", 100, 0);
    hours("zt-3", 40, 0);
    const { partId } = addPart(db, at(0), { part: blade });
    const { setId } = addSet(db, at(0), { partId, mark: "H1", lot: "A" });
    expect(refusedFor(() => addSet(db, at(0), { partId, mark: "h1" }))).toEqual(["invalid", "mark-taken"]);
    const fitOn = (machineId: string, day: number) => logSet(db, at(day), { setId, entry: { kind: "fitted", machineId, work: "rough" } });
    const first = fitOn("zt-1", 0);
    expect(refusedFor(() => fitOn("zt-3", 1))).toEqual(["invalid", "fitted-elsewhere"]);
    expect(refusedFor(() => takeBackSetEntry(db, at(1), { setId, entryId: first.entryId + 99 }))).toEqual(["nothing-to-undo"]);
    hours("zt-1", 112, 6);
    const { setId: second } = addSet(db, at(5), { partId, mark: "B2" });
    const fitSecond = (place?: string) =>
      logSet(db, at(5), { setId: second, entry: { kind: "fitted", machineId: "zt-1", work: "rough", ...(place ? { place } : {}) } });
    // A set for the whole deck sits at each of its blades.
    for (const place of [undefined, "left"]) expect(refusedFor(() => fitSecond(place))).toEqual(["invalid", "place-taken"]);
    const look = logSet(db, at(6), { setId, entry: { kind: "looked", isDull: true } });
    expect(getSet(db, setId, at(6).now).standing.looks).toEqual([{ hours: 12, isDull: true }]);
    expect(bookOf(db, "zt-1").find(({ kind }) => kind === "set")).toMatchObject({ setKind: "looked", why: "dull", mark: "H1" });
    takeBackSetEntry(db, at(6), { setId, entryId: look.entryId });
    hours("zt-1", 120, 10);
    const off = logSet(db, at(10), { setId, entry: { kind: "came-off", why: "sharpen" } });
    expect(refusedFor(() => takeBackSetEntry(db, at(10), { setId, entryId: first.entryId }))).toEqual(["nothing-to-undo"]);
    expect(refusedFor(() => logSet(db, at(10), { setId, entry: { kind: "came-off", why: "again" } }))).toEqual(["invalid", "not-fitted"]);
    expect(getSet(db, setId, at(11).now).standing).toMatchObject({ hours: 20, edgeHours: 20 });
    // Another went on meanwhile: the first is not put back beneath it.
    const { entryId: on } = fitSecond("left");
    expect(refusedFor(() => takeBackSetEntry(db, at(11), { setId, entryId: off.entryId }))).toEqual(["invalid", "place-taken"]);
    takeBackSetEntry(db, at(11), { setId: second, entryId: on });
    takeBackSetEntry(db, at(11), { setId, entryId: off.entryId });
    expect(getSet(db, setId, at(11).now).standing.on?.machineId).toBe("zt-1");
    logSet(db, at(12), { setId, entry: { kind: "finished", why: "worn" } });
    expect(getSet(db, setId, at(12).now).standing).toMatchObject({ finished: { why: "worn" }, hours: 20 });
    expect(refusedFor(() => fitOn("zt-3", 13))).toEqual(["invalid", "set-finished"]);
    expect(listSets(db, at(13).now, { machineId: "zt-1" }).map(({ mark }) => mark)).toEqual(["H1"]);
    expect(listSets(db, at(13).now, { machineId: "zt-3" })).toEqual([]);
    expect(refusedFor(() => logSet(db, at(13), { setId: 99, entry: { kind: "sharpened" } }))).toEqual(["set-not-found"]);
  });

  it("goes on no machine that has no place for it", () => {
    const { partId } = addPart(db, clock.doing(), { part: blade });
    const { setId } = addSet(db, clock.doing(), { partId, mark: "H1" });
    const fitted = (machineId: string, place?: string) =>
      refusedFor(() =>
        logSet(db, clock.doing(), { setId, entry: { kind: "fitted", machineId, work: "rough", ...(place ? { place } : {}) } }),
      );
    expect(fitted("rt-1")).toEqual(["invalid", "not-of-this-sort"]);
    expect(fitted("zt-1", "left-drive")).toEqual(["invalid", "unknown-part"]);
    expect(fitted("zt-99")).toEqual(["machine-not-found"]);
  });

  it("a lot that was damaged or lost is not worn out: its hours count as running on", () => {
    hours("zt-1", 0, 0);
    const { partId } = addPart(db, at(0), { part: { ...blade, hoursPerEdge: 10, sharpenings: 5, sharpeningCost: 9, fittingCost: 6 } });
    for (const [k, [lot, why]] of (
      [
        ["A", "worn"],
        ["A", "damaged"],
        ["B", "lost"],
      ] as const
    ).entries()) {
      const { setId } = addSet(db, at(k * 10), { partId, mark: `H${k}`, lot });
      logSet(db, at(k * 10), { setId, entry: { kind: "fitted", machineId: "zt-1", work: "rough" } });
      hours("zt-1", (k + 1) * 50, k * 10 + 9);
      logSet(db, at(k * 10 + 9), { setId, entry: { kind: "finished", why } });
    }
    const { lots, against } = lotsOf(db, partId, at(40).now);
    expect(lots.map(({ lot, finishedHours, runningHours }) => [lot, finishedHours.length, runningHours.length])).toEqual([
      ["A", 1, 1],
      ["B", 0, 1],
    ]);
    expect(against).toMatchObject([{ a: "A", b: "B", verdict: { verdict: "cannot-tell", why: "too-few" } }]);
  });
});

describe("the book", () => {
  it("has what was said, read, mended, struck, run, greased and changed in one line of time, the log by its own order", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "parked");
    recordTake(db, clock.doing(), { jobId, checkId: "tyre-pressure", readings: { tyres: tyresOf("zt-1") }, asTyped: {} });
    // The clock is set back: what is written next was written next.
    recordFix(
      db,
      { who: "BL", now: "2020-01-01T00:00:00.000Z" },
      { jobId, fix: "set-pressures", cause: "tyres-off-spec", words: "all four" },
    );
    const { partId } = addPart(db, clock.doing(), { part: blade });
    const { setId } = addSet(db, clock.doing(), { partId, mark: "B7" });
    const early = { who: "BL", now: "2020-01-01T00:05:00.000Z" };
    logSet(db, early, { setId, entry: { kind: "fitted", machineId: "zt-1", work: "rough" } });
    logEvent(db, clock.doing(), { machineId: "zt-1", event: "struck", place: "left", words: "a kerb", where: "east wall" });
    logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 12, isCorrection: false });
    const kinds = bookOf(db, "zt-1").map(({ kind }) => kind);
    expect(kinds.slice(0, 6)).toEqual(["hours", "strike", "set", "fix", "reading", "complaint"]);
    expect(kinds.at(-1)).toBe("sheet");
    expect(bookOf(db, "zt-1").find(({ kind }) => kind === "reading")?.places).toEqual(
      expect.arrayContaining(["left-drive", "right-caster"]),
    );
    expect(bookOf(db, "zt-1").find(({ kind }) => kind === "strike")).toMatchObject({ where: "east wall", places: ["left"] });
  });

  it("leaves out what was taken back, and names what a new version of the sheet changed", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "parked");
    const { stepId } = recordFix(db, clock.doing(), { jobId, fix: "set-pressures", cause: "tyres-off-spec", words: "all four" });
    undoStep(db, clock.doing(), { jobId, stepId, reason: "" });
    expect(bookOf(db, "zt-1").some(({ kind }) => kind === "fix")).toBe(false);
    const { machine, sheetVersion } = getMachine(db, "zt-1");
    replaceSheet(db, clock.doing(), {
      machineId: "zt-1",
      basedOnVersion: sheetVersion,
      machine: withValue(machine, "sheet.heightMostMetres", 0.12),
      reason: "lever",
    });
    expect(sheetChanges(db, "zt-1", 2).changes.map(({ key }) => key)).toEqual(["sheet.heightMostMetres"]);
    expect(sheetChanges(db, "zt-1", 1).changes).toEqual([]);
    expect(sinceBaseline(db, "zt-1").map(({ key }) => key)).toEqual(["sheet.heightMostMetres"]);
    const sisters = sisterDifferences([getMachine(db, "zt-1"), getMachine(db, "zt-3")]);
    expect(sisters.map(({ key, byMachine }) => [key, byMachine["zt-1"]])).toEqual([["sheet.heightMostMetres", 0.12]]);
  });
});

describe("sisters and their readings", () => {
  it("a machine of another size is no sister: nothing of it ought to agree", () => {
    const add = (fleetNumber: string, widthMetres: number) =>
      addMachine(db, clock.doing(), {
        ...{ fleetNumber, name: fleetNumber, site: "West park" },
        machine: templateMachine({ kind: "front-deck", cutters: 3, widthMetres }),
      });
    add("FD-8", 1.83);
    expect(families(db).some(({ key }) => key.startsWith("front-deck"))).toBe(false);
    add("FD-9", 1.84);
    expect(families(db).filter(({ key }) => key.startsWith("front-deck"))).toMatchObject([{ members: [{ id: "fd-8" }, { id: "fd-9" }] }]);
  });

  it("the baseline is the first take that was right; a correction stands where what it corrects stood, what was taken back says nothing", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    const read = (inches: readonly number[], more: object = {}) =>
      recordTake(db, clock.doing(), { jobId, checkId: "deck-level", readings: tips(inches), asTyped: {}, ...more }).stepId;
    const side = () =>
      (readingsDrift(db, ["zt-1"]).get("zt-1") ?? []).flatMap(({ drifts }) => drifts).find(({ figure }) => figure.id === "side");
    read(LEDGE_INCHES);
    expect(side()).toMatchObject({ moved: "cannot-tell" });
    expect(side()?.baseline).toBeUndefined();
    const right = read(LEVEL_INCHES);
    expect(side()?.moved).toBe("as-it-was");
    const off = read(LEDGE_INCHES);
    expect(side()?.moved).toBe("moved");
    // The baseline put right, after the deck was read again: it is still the baseline, and the last reading still the last.
    read(LEVEL_INCHES, { correctsStepId: right });
    expect(side()?.moved).toBe("moved");
    read(LEVEL_INCHES, { correctsStepId: off });
    expect(side()?.moved).toBe("as-it-was");
    const isStale = () =>
      readingsDrift(db, ["zt-1"])
        .get("zt-1")
        ?.find(({ checkId }) => checkId === "deck-level")?.isStale;
    expect(isStale()).toBe(false);
    logEvent(db, clock.doing(), { machineId: "zt-1", event: "deck-dropped" });
    expect(isStale()).toBe(true);
    // The same through the API's function; a machine without sisters is read against itself alone.
    expect(sistersOf(db, undefined).families?.map(({ machines }) => machines)).toContainEqual(["zt-1", "zt-3"]);
    const told = sistersOf(db, "zt-3");
    expect(told.machines?.map(({ id, readings }) => [id, readings.map(({ checkId }) => checkId)])).toEqual([
      ["zt-1", ["deck-level"]],
      ["zt-3", []],
    ]);
    expect(sistersOf(db, "gr-1").machines).toMatchObject([{ id: "gr-1", readings: [] }]);
    expect(refusedFor(() => sistersOf(db, "zt-99"))).toEqual(["machine-not-found"]);
  });
});

describe("does it hold", () => {
  /** A job opened and closed by hand for a cause, proved or not, on a day. */
  function closed(machineId: string, day: number, cause: string, isProved: boolean): number {
    const jobId = takeComplaint(db, at(day), {
      machineId,
      words: "",
      saidBy: "TV",
      place: "",
      looks: { symptoms: ["torn-tips"], denied: [], contexts: [] },
    }).jobId;
    const close = closeJob(db, at(day + 0.1), {
      jobId,
      causes: [cause],
      words: "done",
      unprovedReason: "went out as it was, nobody there to cut",
    } as never);
    if (isProved)
      db.exec(
        `DROP TRIGGER steps_kept; UPDATE steps SET data_json = json_set(data_json, '$.isProved', json('true')) WHERE id = ${close.stepId}; CREATE TRIGGER steps_kept BEFORE UPDATE ON steps BEGIN SELECT RAISE(ABORT, 'steps are only added'); END;`,
      );
    return jobId;
  }

  it("counts proved jobs whose window is over, and those that came back; the rest says nothing yet", () => {
    const first = closed("zt-1", 0, "blade-dull", true);
    const again = closed("zt-1", 12, "blade-dull", true);
    closed("zt-2", 0, "blade-dull", true);
    closed("zt-3", 0, "blade-dull", false);
    const early = holdsOf(db, at(20).now);
    expect(early.depot).toMatchObject({ jobs: 1, cameBack: 1 });
    const later = holdsOf(db, at(90).now);
    expect(later.depot).toMatchObject({ jobs: 3, cameBack: 1 });
    expect(later.byCause[0]).toMatchObject({ key: "blade-dull", counted: { jobs: 3, cameBack: 1 }, backJobs: [first] });
    expect(closedJobs(db, at(90).now, "zt-1").map(({ jobId, back, backBy }) => [jobId, back, backBy])).toEqual([
      [first, "came-back", again],
      [again, undefined, undefined],
    ]);
  });

  it("keeps where a cause was found: a left blade mended does not come back as a right one", () => {
    const crackedAt = (blade: "left" | "right", day: number) => {
      const jobId = takeComplaint(db, at(day), {
        machineId: "zt-1",
        words: "",
        saidBy: "TV",
        place: "",
        looks: { symptoms: ["torn-tips"], denied: [], contexts: [] },
      }).jobId;
      recordConfirmation(db, at(day + 0.01), {
        jobId,
        state: "raised",
        answers: allYes(itemsFor(getMachine(db, "zt-1").machine, "raised")),
        parts: [],
      });
      const end = { edge: "rounded", nickMetres: 0 };
      const sharp = {
        crack: "none",
        bend: "straight",
        slot: "none",
        A: { edge: "sharp", nickMetres: 0 },
        B: { edge: "sharp", nickMetres: 0 },
      };
      const blades = { left: sharp, middle: sharp, right: sharp, [blade]: { ...sharp, A: end, B: end } };
      recordTake(db, at(day + 0.02), { jobId, checkId: "blade-edge", readings: { blades }, asTyped: {} });
      closeJob(db, at(day + 0.1), {
        jobId,
        causes: ["blade-dull"],
        words: "done",
        unprovedReason: "went out as it was, nobody there to cut",
      } as never);
      return jobId;
    };
    const [first] = [crackedAt("left", 0), crackedAt("right", 5)];
    expect(closedJobs(db, at(90).now, "zt-1").find(({ jobId }) => jobId === first)).toMatchObject({
      causes: [{ cause: "blade-dull", place: "left" }],
      back: "missed",
    });
  });

  it("another cause is a missed one; after a strike in between it is new damage", () => {
    const first = closed("zt-1", 0, "blade-dull", true);
    closed("zt-1", 5, "blade-bent", true);
    logEvent(db, at(6), { machineId: "zt-2", event: "struck", place: "left", words: "a kerb" });
    expect(holdsOf(db, at(90).now).missed).toEqual([{ jobId: first, by: first + 1, machineId: "zt-1" }]);
    const bent = closed("zt-3", 10, "blade-bent", true);
    logEvent(db, at(12), { machineId: "zt-3", event: "struck", place: "left", words: "a kerb" });
    closed("zt-3", 13, "blade-bent", true);
    expect(closedJobs(db, at(90).now, "zt-3").find(({ jobId }) => jobId === bent)?.back).toBe("new-damage");
  });
});

describe("procedures, schools, sites, handing over", () => {
  it("a reading names the version it went by; withdrawn, its jobs are listed, and no older version comes back", () => {
    const procedure = { title: "Tyres first", body: "Cold, to the sheet.", checks: ["tyre-pressure" as const] };
    const { slug } = keepProcedure(db, clock.doing(), { basedOnVersion: 0, procedure, reason: "first" });
    const read = (machineId: string) => {
      const jobId = openJob(db, clock, machineId);
      makeSafe(db, clock, jobId, "parked", machineId);
      const { stepId } = recordTake(db, clock.doing(), {
        jobId,
        checkId: "tyre-pressure",
        readings: { tyres: tyresOf(machineId) },
        asTyped: {},
      });
      return { jobId, stepId };
    };
    const { jobId: first, stepId } = read("zt-1");
    keepProcedure(db, clock.doing(), { slug, basedOnVersion: 1, procedure: { ...procedure, body: "Cold, in the shade." }, reason: "sun" });
    const { jobId: second } = read("zt-2");
    expect(refusedFor(() => keepProcedure(db, clock.doing(), { slug, basedOnVersion: 1, procedure, reason: "late" }))).toEqual([
      "changed-since",
    ]);
    expect([jobsBy(db, slug, 1), jobsBy(db, slug, 2)].map((jobs) => jobs.map(({ jobId }) => jobId))).toEqual([[first], [second]]);
    expect(withdrawProcedure(db, clock.doing(), { slug, version: 2, reason: "the shade was wrong" }).jobs).toEqual([second]);
    expect(proceduresInForce(db)).toEqual([]);
    expect(refusedFor(() => withdrawProcedure(db, clock.doing(), { slug, version: 2, reason: "again" }))).toEqual(["procedure-not-found"]);
    undoStep(db, clock.doing(), { jobId: first, stepId, reason: "" });
    expect(jobsBy(db, slug, 1)).toEqual([]);
  });

  it("a school goes on every sheet that followed the depot or said nothing, and leaves the others alone", () => {
    const follows = () =>
      Object.fromEntries(
        schoolStandings(db)
          .find(({ id }) => id === "rake")
          ?.machines.map((one) => [one.id, one.follows]) ?? [],
      );
    expect(follows()).toMatchObject({ "zt-1": "quarter", "fd-1": "eighth" });
    const first = setSchool(db, clock.doing(), { school: "rake", choice: "quarter", reason: "as most" });
    expect(first).toEqual({ changed: [], kept: ["fd-1"] });
    const second = setSchool(db, clock.doing(), { school: "rake", choice: "flat", reason: "all mulch now" });
    expect(second.kept).toEqual(["fd-1"]);
    expect(second.changed).toContain("zt-1");
    expect(getMachine(db, "zt-1")).toMatchObject({ sheetVersion: 2, sheetReason: expect.stringContaining("all mulch now") });
    expect(follows()).toMatchObject({ "zt-1": "flat", "fd-1": "eighth" });
    expect(refusedFor(() => setSchool(db, clock.doing(), { school: "rake", choice: "steep", reason: "x" }))).toEqual([
      "invalid",
      "nothing-set",
    ]);
  });

  it("whoever goes to a site is told its places and what was struck there, until a place is gone", () => {
    const { placeId } = addPlace(db, clock.doing(), { site: "Airfield verges", name: "Weir gate", words: "cover stands proud" });
    const { eventId } = logEvent(db, clock.doing(), {
      machineId: "zt-1",
      event: "struck",
      place: "left",
      words: "a light",
      where: "threshold",
    });
    expect(eventId).toBeGreaterThan(0);
    const told = hazardsOf(db, "Airfield verges", clock.doing().now);
    expect([told.places.map(({ name }) => name), told.strikes.map(({ where }) => where)]).toEqual([["Weir gate"], ["threshold"]]);
    expect(hazardsOf(db, "North cemetery", clock.doing().now)).toEqual({ places: [], strikes: [] });
    placeGone(db, clock.doing(), { placeId, reason: "set flush" });
    expect(hazardsOf(db, "Airfield verges", clock.doing().now).places).toEqual([]);
    expect(refusedFor(() => placeGone(db, clock.doing(), { placeId, reason: "again" }))).toEqual(["place-not-found"]);
    // It was a slip: it stands again with its words, and what was said of it stays on the record.
    expect(gonePlaces(db, "Airfield verges")).toMatchObject([{ id: placeId, name: "Weir gate", reason: "set flush" }]);
    const { placeId: again } = placeBack(db, clock.doing(), placeId);
    expect(hazardsOf(db, "Airfield verges", clock.doing().now).places).toMatchObject([{ id: again, words: "cover stands proud" }]);
    expect(gonePlaces(db, "Airfield verges")).toEqual([]);
    expect(refusedFor(() => placeBack(db, clock.doing(), placeId))).toEqual(["place-stands"]);
    expect(refusedFor(() => placeBack(db, clock.doing(), again))).toEqual(["place-not-found"]);
    // Another thing at the same spot hides neither.
    addPlace(db, clock.doing(), { site: "Airfield verges", name: "Weir gate", words: "wire in the hedge" });
    placeGone(db, clock.doing(), { placeId: again, reason: "dug out" });
    expect(gonePlaces(db, "Airfield verges").map(({ reason }) => reason)).toEqual(["dug out"]);
    // The only machine there mows elsewhere now: the site with its dangers stays.
    placeBack(db, clock.doing(), again);
    db.exec("UPDATE machines SET site = 'Yard' WHERE site = 'Airfield verges'");
    expect(listSites(db)).toContain("Airfield verges");
    expect(refusedFor(() => addPlace(db, clock.doing(), { site: "Nowhere", name: "x", words: "" }))).toEqual(["place-not-found"]);
  });

  it("a part that left stays away until all that is owed on it is done", () => {
    const jobId = openJob(db, clock);
    recordHandover(db, clock.doing(), { jobId, what: "Left gearbox", to: "the gear shop", owes: ["new pinion", "pressure test"] });
    expect(awayNow(db)).toMatchObject([{ what: "Left gearbox", to: "the gear shop", machineId: "zt-1" }]);
    const [first, second] = awayNow(db)[0]?.owed ?? [];
    settleOwed(db, clock.doing(), { owedId: first?.id ?? 0 });
    expect(awayNow(db)[0]?.owed).toHaveLength(1);
    settleOwed(db, clock.doing(), { owedId: second?.id ?? 0 });
    expect(awayNow(db)).toEqual([]);
    expect(owedByMachine(db)).toEqual([]);
  });
});
