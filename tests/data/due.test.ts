import { beforeEach, describe, expect, it } from "vitest";
import { sayDue } from "@/app/due";
import { calendarOf } from "@/app/due-calendar";
import { allYes, itemsFor } from "@/core/safety";
import type { Db } from "@/data/connection";
import { type Due, dueNow } from "@/data/due";
import { logHours } from "@/data/hours";
import { recordFix } from "@/data/job-actions";
import { getMachine } from "@/data/machines";
import { recordConfirmation } from "@/data/safe-state";
import { logSpindles } from "@/data/spindle-log";
import { type Clock, emptyDepot, openJob } from "./helpers";

let db: Db;
let clock: Clock;
beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

const NOW = "2026-05-10T08:00:00.000Z";
const hours = (machineId: string, meterHours: number) =>
  logHours(db, clock.doing(), { machineId, meterHours, isCorrection: false, isSure: true });
const grease = (machineId: string, places: string[]) => logSpindles(db, clock.doing(), { machineId, kind: "topped-up", places });
const due = () => dueNow(db, NOW).map(({ machineId, what, places, state }) => [machineId, what, places, state]);

/** iCalendar by its own rules (RFC 5545, from memory): CRLF, folded at 75 octets, whole days, a stamp and an id each. */
describe("as a calendar file", () => {
  const machines = [{ id: "zt-1", fleetNumber: "ZT-1", places: [{ id: "left", label: "Left blade" }] }];
  const due = (more: Partial<Due> = {}): Due => ({
    machineId: "zt-1",
    fleetNumber: "ZT-1",
    name: "Zero-turn",
    what: "top-up",
    places: ["left"],
    state: "soon",
    on: "2026-05-20T21:30:00.000Z",
    ...more,
  });
  const owed = [{ id: 7, machineId: "zt-1", jobId: 1, code: "second-look", dueAt: "2026-05-01T00:00:00.000Z" }];
  const read = (items: Due[], zone = "UTC") => {
    const file = calendarOf({ due: items, owed, machines, now: NOW, zone });
    const lines = file.split("\r\n");
    return { file, lines, unfolded: file.replace(/\r\n[ \t]/g, "").split("\r\n") };
  };
  const values = (lines: readonly string[], name: string) =>
    lines.filter((line) => line.startsWith(name)).map((line) => line.slice(line.indexOf(":") + 1));

  it("every entry is a whole day with its own id; what is overdue stands today", () => {
    const { lines, unfolded, file } = read([due(), due({ state: "due", what: "purge", on: "2026-04-02T00:00:00.000Z" })]);
    expect([lines[0], unfolded.filter((line) => line === "BEGIN:VEVENT").length]).toEqual(["BEGIN:VCALENDAR", 3]);
    expect(file.endsWith("END:VCALENDAR\r\n")).toBe(true);
    expect(values(unfolded, "DTSTART;VALUE=DATE")).toEqual(["20260520", "20260510", "20260510"]);
    expect(values(unfolded, "DTEND;VALUE=DATE")).toEqual(["20260521", "20260511", "20260511"]);
    expect(values(unfolded, "SUMMARY")).toEqual([
      "ZT-1: grease: left blade",
      "ZT-1: purge the grease: left blade",
      "ZT-1: second look for browning",
    ]);
    expect(new Set(values(unfolded, "UID")).size).toBe(3);
    expect(values(unfolded, "DTSTAMP")).toHaveLength(3);
    expect(lines.every((line) => Buffer.byteLength(line) <= 75)).toBe(true);
  });

  it("the day is the shop's own, and an entry keeps its id when its day moves", () => {
    expect(values(read([due()], "Pacific/Auckland").unfolded, "DTSTART")[0]).toBe("20260521");
    const uid = (on: string) => values(read([due({ on })]).unfolded, "UID")[0];
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
      ["zt-1", "top-up", spindles("zt-1"), "due"],
      ["zt-2", "top-up", spindles("zt-2"), "soon"],
    ]);
    grease("zt-1", ["left"]);
    expect(due()[0]).toEqual(["zt-1", "top-up", spindles("zt-1").filter((id) => id !== "left"), "due"]);
    const { machine } = getMachine(db, "zt-1");
    expect(sayDue({ what: "top-up", places: ["middle", "right"] }, machine.spindles)).toBe("grease: middle blade, right blade");
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
