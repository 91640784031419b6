import { beforeAll, beforeEach, describe, expect, it } from "vitest";
import { GET as calendarRoute } from "@/app/api/v1/due/calendar/route";
import { GET as historyRoute } from "@/app/api/v1/machines/[id]/history/route";
import { historyPaper } from "@/app/machines/[id]/book/history-paper";
import { historyDocument } from "@/app/paper/history-pdf";
import { partSchema } from "@/core/fleet/parts";
import { dueDay, paceOf } from "@/core/fleet/reliability";
import { type Machine, machineSchema } from "@/core/machine";
import { missingOf, TEMPLATES, templateMachine } from "@/core/machine/specification";
import { jobsBy, listProcedures } from "@/data/catalogue/procedures";
import { takesOfPlace } from "@/data/checks/place-readings";
import { recordTake } from "@/data/checks/takes";
import { bookOf } from "@/data/fleet/book";
import { changeFeedKey, feedKey, isFeedKey } from "@/data/fleet/feed-key";
import { fleetRows } from "@/data/fleet/fleet";
import { holdsOf } from "@/data/fleet/holds";
import { getRound, listRounds } from "@/data/fleet/rounds";
import { families, readingsDrift, sisterDifferences } from "@/data/fleet/sisters";
import { recordFix, recordHold } from "@/data/job/job-actions";
import { importHours, logHours, meterReadings, swapMeter } from "@/data/machine/hours";
import { addMachine, getMachine, listMachines, setStanding } from "@/data/machine/machines";
import { hazardsOf } from "@/data/machine/site-places";
import { openDatabase } from "@/data/open";
import { dueNow, serviceOf, sharpenHoursOf } from "@/data/service/due";
import { edgeLooks } from "@/data/service/edge-looks";
import { logEvent } from "@/data/service/events";
import { addPart, addSet, listParts, listSets, logSet, lotsOf, setCounts, takeBackSetEntry, whatFits } from "@/data/service/parts";
import { logService, takeBackService } from "@/data/service/service";
import { recordId } from "@/data/store/connection";
import type { Db } from "@/data/store/db";
import { grouped } from "@/data/store/grouped";
import { seedDepot } from "@/demo/depot";
import { type Clock, emptyDepot, LEVEL_INCHES, makeSafe, openJob, refusedFor, tips } from "./helpers";

const DAY = 86_400_000;
const at = (day: number, who = "AK") => ({ who, now: new Date(Date.UTC(2026, 4, 5) + day * DAY).toISOString() });
const tyresAt = (machine: Machine, pascals: number) =>
  Object.fromEntries(machine.wheels.flatMap(({ id, isPneumatic }) => (isPneumatic ? [[id, { pressurePascals: pascals }]] : [])));

describe("hour meters of many machines at once", () => {
  let db: Db;
  beforeEach(() => {
    ({ db } = emptyDepot());
    logHours(db, at(0), { machineId: "zt-1", meterHours: 100, isCorrection: false });
  });
  const rows = (...all: [string, number][]) => all.map(([fleetNumber, meterHours]) => ({ fleetNumber, meterHours }));

  it("writes all of them, found by their number however it is written", () => {
    importHours(db, at(10), { rows: rows(["zt-1", 120], ["BD-2", 960.5]) });
    expect([getMachine(db, "zt-1").meterHours, getMachine(db, "bd-2").meterHours]).toEqual([120, 960.5]);
  });

  it.each([
    ["a number nobody has", rows(["BD-2", 960], ["XX-1", 5]), "unknown-machine"],
    ["one that runs backwards", rows(["BD-2", 960], ["ZT-1", 99]), "hours-run-backwards"],
    ["one that runs faster than the clock", rows(["BD-2", 960], ["ZT-1", 9000]), "hours-run-too-fast"],
    ["one that stands there twice", rows(["BD-2", 960], ["BD-2", 961]), "machine-twice"],
  ] as const)("writes none of them for %s, and names its line", (_, given, code) => {
    expect(refusedFor(() => importHours(db, at(1), { rows: [...given] }))).toEqual(["invalid", code]);
    expect(getMachine(db, "bd-2").meterHours).toBeUndefined();
    expect(getMachine(db, "zt-1").meterHours).toBe(100);
  });

  it("names every line that cannot be, and what is sure is taken", () => {
    expect(refusedFor(() => importHours(db, at(1), { rows: rows(["ZT-1", 9000], ["XX-1", 5], ["XX-2", 5]) }))).toEqual([
      "invalid",
      "hours-run-too-fast",
      "unknown-machine",
      "unknown-machine",
    ]);
    importHours(db, at(1), { rows: rows(["ZT-1", 9000]), isSure: true });
    expect(getMachine(db, "zt-1").meterHours).toBe(9000);
  });

  it("goes on from a meter that was swapped", () => {
    swapMeter(db, at(5), { machineId: "zt-1", oldHours: 110, newHours: 0 });
    importHours(db, at(10), { rows: rows(["ZT-1", 15]) });
    expect(meterReadings(db, "zt-1").at(-1)?.meterHours).toBe(125);
    expect(getMachine(db, "zt-1").totalHours).toBe(125);
  });

  it("sent twice under one id it is written once", () => {
    const submissionId = "00000000-0000-4000-8000-000000000001";
    const once = importHours(db, { ...at(3), submissionId }, { rows: rows(["ZT-1", 110]) });
    expect(importHours(db, { ...at(4), submissionId }, { rows: rows(["ZT-1", 110]) })).toEqual(once);
    expect(meterReadings(db, "zt-1")).toHaveLength(2);
  });
});

describe("what the turf of a site raises", () => {
  let db: Db;
  beforeEach(() => {
    ({ db } = emptyDepot());
  });
  const edges = (machineId: string, day = 5) => serviceOf(db, getMachine(db, machineId), at(day).now).find(({ what }) => what === "edges");

  it("sand on one machine's site raises the edges of every machine that mows there, and of no other", () => {
    const site = getMachine(db, "zt-2").site;
    expect(edges("zt-2")).toBeUndefined();
    logEvent(db, at(1), { machineId: "wp-1", event: "top-dressed", words: "two tonnes" });
    expect(getMachine(db, "wp-1").site).toBe(site);
    expect(edges("zt-2")).toMatchObject({ state: "due", raisedBy: { event: "top-dressed" } });
    expect(edges("wp-1")?.state).toBe("due");
    expect(edges("bd-1")).toBeUndefined();
  });

  it("a look at the edges of one clears only that one", () => {
    logEvent(db, at(1), { machineId: "wp-1", event: "top-dressed" });
    logService(db, at(2), { machineId: "wp-1", what: "edges", kind: "done", words: "" });
    expect(edges("wp-1")).toBeUndefined();
    expect(edges("zt-2")?.state).toBe("due");
  });

  it("wet mowing is of the machine that mowed, not of the site", () => {
    logEvent(db, at(1), { machineId: "wp-1", event: "mown-wet-or-tall" });
    const wash = (machineId: string) => serviceOf(db, getMachine(db, machineId), at(5).now).find(({ what }) => what === "wash-deck");
    expect(wash("wp-1")).toMatchObject({ state: "due", raisedBy: { event: "mown-wet-or-tall" } });
    expect(wash("zt-2")?.state).toBe("unknown");
  });

  it("stands on the front page's list and is put in the calendar; put off it is neither", () => {
    logEvent(db, at(1), { machineId: "wp-1", event: "top-dressed" });
    const lines = dueNow(db, at(5).now).filter(({ what }) => what === "edges");
    expect(lines.map(({ machineId, state }) => [machineId, state])).toEqual([
      ["wp-1", "due"],
      ["zt-2", "due"],
    ]);
    expect(dueNow(db, at(5).now).filter(({ what }) => what === "edges")).toHaveLength(2);
  });
});

describe("when edges are to be sharpened, by what was seen of them", () => {
  it("counts the hours since they were sharpened, dull where any blade is; looks before that say nothing", () => {
    const { db, clock } = emptyDepot();
    logHours(db, at(-20), { machineId: "zt-1", meterHours: 100, isCorrection: false });
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    const blade = (edge: string) => ({ crack: "none", A: { edge, nickMetres: 0 }, B: { edge, nickMetres: 0 } });
    const look = (day: number, edge: string) =>
      recordTake(db, at(day), {
        jobId,
        checkId: "blade-edge",
        readings: { blades: { left: blade(edge), middle: blade("sharp"), right: blade("sharp") } },
        asTyped: {},
      });
    look(-1, "dull");
    expect(edgeLooks(db, "zero-turn")).toEqual([]);
    makeSafe(db, clock, jobId, "bench");
    recordFix(db, at(0), { jobId, fix: "sharpen-blades", cause: "blade-dull", words: "all three" });
    logHours(db, at(0), { machineId: "zt-1", meterHours: 120, isCorrection: false });
    logHours(db, at(10), { machineId: "zt-1", meterHours: 128, isCorrection: false });
    makeSafe(db, clock, jobId, "raised");
    look(10, "dull");
    const [seen] = edgeLooks(db, "zero-turn");
    expect(seen?.isDull).toBe(true);
    expect(seen?.hours).toBeCloseTo(8, 6);
    expect(sharpenHoursOf(db, "zero-turn")).toBeLessThan(7.28);
    expect(sharpenHoursOf(db, "belly-deck")).toBeCloseTo(7.28, 1);
  });
});

describe("sharp edges, by whichever way they were written down", () => {
  const blade = partSchema.parse({ kind: "blade", label: "Blade 17 in" });
  const setOn = (db: Db) => {
    logHours(db, at(0), { machineId: "zt-1", meterHours: 100, isCorrection: false });
    logHours(db, at(10), { machineId: "zt-1", meterHours: 120, isCorrection: false });
    const { partId } = addPart(db, at(0), { part: blade });
    const { setId } = addSet(db, at(0), { partId, mark: "H1" });
    const log = (day: number, entry: Parameters<typeof logSet>[2]["entry"]) => logSet(db, at(day), { setId, entry });
    const sharpen = (day: number) => serviceOf(db, getMachine(db, "zt-1"), at(day).now).find(({ what }) => what === "sharpen");
    return { log, sharpen, setId };
  };

  it("a set put on sharp, or sharpened on the machine, is service that was done; one that ran since is not, and a slip taken back was none", () => {
    const { db } = emptyDepot();
    const { log, sharpen, setId } = setOn(db);
    expect(sharpen(1)?.state).toBe("unknown");
    log(0, { kind: "fitted", machineId: "zt-1", work: "rough" });
    expect(sharpen(0)?.last).toEqual({ at: at(0).now, who: "AK", how: "service" });
    expect(sharpen(10)?.state).toBe("overdue");
    const { entryId } = log(10, { kind: "sharpened" });
    expect(sharpen(10)?.state).toBe("good");
    takeBackSetEntry(db, at(10), { setId, entryId });
    expect(sharpen(10)?.state).toBe("overdue");
    log(10, { kind: "came-off", why: "to look" });
    log(10, { kind: "fitted", machineId: "zt-1", work: "rough" });
    expect(sharpen(10)?.state).toBe("overdue");
    log(10, { kind: "came-off", why: "sharpen" });
    log(10, { kind: "sharpened" });
    expect(sharpen(10)?.state).toBe("overdue");
    log(10, { kind: "fitted", machineId: "zt-1", work: "rough" });
    expect(sharpen(10)?.state).toBe("good");
  });

  it("a set for one blade says nothing of the others", () => {
    const { db } = emptyDepot();
    const { log, sharpen } = setOn(db);
    log(0, { kind: "fitted", machineId: "zt-1", place: "left", work: "rough" });
    log(0, { kind: "sharpened" });
    expect(sharpen(1)?.state).toBe("unknown");
  });

  it("hours of a look count from the last of a fix, service and a set, by the log's order", () => {
    const { db, clock } = emptyDepot();
    const { log } = setOn(db);
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    const sound = { crack: "none", A: { edge: "sharp", nickMetres: 0 }, B: { edge: "sharp", nickMetres: 0 } };
    const readings = { blades: { left: sound, middle: sound, right: sound } };
    const look = (more: object = {}) => recordTake(db, at(10), { jobId, checkId: "blade-edge", readings, asTyped: {}, ...more });
    const hoursSeen = () => edgeLooks(db, "zero-turn").map(({ hours }) => Math.round(hours));
    logService(db, at(2), { machineId: "zt-1", what: "sharpen", kind: "done", words: "" });
    const { stepId } = look();
    expect(hoursSeen()).toEqual([16]);
    // A slip put right is one look, not two.
    look({ correctsStepId: stepId });
    expect(hoursSeen()).toEqual([16]);
    log(4, { kind: "fitted", machineId: "zt-1", work: "rough" });
    look();
    expect(hoursSeen()).toEqual([12, 16]);
    const { entryId } = logService(db, at(6), { machineId: "zt-1", what: "sharpen", kind: "done", words: "" });
    look();
    expect(hoursSeen()).toEqual([8, 12, 16]);
    takeBackService(db, at(6), { machineId: "zt-1", entryId });
    expect(hoursSeen()).toEqual([12, 12, 16]);
    // Sharpened, and only then a slip of the look before it put right: that look was of the edge before.
    const last = look();
    expect(hoursSeen()).toEqual([12, 12, 12, 16]);
    logService(db, at(9), { machineId: "zt-1", what: "sharpen", kind: "done", words: "" });
    look({ correctsStepId: last.stepId });
    expect(hoursSeen()).toEqual([12, 12, 12, 16]);
  });
});

describe("a place of a machine", () => {
  it("has its readings newest first; what was corrected or is of another place is not among them", () => {
    const { db, clock } = emptyDepot();
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    const { machine } = getMachine(db, "zt-1");
    const first = recordTake(db, clock.doing(), {
      jobId,
      checkId: "tyre-pressure",
      readings: { tyres: tyresAt(machine, 70_000) },
      asTyped: {},
    });
    recordTake(db, clock.doing(), {
      jobId,
      checkId: "tyre-pressure",
      readings: { tyres: tyresAt(machine, 82_000) },
      asTyped: {},
      correctsStepId: first.stepId,
    });
    recordTake(db, clock.doing(), { jobId, checkId: "deck-level", readings: tips(LEVEL_INCHES), asTyped: {} });
    const at = (place: string) => takesOfPlace(db, { machineId: "zt-1", machine, place });
    expect(at("left-drive").flatMap(({ readings }) => readings.map(({ value }) => value))).toEqual([82_000]);
    expect(at("left").every(({ checkId }) => checkId === "deck-level")).toBe(true);
    expect(at("left").length).toBeGreaterThan(0);
    // A name is met whole, whatever letters it has.
    for (const none of ["lef", "%", "_eft", "left:", "", "'"]) expect(at(none)).toEqual([]);
  });
});

describe("a history on paper", () => {
  let db: Db;
  let clock: Clock;
  beforeEach(() => {
    ({ db, clock } = emptyDepot());
  });
  const paper = (system: "us" | "metric" = "us") => historyPaper(db, "zt-1", { system, zone: "UTC", now: at(30).now });

  it("says first what holds it and what it owes, then line by line in the reader's units", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    recordTake(db, clock.doing(), { jobId, checkId: "deck-level", readings: tips(LEVEL_INCHES), asTyped: {} });
    recordHold(db, clock.doing(), { jobId, reason: "a crack in the left blade was seen" });
    const [us, metric] = [paper(), paper("metric")];
    expect(us.warnings[0]).toMatch(/^HELD: .*crack in the left blade/);
    const level = (one: typeof us) => one.lines.find(({ words }) => words.startsWith("Deck level"))?.lines.join(" ");
    expect(level(us)).toMatch(/\bin\b/);
    expect(level(metric)).toMatch(/\bmm\b/);
    expect(us.lines.at(-1)).toMatchObject({ what: "sheet", words: expect.stringContaining("first sheet") });
    expect(us.left).toBe(0);
  });

  it("is laid out on either paper with a code back to the machine, and no line of it is lost", () => {
    openJob(db, clock);
    for (const [size, name] of [
      ["a4", "A4"],
      ["letter", "LETTER"],
    ] as const) {
      const laid = historyDocument(paper(), { url: "http://bay/machines/zt-1", size });
      expect(laid.pageSize).toBe(name);
      const text = JSON.stringify(laid);
      expect(text).toContain('"qr":"http://bay/machines/zt-1"');
      for (const { words } of paper().lines) expect(text).toContain(JSON.stringify(words).slice(1, -1));
    }
  });

  it("a retired machine says so", () => {
    setStanding(db, clock.doing(), { machineId: "zt-1", kind: "retired", reason: "worn out" });
    expect(paper().warnings[0]).toMatch(/Retired .* worn out/);
  });

  it("asked for of no machine, or in no size there is, it is refused in words", async () => {
    const ask = (id: string, query = "") =>
      historyRoute(
        new Request(`http://127.0.0.1:3000/api/v1/machines/${id}/history${query}`, {
          headers: { host: "127.0.0.1:3000", origin: "http://127.0.0.1:3000" },
        }),
        {
          params: Promise.resolve({ id }),
        },
      );
    expect((await ask("nobody")).status).toBe(404);
  });
});

describe("a calendar that keeps up by itself", () => {
  it("its key is this record's alone, as long as it is, and opens nothing else", async () => {
    const { db } = emptyDepot();
    const other = emptyDepot().db;
    expect(feedKey(db)).toMatch(/^[\w-]{32}$/);
    expect(feedKey(db)).not.toContain(recordId(db));
    expect(isFeedKey(db, feedKey(db))).toBe(true);
    for (const wrong of ["", "0", feedKey(other), `${feedKey(db)}0`, feedKey(db).slice(1), `${feedKey(db).slice(0, -1)}~`])
      expect(isFeedKey(db, wrong)).toBe(false);
    const old = feedKey(db);
    changeFeedKey(db, at(1));
    expect([isFeedKey(db, old), isFeedKey(db, feedKey(db))]).toEqual([false, true]);
  });

  it("without its key a foreign page is refused", async () => {
    const ask = (query: string) =>
      calendarRoute(new Request(`http://127.0.0.1:3000/api/v1/due/calendar${query}`, { headers: { "sec-fetch-site": "cross-site" } }));
    expect((await ask("")).status).toBe(403);
    expect((await ask("?key=000000000000000000000000")).status).toBe(403);
  });
});

describe("items by a key", () => {
  it("stand in their order under each of their keys", () => {
    expect([...grouped([3, 1, 4, 1], (n) => (n === 4 ? ["even", "big"] : [n > 2 ? "big" : "small"]))]).toEqual([
      ["big", [3, 4]],
      ["small", [1, 1]],
      ["even", [4]],
    ]);
    expect(grouped([1], () => []).size).toBe(0);
  });
});

/** The demo depot: what it has to have, so that every page has something to show. */
describe("the demo depot's book", () => {
  const NOW = "2026-09-01T08:00:00.000Z";
  let db: Db;
  beforeAll(() => {
    db = openDatabase(":memory:");
    seedDepot(db, NOW);
  });

  it("has something due, something put off and a round under way, and most of it is good", () => {
    const states = new Set(dueNow(db, NOW).map(({ state }) => state));
    expect([...states]).toEqual(expect.arrayContaining(["overdue", "postponed"]));
    expect(dueNow(db, NOW).length).toBeLessThan(20);
    const [round] = listRounds(db);
    expect(round && getRound(db, round.id).lines.filter(({ done }) => done)).toHaveLength(2);
  });

  it("has a lot that wears badly: the later one is worn out sooner, and what it costs is still not told apart for sure or is dearer", () => {
    const part = listParts(db).find(({ part: one }) => one.label.startsWith("Blade 17 in, high"));
    const { lots, against } = lotsOf(db, part?.id ?? 0, NOW);
    const [early, late] = ["V25-03", "V26-01"].map((lot) => lots.find((one) => one.lot === lot));
    expect(early?.finishedHours).toHaveLength(5);
    expect(late?.finishedHours).toHaveLength(3);
    expect(late?.life.middle ?? 99).toBeLessThan((early?.life.middle ?? 0) * 0.85);
    expect(against[0]?.verdict.verdict).not.toBe("second-cheaper");
    // Nine sets of three were fitted of the thirty-six that were bought; the set for reference was never on a machine.
    expect(part?.stock).toBe(36 - 9 * 3);
    expect(setCounts(db)[part?.id ?? 0]).toBe(listSets(db, NOW, { partId: part?.id ?? 0 }).length);
  });

  it("every deck has a blade that fits or one that is told why it does not; the three-blade ones have theirs in stock", () => {
    for (const { id, machine } of listMachines(db)) {
      const fits = whatFits(db, machine);
      expect(fits.length, id).toBeGreaterThan(0);
      for (const { fit } of fits) if (fit.verdict === "does-not-fit") expect(fit.reasons.length).toBeGreaterThan(0);
    }
    const best = whatFits(db, getMachine(db, "zt-3").machine)[0];
    expect(best).toMatchObject({ fit: { verdict: "fits" } });
    expect(best?.record.stock).toBeGreaterThan(0);
  });

  it("has sisters that differ, and others that do not", () => {
    const counts = Object.fromEntries(families(db).map(({ key, members }) => [key, sisterDifferences(members).length]));
    expect(counts["belly-deck-2"]).toBeGreaterThan(0);
    expect(counts["reel-ride-on-3"]).toBe(0);
  });

  it("reads every sister against its own baseline, and what moved is out of it by more than it scatters", () => {
    const ids = listMachines(db).map(({ id }) => id);
    const drifts = [...readingsDrift(db, ids).values()].flat().flatMap(({ drifts: own }) => own);
    expect(drifts.length).toBeGreaterThan(100);
    const moved = drifts.filter((one) => one.moved === "moved");
    expect(moved.length).toBeGreaterThan(0);
    for (const { figure, baseline } of moved) expect(figure.value).not.toBe(baseline?.figure.value);
  });

  it("a withdrawn procedure names jobs, places of a site are told, fixes held and some came back", () => {
    const withdrawn = listProcedures(db).find((one) => one.withdrawn);
    expect(jobsBy(db, withdrawn?.slug ?? "", withdrawn?.version ?? 0).length).toBeGreaterThan(3);
    expect(hazardsOf(db, "Festival meadow", NOW).places.map(({ name }) => name)).toEqual(["Weir gate"]);
    const holds = holdsOf(db, NOW);
    expect(holds.depot.jobs).toBeGreaterThan(20);
    expect(holds.depot.cameBack).toBeGreaterThan(0);
    expect(holds.groups.machine).toBeGreaterThan(holds.groups.operation);
  });

  it("every machine's book reads, and every row of the fleet agrees with its machine", () => {
    const rows = fleetRows(db, NOW);
    expect(rows).toHaveLength(14);
    for (const row of rows) {
      const record = getMachine(db, row.id);
      expect(row.hours).toBe(record.totalHours ?? record.meterHours);
      const book = bookOf(db, row.id);
      expect(book.length).toBeGreaterThan(20);
      expect(new Set(book.map(({ key }) => key)).size).toBe(book.length);
    }
    expect(rows.filter(({ openJobs }) => openJobs.length > 0).length).toBeGreaterThanOrEqual(6);
  });

  it("a due day is worked out from each meter, early before late", () => {
    for (const { id } of listMachines(db)) {
      const { early, on, late } = dueDay(paceOf(meterReadings(db, id), NOW), 20, NOW);
      expect((early ?? "9") <= (on ?? "9") && (on ?? "9") <= (late ?? "9")).toBe(true);
    }
  });

  it("loaded again on the same day it is the same", () => {
    const again = openDatabase(":memory:");
    seedDepot(again, NOW);
    const sums = (one: Db) =>
      ["service_log", "part_moves", "set_log", "steps", "events"].map((table) => one.prepare(`SELECT count(*) AS n FROM ${table}`).get());
    expect(sums(again)).toEqual(sums(db));
  });
});

describe("a machine of every template", () => {
  it("is taken into the fleet, can be complained about, and says what it misses", () => {
    const { db, clock } = emptyDepot();
    for (const [k, { usual }] of Object.values(TEMPLATES).entries()) {
      const machine = machineSchema.parse(templateMachine(usual));
      const { machineId } = addMachine(db, clock.doing(), { fleetNumber: `TP-${k}`, name: "Template", site: "North", machine });
      expect(openJob(db, clock, machineId)).toBeGreaterThan(0);
      expect(getMachine(db, machineId).machine).toEqual(machine);
      expect(missingOf(machine).length).toBeGreaterThan(0);
      expect(
        serviceOf(db, getMachine(db, machineId), clock.doing().now).every(({ state, last }) => state === "unknown" || last === undefined),
      ).toBe(true);
    }
  });
});
