import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import ICAL from "ical.js";
import { beforeEach, describe, expect, it } from "vitest";
import { calendarOf } from "@/app/due-calendar";
import { keepProcedure, listProcedures, procedureSchema } from "@/data/catalogue/procedures";
import { recordFix } from "@/data/job/job-actions";
import { lastMeterSwap, logHours, meterReadings, swapMeter, takeBackMeterSwap } from "@/data/machine/hours";
import { getMachine, renameMachine } from "@/data/machine/machines";
import { addPlace, addSitePicture, dangersBySite, hazardCount, listSites } from "@/data/machine/site-places";
import { openDatabase } from "@/data/open";
import { addPart, getPart, movePart } from "@/data/service/parts";
import { postponeService } from "@/data/service/service";
import type { Db } from "@/data/store/db";
import { AppError, ofDriver } from "@/data/store/errors";
import { holdFolder } from "@/data/store/hold";
import { MOST_PHOTOGRAPHS } from "@/data/store/pictures";
import { type Clock, emptyDepot, makeSafe, openJob, refusedFor } from "./helpers";

const BEHIND = ["constructor", "toString", "hasOwnProperty", "__proto__", "valueOf"];
let db: Db;
let clock: Clock;
beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

describe("names that every object has", () => {
  it.each(BEHIND)("%s is a site like any, and no cause", (name) => {
    renameMachine(db, clock.doing(), { machineId: "zt-1", name: "Zero-turn", site: name });
    addPlace(db, clock.doing(), { site: name, name: "Weir gate", words: "" });
    expect([listSites(db).includes(name), dangersBySite(db).get(name), dangersBySite(db).get("Nowhere"), hazardCount(db)]).toEqual([
      true,
      1,
      undefined,
      1,
    ]);
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    expect(refusedFor(() => recordFix(db, clock.doing(), { jobId, fix: "adjust-hangers", cause: name, words: "" }))).toEqual([
      "invalid",
      "unknown-fix",
    ]);
  });
});

describe("procedures", () => {
  const keep = (title: string, slug?: string, basedOnVersion = 0) =>
    keepProcedure(db, clock.doing(), {
      ...{ procedure: procedureSchema.parse({ title, body: "As it is.", checks: ["tyre-pressure"] }), basedOnVersion, reason: "first" },
      ...(slug ? { slug } : {}),
    });

  it("get their next version whatever their title: cut behind a hyphen, in another alphabet, or the same as another's", () => {
    const titles = [`${"a".repeat(39)} b`, `${"a".repeat(59)} b`, "Πίεση ελαστικών", "Ύψος κοπής", "Tyres first", "Tyres first"];
    const slugs = titles.map((title) => keep(title).slug);
    expect(new Set(slugs).size).toBe(titles.length);
    for (const [k, slug] of slugs.entries()) {
      expect(slug).toMatch(/^[a-z][a-z0-9]*(-[a-z0-9]+)*$/);
      expect(keep(titles[k] ?? "", slug, 1)).toEqual({ slug, version: 2 });
    }
    expect(listProcedures(db)).toHaveLength(2 * titles.length);
  });
});

describe("pictures", () => {
  it("of a site are counted like any: so many of one, and all that is kept together", () => {
    const site = listSites(db)[0] ?? "";
    const add = () => addSitePicture(db, clock.doing(), { site, picture: { mime: "image/jpeg", bytes: Buffer.alloc(1000) } });
    for (let k = 0; k < MOST_PHOTOGRAPHS; k++) add();
    expect(refusedFor(add)).toEqual(["photographs-full", "photographs-full"]);
    process.env.ZYGOMETER_PHOTOGRAPHS_MB = "0.081";
    try {
      const other = listSites(db)[1] ?? "";
      const more = () => addSitePicture(db, clock.doing(), { site: other, picture: { mime: "image/jpeg", bytes: Buffer.alloc(1000) } });
      more();
      expect(refusedFor(more)).toEqual(["photographs-full", "photographs-full"]);
    } finally {
      delete process.env.ZYGOMETER_PHOTOGRAPHS_MB;
    }
  });
});

describe("the hour meter", () => {
  const total = () => getMachine(db, "zt-1").totalHours ?? getMachine(db, "zt-1").meterHours;
  const log = (meterHours: number, more: { isCorrection?: boolean; isSure?: boolean } = {}) =>
    logHours(db, clock.doing(), { machineId: "zt-1", meterHours, isCorrection: false, ...more });
  const swap = (oldHours: number, newHours: number, more: { isSure?: boolean; seenSwapId?: number } = {}) =>
    swapMeter(db, clock.doing(), { machineId: "zt-1", oldHours, newHours, ...more });

  it("is swapped once though two write it down, ten times over too; another swap is said to be one", () => {
    log(5);
    const { swapId } = swap(10, 0);
    expect(total()).toBe(10);
    for (let k = 0; k < 10; k++) expect(refusedFor(() => swap(10, 0, { isSure: true }))).toEqual(["invalid", "meter-swapped-already"]);
    expect(total()).toBe(10);
    const again = swap(2, 0, { isSure: true, seenSwapId: swapId });
    expect(refusedFor(() => swap(2, 0, { isSure: true, seenSwapId: swapId }))).toEqual(["invalid", "meter-swapped-already"]);
    expect([total(), lastMeterSwap(db, "zt-1")?.id]).toEqual([12, again.swapId]);
  });

  it("is asked about a swap as about hours: a digit too many makes every service overdue", () => {
    log(151);
    expect(refusedFor(() => swap(151_000, 0))).toEqual(["invalid", "hours-run-too-fast"]);
    expect(refusedFor(() => swap(150, 0))).toEqual(["invalid", "hours-run-backwards"]);
    expect(swap(151_000, 0, { isSure: true }).totalHours).toBe(151_000);
  });

  it("goes on as before where a swap is taken back, and so does what was read since", () => {
    log(100);
    const { swapId } = swap(110, 0);
    log(4);
    expect(total()).toBe(114);
    takeBackMeterSwap(db, clock.doing(), { machineId: "zt-1", swapId });
    expect(meterReadings(db, "zt-1").map(({ meterHours }) => meterHours)).toEqual([100, 100, 100, 4]);
    expect(refusedFor(() => takeBackMeterSwap(db, clock.doing(), { machineId: "zt-1", swapId }))).toEqual(["nothing-to-undo"]);
  });

  it("shows what it showed before, where the swap was the last that was written", () => {
    log(100);
    takeBackMeterSwap(db, clock.doing(), { machineId: "zt-1", swapId: swap(110, 0).swapId });
    expect([getMachine(db, "zt-1").meterHours, total(), lastMeterSwap(db, "zt-1")]).toEqual([100, 100, undefined]);
    expect(log(112).hoursId).toBeGreaterThan(0);
  });

  it("a slip put right does not run behind the reading before it, and stands when the slip stood", () => {
    log(100);
    log(105);
    const slipAt = meterReadings(db, "zt-1").at(-1)?.at;
    expect(refusedFor(() => log(5, { isCorrection: true }))).toEqual(["invalid", "hours-run-backwards"]);
    expect(refusedFor(() => log(90_000, { isCorrection: true }))).toEqual(["invalid", "hours-run-too-fast"]);
    log(104, { isCorrection: true });
    expect(meterReadings(db, "zt-1").map(({ meterHours }) => meterHours)).toEqual([100, 104]);
    expect(meterReadings(db, "zt-1").at(-1)?.at).toBe(slipAt);
  });

  it("a slip in the first figure of a new meter adds nothing to the machine's hours", () => {
    log(100);
    swap(110, 50);
    log(5, { isCorrection: true });
    expect([total(), getMachine(db, "zt-1").meterHours]).toEqual([110, 5]);
  });
});

describe("small things of the shop", () => {
  it("lots that differ in capitals only are one", () => {
    const part = { kind: "blade" as const, label: "Blade", lengthMetres: 0.43, lowMark: 2, currency: "£", supplier: "", notes: "" };
    const { partId } = addPart(db, clock.doing(), { part });
    movePart(db, clock.doing(), { partId, move: { why: "bought", count: 6, lot: "L1" } });
    movePart(db, clock.doing(), { partId, move: { why: "fitted", count: 2, lot: "l1" } });
    expect(getPart(db, partId).byLot).toEqual([{ lot: "L1", stock: 4 }]);
  });

  it("nothing is put off further than anybody plans", () => {
    const put = (untilDay: string) => () =>
      postponeService(db, clock.doing(), { machineId: "zt-1", what: "sharpen", untilDay, words: "no time" });
    expect(refusedFor(put("2040-01-01"))).toEqual(["invalid", "date-too-far"]);
    expect(refusedFor(put("2026-06-01"))).toEqual([]);
  });

  it("a folder that cannot be written is said in words", () => {
    expect(ofDriver(Object.assign(new Error("no"), { code: "EACCES" }))).toMatchObject({ code: "record-unreadable" });
    expect(ofDriver(Object.assign(new Error("no"), { code: "EROFS" }))).toMatchObject({ code: "record-unreadable" });
    expect(ofDriver(Object.assign(new Error("no"), { code: "ENOSPC" }))).toMatchObject({ code: "no-room" });
    const folder = path.join(mkdtempSync(path.join(tmpdir(), "zygometer-shut-")), "a-file");
    openDatabase(folder).close();
    // A file stands where the folder is to be: root may write anything else.
    const code = (work: () => unknown) => {
      try {
        work();
        return undefined;
      } catch (error) {
        const ours = ofDriver(error);
        return ours instanceof AppError ? ours.code : String(error);
      }
    };
    expect(code(() => holdFolder(folder))).toBe("record-unreadable");
    expect(code(() => openDatabase(path.join(folder, "zygometer.sqlite")))).toBe("record-unreadable");
  });
});

/** Read by a parser that is not ours: ical.js, of RFC 5545. */
describe("a calendar file, read by another's parser", () => {
  const file = (args: { now: string; zone: string; fleetNumber?: string; on?: string }) =>
    calendarOf({
      due: [
        {
          ...{ machineId: "zt-1", fleetNumber: args.fleetNumber ?? "ZT-1", name: "Zero-turn", what: "sharpen" as const, places: [] },
          ...{ state: "soon" as const, site: "", day: { on: args.on ?? args.now } },
        } as never,
      ],
      machines: [{ id: "zt-1", fleetNumber: args.fleetNumber ?? "ZT-1", places: [] }],
      now: args.now,
      zone: args.zone,
    });
  const read = (text: string) =>
    new ICAL.Component(ICAL.parse(text)).getAllSubcomponents("vevent").map((one) => {
      const event = new ICAL.Event(one);
      return {
        days: (event.endDate.toUnixTime() - event.startDate.toUnixTime()) / 86_400,
        from: event.startDate.toString(),
        summary: event.summary,
      };
    });

  it.each([
    ["Europe/Berlin", "2026-03-28T22:30:00Z", "2026-03-28"],
    ["Europe/Berlin", "2026-10-24T21:30:00Z", "2026-10-24"],
    ["America/New_York", "2026-03-08T04:30:00Z", "2026-03-07"],
    ["Africa/Cairo", "2026-04-23T21:30:00Z", "2026-04-23"],
    ["America/Havana", "2026-03-08T04:30:00Z", "2026-03-07"],
    ["Atlantic/Azores", "2026-03-29T00:30:00Z", "2026-03-28"],
    ["Australia/Lord_Howe", "2026-10-03T13:00:00Z", "2026-10-03"],
  ])("a day is one day in %s, in the last hour before the clocks change too", (zone, now, day) => {
    expect(read(file({ zone, now }))).toEqual([{ days: 1, from: day, summary: expect.stringContaining("ZT-1") }]);
  });

  it("folds by octets, cuts no letter in two, and reads back the same", () => {
    const fleetNumber = "🚜".repeat(40);
    const text = file({ zone: "UTC", now: "2026-05-01T08:00:00Z", fleetNumber });
    for (const line of text.split("\r\n")) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
    expect(text).not.toContain("\uFFFD");
    expect(read(text)[0]?.summary.startsWith(fleetNumber)).toBe(true);
  });

  it("has no line of anybody's making: line ends and letters that turn a line about, of an older record, are spaces", () => {
    const text = file({ zone: "UTC", now: "2026-05-01T08:00:00Z", fleetNumber: "Q1\rX:evil\nY:evil\u2028Z\u202ELEFT" });
    expect(text.split(/\r\n|\r|\n|\u2028/).filter((line) => /^[XYZ]:/.test(line))).toEqual([]);
    expect(read(text)[0]?.summary).toMatch(/^Q1 X:evil Y:evil Z LEFT/);
  });
});
