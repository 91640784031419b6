import { beforeEach, describe, expect, it } from "vitest";
import { sayDue } from "@/app/due";
import { calendarOf } from "@/app/due-calendar";
import { allYes, itemsFor } from "@/core/job/safety";
import { addRound, getRound } from "@/data/fleet/rounds";
import { recordFix, recordHandover } from "@/data/job/job-actions";
import { recordConfirmation } from "@/data/job/safe-state";
import { logHours } from "@/data/machine/hours";
import { getMachine } from "@/data/machine/machines";
import { type DueLine, dueNow, dueThisWeek, greaseDue } from "@/data/service/due";
import { listOwed, postponeOwed, settleOwed } from "@/data/service/owed";
import { logService, postponeService, takeBackService } from "@/data/service/service";
import { serviceEntries } from "@/data/service/service-log";
import { addRule, newRuleSchema } from "@/data/service/service-rules";
import { listSpindleLog, logSpindles, takeBackSpindleEntry } from "@/data/service/spindle-log";
import type { Db } from "@/data/store/db";
import { type Clock, emptyDepot, openJob, refusedFor } from "./helpers";

let db: Db;
let clock: Clock;
beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

const NOW = "2026-05-10T08:00:00.000Z";
const hours = (machineId: string, meterHours: number) =>
  logHours(db, clock.doing(), { machineId, meterHours, isCorrection: false, isSure: true });
const grease = (machineId: string, places: string[]) => logSpindles(db, clock.doing(), { machineId, kind: "topped-up", places });
const due = () => dueNow(db, NOW).map(({ machineId, what, places, state }) => [machineId, what, places ?? "all", state]);

/** iCalendar by its own rules (RFC 5545, from memory): CRLF, folded at 75 octets, whole days, a stamp and an id each. */
describe("as a calendar file", () => {
  const machines = [{ id: "zt-1", fleetNumber: "ZT-1", places: [{ id: "left", label: "Left blade" }] }];
  const of = { machineId: "zt-1", fleetNumber: "ZT-1", name: "Zero-turn", site: "Depot" };
  const due = (on = "2026-05-20T21:30:00.000Z", more: Partial<DueLine> = {}): DueLine =>
    ({ ...of, what: "top-up", places: ["left"], state: "soon", day: { early: on, on, late: on }, ...more }) as DueLine;
  const owing = { id: 7, machineId: "zt-1", jobId: 1, code: "second-look", dueAt: "2026-05-01T00:00:00.000Z" };
  const owed: DueLine = { ...of, what: "owed", owed: owing, state: "overdue", day: { on: owing.dueAt } };
  const read = (items: DueLine[], zone = "UTC") => {
    const file = calendarOf({ due: [...items, owed], machines, now: NOW, zone });
    const lines = file.split("\r\n");
    return { file, lines, unfolded: file.replace(/\r\n[ \t]/g, "").split("\r\n") };
  };
  const values = (lines: readonly string[], name: string) =>
    lines.filter((line) => line.startsWith(name)).map((line) => line.slice(line.indexOf(":") + 1));

  it("every entry is a whole day with its own id; what is overdue stands today", () => {
    const { lines, unfolded, file } = read([due(), due("2026-04-02T00:00:00.000Z", { state: "due", what: "purge" })]);
    expect([lines[0], unfolded.filter((line) => line === "BEGIN:VEVENT").length]).toEqual(["BEGIN:VCALENDAR", 3]);
    expect(file.endsWith("END:VCALENDAR\r\n")).toBe(true);
    expect(values(unfolded, "DTSTART;VALUE=DATE")).toEqual(["20260520", "20260510", "20260510"]);
    expect(values(unfolded, "DTEND;VALUE=DATE")).toEqual(["20260521", "20260511", "20260511"]);
    expect(values(unfolded, "SUMMARY")).toEqual([
      "ZT-1: grease the spindles: left blade",
      "ZT-1: purge the spindles' grease: left blade",
      "ZT-1: second look for browning",
    ]);
    expect(new Set(values(unfolded, "UID")).size).toBe(3);
    expect(values(unfolded, "DTSTAMP")).toHaveLength(3);
    expect(lines.every((line) => Buffer.byteLength(line) <= 75)).toBe(true);
  });

  it("the day is the shop's own, and an entry keeps its id when its day moves", () => {
    expect(values(read([due()], "Pacific/Auckland").unfolded, "DTSTART")[0]).toBe("20260521");
    const uid = (on: string) => values(read([due(on)]).unfolded, "UID")[0];
    expect(uid("2026-05-20T00:00:00.000Z")).toBe(uid("2026-06-02T00:00:00.000Z"));
  });
});

describe("what falls due over the fleet", () => {
  it("nothing where nothing was ever logged: hours nobody wrote down are not made up", () => {
    expect(due()).toEqual([]);
  });

  it("overdue before soon, every place of one thing in one line, and gone once it is done (by hand: 50 h of grease)", () => {
    const spindles = (id: string) => getMachine(db, id).machine.spindles.map((one) => one.id);
    hours("zt-1", 1000);
    grease("zt-1", spindles("zt-1"));
    // Between two readings the meter is taken to run evenly: it stood while they were greased.
    hours("zt-1", 1000);
    hours("zt-2", 500);
    grease("zt-2", spindles("zt-2"));
    hours("zt-2", 500);
    hours("zt-1", 1060);
    hours("zt-2", 547);
    expect(due()).toEqual([
      ["zt-1", "top-up", "all", "overdue"],
      ["zt-2", "top-up", "all", "soon"],
    ]);
    grease("zt-1", ["left"]);
    expect(due()[0]).toEqual(["zt-1", "top-up", expect.arrayContaining(["middle", "right"]), "overdue"]);
    const { machine } = getMachine(db, "zt-1");
    expect(sayDue({ what: "top-up", places: ["middle", "right"] }, machine.spindles)).toBe(
      "grease the spindles: middle blade, right blade",
    );
  });

  it("a bedknife with a grind left is to be ordered, of that unit alone", () => {
    const jobId = openJob(db, clock, "rt-1");
    const { machine } = getMachine(db, "rt-1");
    recordConfirmation(db, clock.doing(), {
      jobId,
      state: "bench",
      answers: allYes(itemsFor(machine, "bench")),
      parts: machine.units.map(({ id }) => id),
    });
    // 0.05 in of top: 25 in-feeds of 0.5 mm/10 leave one grind of as much.
    const face = (inFeeds: number) => ({ plannedMetres: 0, inFeeds, inFeedMetres: 0.00005, passes: inFeeds });
    recordFix(db, clock.doing(), {
      jobId,
      fix: "grind-bedknife",
      cause: "edge-nicked",
      words: "",
      units: ["left"],
      ground: { isClamped: true, top: face(12), front: face(0) },
    });
    expect(due()).toEqual([["rt-1", "order-knife", ["left"], "due"]]);
  });
});

describe("done, put off and gone round with, whatever it is", () => {
  const line = (what: string, machineId = "zt-1") => dueNow(db, NOW).filter((one) => one.machineId === machineId && one.what === what);
  const overdue = () => {
    hours("zt-1", 1000);
    grease(
      "zt-1",
      getMachine(db, "zt-1").machine.spindles.map(({ id }) => id),
    );
    hours("zt-1", 1000);
    hours("zt-1", 1060);
  };
  const log = (args: Partial<Parameters<typeof logService>[2]>) =>
    logService(db, clock.doing(), { machineId: "zt-1", what: "top-up", kind: "done", words: "", ...args });

  it("grease done as service stands in the log of the spindles, where it was done, and is taken back as one", () => {
    overdue();
    const { entryId } = log({ places: ["left", "middle"] });
    expect(line("top-up")[0]).toMatchObject({ state: "overdue", places: ["right"] });
    const written = listSpindleLog(db, "zt-1").filter(({ serviceEntryId }) => serviceEntryId === entryId);
    expect(written.map((one) => one.kind !== "moved" && one.place)).toEqual(["left", "middle"]);
    takeBackService(db, clock.doing(), { machineId: "zt-1", entryId });
    expect(line("top-up")[0]?.places).toBeUndefined();
    expect(listSpindleLog(db, "zt-1").some(({ serviceEntryId }) => serviceEntryId === entryId)).toBe(false);
  });

  it("taken back spindle by spindle, the line of service goes with the last of them", () => {
    overdue();
    const { entryId } = log({ places: ["left", "middle"] });
    const written = listSpindleLog(db, "zt-1").filter(({ serviceEntryId }) => serviceEntryId === entryId);
    const back = (id: number | undefined) => takeBackSpindleEntry(db, clock.doing(), { machineId: "zt-1", entryId: id ?? 0 });
    back(written[0]?.id);
    expect(serviceEntries(db, "zt-1").map(({ id }) => id)).toContain(entryId);
    back(written[1]?.id);
    expect(serviceEntries(db, "zt-1").map(({ id }) => id)).not.toContain(entryId);
    expect(refusedFor(() => takeBackService(db, clock.doing(), { machineId: "zt-1", entryId }))).toEqual(["nothing-to-undo"]);
  });

  it("grease is put off with a reason, at one spindle or at all, and back once it was done there", () => {
    overdue();
    const off = (places?: string[]) =>
      postponeService(db, clock.doing(), {
        machineId: "zt-1",
        what: "top-up",
        untilDay: "2026-05-20",
        words: "no grease left",
        ...(places ? { places } : {}),
      });
    off(["left"]);
    expect(line("top-up").map(({ state, places }) => [state, places])).toEqual([
      ["overdue", expect.not.arrayContaining(["left"])],
      ["postponed", ["left"]],
    ]);
    const { entryId } = off();
    expect(line("top-up").map(({ state }) => state)).toEqual(["postponed"]);
    // Put off, it is as old as it was: what grease says of a bearing is no better for it.
    expect(greaseDue(db, "zt-1", NOW).map(({ place }) => place)).toHaveLength(getMachine(db, "zt-1").machine.spindles.length);
    takeBackService(db, clock.doing(), { machineId: "zt-1", entryId });
    log({ places: ["left"] });
    expect(line("top-up").map(({ state }) => state)).toEqual(["overdue"]);
    expect(refusedFor(() => off(["nowhere"]))).toEqual(["invalid", "unknown-part"]);
  });

  it("a round of grease goes through machine by machine; sealed bearings and reels are not of it", () => {
    overdue();
    const { roundId } = addRound(db, clock.doing(), { what: "top-up", title: "Grease", byDay: "2026-05-20", machines: ["zt-1", "zt-2"] });
    const { entryId } = log({ roundId });
    expect(getRound(db, roundId).lines.map(({ done }) => done?.entryId)).toEqual([entryId, undefined]);
    expect(line("top-up")).toEqual([]);
    takeBackService(db, clock.doing(), { machineId: "zt-1", entryId });
    expect(getRound(db, roundId).lines[0]?.done).toBeUndefined();
    const round = (machines: string[]) => () =>
      addRound(db, clock.doing(), { what: "top-up", title: "Grease", byDay: "2026-05-20", machines });
    expect([refusedFor(round(["fd-1"])), refusedFor(round(["rt-1"]))]).toEqual([
      ["invalid", "not-of-this-sort"],
      ["invalid", "not-of-this-sort"],
    ]);
  });

  it("a rule of one spindle is of that one; what goes by what is left has no hours, only off", () => {
    overdue();
    const rule = (args: object) =>
      addRule(
        db,
        clock.doing(),
        newRuleSchema.parse({ what: "top-up", scope: "place", machineId: "zt-1", place: "left", reason: "runs hot", ...args }),
      );
    rule({ everyHours: 200 });
    expect(line("top-up").map(({ state, places }) => [state, places])).toEqual([["overdue", expect.not.arrayContaining(["left"])]]);
    expect(refusedFor(() => rule({ everyHours: 20, place: "left-drive" }))).toEqual(["invalid", "unknown-part"]);
    const knife = { what: "order-knife", scope: "fleet", reason: "the dealer keeps them" };
    expect(newRuleSchema.safeParse({ ...knife, everyHours: 100 }).error?.issues[0]?.message).toBe("not-by-hours");
    expect(newRuleSchema.safeParse({ ...knife, isOff: true }).success).toBe(true);
    expect(newRuleSchema.safeParse({ ...knife, isOff: true, place: "left" }).error?.issues[0]?.message).toBe("scope-named");
  });

  it("what is owed is put off and done like any task, both can be taken back, and it stays owed until it is done", () => {
    const jobId = openJob(db, clock);
    recordHandover(db, clock.doing(), { jobId, what: "Left gearbox", to: "the gear shop", owes: ["new pinion"], dueAt: "2026-05-08" });
    const owedId = listOwed(db, "zt-1")[0]?.id ?? 0;
    expect(line("owed")[0]).toMatchObject({ state: "overdue", owed: { id: owedId } });
    const off = postponeOwed(db, clock.doing(), { owedId, untilDay: "2026-05-20", words: "the pinion is on its way" });
    expect(line("owed")[0]).toMatchObject({ state: "postponed", postponed: { words: "the pinion is on its way", who: "AK" } });
    takeBackService(db, clock.doing(), { machineId: "zt-1", entryId: off.entryId });
    expect(line("owed")[0]?.state).toBe("overdue");
    const { entryId } = settleOwed(db, clock.doing(), { owedId });
    expect([line("owed"), listOwed(db, "zt-1")]).toEqual([[], []]);
    expect(refusedFor(() => settleOwed(db, clock.doing(), { owedId }))).toEqual(["owed-not-found"]);
    expect(refusedFor(() => postponeOwed(db, clock.doing(), { owedId, untilDay: "2026-05-20", words: "x" }))).toEqual(["owed-not-found"]);
    takeBackService(db, clock.doing(), { machineId: "zt-1", entryId });
    expect(line("owed")).toHaveLength(1);
    expect(refusedFor(() => postponeOwed(db, clock.doing(), { owedId, untilDay: "2026-05-01", words: "x" }))).toEqual([
      "invalid",
      "day-gone",
    ]);
  });

  it("a knife that was ordered is ordered until another is on", () => {
    const jobId = openJob(db, clock, "rt-1");
    const { machine } = getMachine(db, "rt-1");
    const units = machine.units.map(({ id }) => id);
    const answers = allYes(itemsFor(machine, "bench"));
    recordConfirmation(db, clock.doing(), { jobId, state: "bench", answers, parts: units });
    const face = (inFeeds: number) => ({ plannedMetres: 0, inFeeds, inFeedMetres: 0.00005, passes: inFeeds });
    const fix = (more: object) =>
      recordFix(db, clock.doing(), { jobId, cause: "edge-nicked", words: "", units: ["left"], ...more } as never);
    const grind = () => fix({ fix: "grind-bedknife", ground: { isClamped: true, top: face(12), front: face(0) } });
    grind();
    expect(line("order-knife", "rt-1")[0]).toMatchObject({ state: "due", places: ["left"] });
    logService(db, clock.doing(), { machineId: "rt-1", what: "order-knife", kind: "done", words: "", places: ["left"] });
    expect(line("order-knife", "rt-1")).toEqual([]);
    fix({ fix: "replace-bedknife" });
    grind();
    expect(line("order-knife", "rt-1")[0]).toMatchObject({ state: "due", places: ["left"] });
  });

  it("one count says what is due this week, owed things with it, what was put off not", () => {
    overdue();
    const jobId = openJob(db, clock);
    recordHandover(db, clock.doing(), { jobId, what: "Box", to: "the shop", owes: ["a pinion", "a test"], dueAt: "2026-05-15" });
    expect(dueThisWeek(dueNow(db, NOW), NOW)).toBe(3);
    postponeService(db, clock.doing(), { machineId: "zt-1", what: "top-up", untilDay: "2026-05-12", words: "no grease left" });
    expect(dueThisWeek(dueNow(db, NOW), NOW)).toBe(2);
  });
});
