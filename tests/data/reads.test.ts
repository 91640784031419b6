import { describe, expect, it } from "vitest";
import { toSi } from "@/core/basics/units";
import { type Machine, withSheet } from "@/core/machine";
import { lastKept } from "@/data/checks/last-kept";
import { recordTake, takesOfJob } from "@/data/checks/takes";
import { getIntake } from "@/data/fleet/intake";
import { getMachineView } from "@/data/fleet/machine-view";
import { recordFix, undoStep } from "@/data/job/job-actions";
import { logHours } from "@/data/machine/hours";
import { getMachine, replaceSheet } from "@/data/machine/machines";
import { openDatabase } from "@/data/open";
import { lastDone } from "@/data/record/last-done";
import { whileUnchanged } from "@/data/store/reads";
import { pruneSubmissions } from "@/data/store/submissions";
import { seedDepot } from "@/demo/depot";
import { emptyDepot, LEVEL_INCHES, makeSafe, openJob, refusedFor, temporaryFile, tips, tyres } from "./helpers";

describe("what is read is kept only while nothing is written", () => {
  it("asks once, again after a write of one's own, and again after a write of another connection", () => {
    const file = temporaryFile();
    const { db, clock } = emptyDepot(file);
    let asked = 0;
    const ask = () => whileUnchanged(db, "asked", () => ++asked);
    expect([ask(), ask()]).toEqual([1, 1]);
    openJob(db, clock);
    expect(ask()).toBe(2);
    const other = openDatabase(file);
    const opened = ask();
    expect(ask()).toBe(opened);
    other.prepare("UPDATE people SET theme = 'dark'").run();
    expect([ask(), ask()]).toEqual([opened + 1, opened + 1]);
    other.close();
  });

  it("keeps nothing of a change that is taken back", () => {
    const { db } = emptyDepot();
    const name = () => getMachine(db, "zt-1").name;
    const before = name();
    expect(() =>
      db.transaction(() => {
        db.prepare("UPDATE machines SET name = 'Renamed' WHERE id = 'zt-1'").run();
        expect(name()).toBe("Renamed");
        throw new Error("taken back");
      })(),
    ).toThrow("taken back");
    expect(name()).toBe(before);
  });

  it("a sheet replaced in a change that fails leaves no trace under its version", () => {
    const { db, clock } = emptyDepot();
    const { machine, sheetVersion } = getMachine(db, "zt-1");
    const wide = withSheet(machine, { heightMostMetres: 0.2 });
    const args = { machineId: "zt-1", basedOnVersion: sheetVersion, machine: wide, reason: "measured" };
    expect(() =>
      db.transaction(() => {
        replaceSheet(db, clock.doing(), args);
        expect(getMachine(db, "zt-1").machine.sheet.heightMostMetres).toBe(0.2);
        throw new Error("taken back");
      })(),
    ).toThrow("taken back");
    expect(getMachine(db, "zt-1").sheetVersion).toBe(sheetVersion);
    replaceSheet(db, clock.doing(), { ...args, machine: withSheet(wide, { heightMostMetres: 0.15 }) });
    expect(getMachine(db, "zt-1").machine.sheet.heightMostMetres).toBe(0.15);
  });
});

describe("answers to submissions", () => {
  const id = "0b2f3b7e-6a3d-4c58-9c47-0c8f2a9d1e11";

  it("are kept without the assessment, and one sent again is answered with it all the same, written once", () => {
    const { db, clock } = emptyDepot();
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    const args = { jobId, checkId: "tyre-pressure", readings: tyres([8, 18, 18, 12]), asTyped: {} };
    const first = recordTake(db, { ...clock.doing(), submissionId: id }, args);
    const again = recordTake(db, { ...clock.doing(), submissionId: id }, args);
    expect(again).toEqual(JSON.parse(JSON.stringify(first)));
    expect(takesOfJob(db, jobId)).toHaveLength(1);
    const { answer_json } = db.prepare("SELECT answer_json FROM submissions WHERE id = ?").get(id) as { answer_json: string };
    expect(JSON.parse(answer_json)).toEqual({ stepId: first.stepId });
  });

  it("are let go of after two months, and not before", () => {
    const { db } = emptyDepot();
    const insert = db.prepare("INSERT INTO submissions (id, action, answer_json, at) VALUES (?, 'take', '{}', ?)");
    insert.run("old", "2026-01-01T00:00:00.000Z");
    insert.run("new", "2026-03-01T00:00:00.000Z");
    pruneSubmissions(db, "2026-03-20T00:00:00.000Z");
    expect(db.prepare("SELECT id FROM submissions").all()).toEqual([{ id: "new" }]);
  });
});

describe("the hour meter", () => {
  it("asks about hours that cannot have gone by, takes them with a word for it, and never asks about a first entry", () => {
    const { db } = emptyDepot();
    const doing = (day: number) => ({ who: "AK", now: new Date(Date.UTC(2026, 4, day, 12)).toISOString() });
    const log = (day: number, meterHours: number, more: object = {}) =>
      logHours(db, doing(day), { machineId: "wc-1", meterHours, isCorrection: false, ...more });
    log(1, 866);
    expect(refusedFor(() => log(10, 8700))).toEqual(["invalid", "hours-run-too-fast"]);
    expect(refusedFor(() => log(10, 860))).toEqual(["invalid", "hours-run-backwards"]);
    expect(getMachine(db, "wc-1").meterHours).toBe(866);
    log(10, 1080);
    expect(refusedFor(() => log(11, 1200))).toEqual(["invalid", "hours-run-too-fast"]);
    log(11, 1200, { isSure: true });
    expect(getMachine(db, "wc-1").meterHours).toBe(1200);
  });
});

describe("what a page shows", () => {
  it("a machine given another kind by its sheet stands in the list as that kind", () => {
    const { db, clock } = emptyDepot();
    const { machine, sheetVersion } = getMachine(db, "wp-1");
    replaceSheet(db, clock.doing(), {
      ...{ machineId: "wp-1", basedOnVersion: sheetVersion, reason: "it has a battery" },
      machine: { ...machine, kind: "walk-cordless", features: ["direct-drive", "battery"] } as Machine,
    });
    expect(db.prepare("SELECT kind FROM machines WHERE id = 'wp-1'").get()).toEqual({ kind: "walk-cordless" });
  });

  it("the machine's page tells when each thing was last done to it, newest first; what was undone was not", () => {
    const { db, clock } = emptyDepot();
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "locked-out");
    const fix = (id: string, cause: string) => recordFix(db, clock.doing(), { jobId, fix: id, cause, words: "" });
    fix("set-pressures", "tyres-unequal");
    fix("adjust-hangers", "deck-out-of-level");
    const last = fix("set-pressures", "tyres-unequal");
    const done = () => lastDone(db, "zt-1").map(({ fix: id }) => id);
    expect(done()).toEqual(["set-pressures", "adjust-hangers"]);
    undoStep(db, clock.doing(), { jobId, stepId: last.stepId, reason: "" });
    expect(done()).toEqual(["adjust-hangers", "set-pressures"]);
    expect(lastDone(db, "zt-2")).toEqual([]);
  });

  it("a complaint is taken with the sheet of its machine, what its log ticks and the jobs open on it", () => {
    const { db, clock } = emptyDepot();
    const jobId = openJob(db, clock, "zt-1");
    const intake = getIntake(db, "zt-1", clock.doing().now);
    expect(intake.machine.spindles).toHaveLength(3);
    expect(intake.openJobs).toEqual([{ jobId, words: expect.any(String) }]);
    expect(getIntake(db, "bd-1", clock.doing().now).openJobs).toEqual([]);
    expect(() => getIntake(db, "nobody", clock.doing().now)).toThrow("machine-not-found");
  });

  it("the machine's page follows side, rake and every tyre over time", () => {
    const db = openDatabase(":memory:");
    seedDepot(db, "2026-09-01T00:00:00.000Z");
    const view = getMachineView(db, "zt-1", { now: "2026-09-01T00:00:00.000Z" });
    expect(view.followed.map(({ check }) => check)).toEqual(["tyre-pressure", "deck-level"]);
    const [tyrePoints, levels] = view.followed;
    expect(Object.keys(levels?.points[0]?.values ?? {})).toEqual(["side", "rake"]);
    expect(tyrePoints?.lines).toHaveLength(4);
    for (const { points } of view.followed) expect(points.map(({ at }) => at)).toEqual(points.map(({ at }) => at).sort());
    const standing = view.sheets.find(({ check }) => check === "deck-level");
    expect(standing?.last?.at).toBe(levels?.points.at(-1)?.at);
  });
});

describe("what stays true of last time", () => {
  const floor = (inches: number) => ({ wheels: { "left-drive": { heightMetres: toSi(inches, "in") } }, places: {} });
  const level = (inches: number) => ({ ...tips(LEVEL_INCHES), floor: floor(inches) });

  it("is the newest floor that stands: a corrected one or one taken back is not offered", () => {
    const { db, clock } = emptyDepot();
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    const read = (inches: number, more: object = {}) =>
      recordTake(db, clock.doing(), { jobId, checkId: "deck-level", readings: level(inches), asTyped: {}, ...more }).stepId;
    const offered = () => lastKept(db, "zt-1")["deck-level"];

    expect(offered()).toBeUndefined();
    const first = read(0.25);
    expect(offered()).toMatchObject({ floor: floor(0.25) });
    const corrected = read(0.5, { correctsStepId: first, seenStepId: first });
    expect(offered()).toMatchObject({ floor: floor(0.5) });
    undoStep(db, clock.doing(), { jobId, stepId: corrected, reason: "" });
    expect(offered()).toMatchObject({ floor: floor(0.25) });
    undoStep(db, clock.doing(), { jobId, stepId: first, reason: "" });
    expect(offered()).toBeUndefined();
  });
});
