import { copyFileSync, mkdtempSync, readdirSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Database from "better-sqlite3";
import { beforeEach, describe, expect, it } from "vitest";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { recordHold } from "@/data/job/job-actions";
import { getJobView } from "@/data/job/job-view";
import { getMachine } from "@/data/machine/machines";
import { openDatabase } from "@/data/open";
import { stateOfMachine } from "@/data/projections/machine-state";
import { serviceOf } from "@/data/service/due";
import { logEvent } from "@/data/service/events";
import { logService } from "@/data/service/service";
import type { Db } from "@/data/store/db";
import { MIGRATIONS_FOLDER, migrate } from "@/data/store/migrate";
import { temporaryFile } from "./helpers";

const at = (minute: number) => new Date(Date.UTC(2026, 4, 4, 7, minute)).toISOString();

/** A database as the version before wrote it: no sequence, holds in the job, assessments with marks instead of findings. */
function fromBefore(file: string): void {
  const folder = mkdtempSync(path.join(tmpdir(), "zygometer-migrations-"));
  for (const name of readdirSync(MIGRATIONS_FOLDER).sort().slice(0, 8))
    copyFileSync(path.join(MIGRATIONS_FOLDER, name), path.join(folder, name));
  const db = new Database(file);
  migrate(db, { folder, now: at(0) });
  db.prepare("INSERT INTO people (initials, created_at) VALUES ('AK', ?)").run(at(0));
  for (const { fleetNumber, name, site, machine } of FLEET.slice(0, 2)) {
    const parsed = machineSchema.parse(machine);
    const id = fleetNumber.toLowerCase();
    db.prepare("INSERT INTO machines (id, fleet_number, name, kind, site, created_at) VALUES (?, ?, ?, ?, ?, ?)").run(
      ...[id, fleetNumber, name, parsed.kind, site, at(0)],
    );
    db.prepare("INSERT INTO machine_sheets (machine_id, version, sheet_json, reason, who, at) VALUES (?, 1, ?, 'first', 'AK', ?)").run(
      id,
      JSON.stringify(parsed),
      at(0),
    );
  }
  const job = (machine: string, state: string, closed: string | null = null) =>
    Number(
      db.prepare("INSERT INTO jobs (machine_id, opened_at, state, closed_at) VALUES (?, ?, ?, ?)").run(machine, at(1), state, closed)
        .lastInsertRowid,
    );
  const step = (jobId: number, kind: string, data: object, minute: number, undoes: number | null = null) =>
    Number(
      db
        .prepare("INSERT INTO steps (job_id, kind, data_json, undoes_id, who, at) VALUES (?, ?, ?, ?, 'AK', ?)")
        .run(jobId, kind, JSON.stringify(data), undoes, at(minute)).lastInsertRowid,
    );
  const event = (machine: string, name: string, minute: number, stepId: number | null = null) =>
    db
      .prepare("INSERT INTO events (machine_id, event, data_json, step_id, who, at) VALUES (?, ?, '{}', ?, 'AK', ?)")
      .run(machine, name, stepId, at(minute));
  const cracked = (jobId: number, machine: string, minute: number) => {
    const stepId = step(jobId, "take", { checkId: "blade-edge", verdict: "stop" }, minute);
    const result = {
      check: "blade-edge",
      ruleVersion: 2,
      verdict: "stop",
      detail: {},
      answers: [],
      marks: [{ place: "left", code: "cracked", verdict: "stop" }],
      figures: [],
      actions: [],
      warnings: [],
      provisional: [],
      evidence: [],
    };
    db.prepare(
      `INSERT INTO takes (step_id, job_id, machine_id, check_id, input_json, sheet_version, rule_version, tolerances_json, verdict, result_json, at)
       VALUES (?, ?, ?, 'blade-edge', '{}', 1, 2, '{}', 'stop', ?, ?)`,
    ).run(stepId, jobId, machine, JSON.stringify(result), at(minute));
  };
  const answers = {};

  // A cracked blade that was called a stop, and cut with all the same; closed.
  const first = job("zt-1", "closed", at(9));
  step(first, "confirmation", { state: "raised", answers, outcome: "safe", stoppedAt: [] }, 2);
  cracked(first, "zt-1", 3);
  // Logged on the machine by itself between two steps of the job.
  event("zt-1", "struck", 4);
  step(first, "close", { causes: ["nothing-found"], words: "", isProved: false, unprovedReason: "no time" }, 9);

  // Held by word, in a job mended already; and one let go.
  const second = job("zt-2", "held-out");
  const fix = step(second, "fix", { fix: "replace-blades", cause: "blade-dull", words: "" }, 10);
  event("zt-2", "blade-changed", 10, fix);
  step(second, "hold", { reason: "the deck is cracked" }, 11);
  const third = job("zt-2", "held-out");
  step(third, "hold", { reason: "the seat switch" }, 12);
  step(third, "release", { reason: "mended" }, 13);
  db.close();
}

let db: Db;
beforeEach(() => {
  const file = temporaryFile();
  fromBefore(file);
  db = openDatabase(file);
});

describe("a depot from before the machine had a state of its own", () => {
  it("gets one sequence over steps and events, in the order they were written, with no number twice", () => {
    const lines = db
      .prepare("SELECT seq, 'step' AS what, kind AS name FROM steps UNION ALL SELECT seq, 'event', event FROM events ORDER BY seq")
      .all() as { seq: number; what: string; name: string }[];
    expect(new Set(lines.map(({ seq }) => seq)).size).toBe(lines.length);
    expect(lines.map(({ name }) => name)).toEqual([
      ...["confirmation", "take", "struck", "close"],
      ...["fix", "blade-changed", "hold"],
      ...["hold", "release"],
    ]);
  });

  it("holds for what was read as a stop then, closed or not, marks standing for findings", () => {
    const { unsafe, struck } = stateOfMachine(db, "zt-1");
    expect(unsafe.map(({ key }) => key)).toEqual(["stop:blade-edge:left"]);
    expect(struck?.checks).toContain("blade-track");
    expect(getJobView(db, 1).takes[0]?.result).toMatchObject({
      findings: [{ place: "left", code: "cracked", verdict: "stop" }],
      told: ["left"],
    });
  });

  it("an old release let go of what its own job held and of no other's; a job that was held is in work or waits for its proof", () => {
    expect(stateOfMachine(db, "zt-2").unsafe).toMatchObject([{ kind: "by-word", reason: "the deck is cracked", jobId: 2 }]);
    expect([getJobView(db, 2).state, getJobView(db, 3).state]).toEqual(["awaiting-proof", "in-work"]);
  });

  it("goes on from there: the next step comes after all of it, and what is kept is neither changed nor erased", () => {
    const last = (
      db.prepare("SELECT max(seq) AS seq FROM (SELECT seq FROM steps UNION ALL SELECT seq FROM events)").get() as { seq: number }
    ).seq;
    const { stepId } = recordHold(db, { who: "AK", now: at(1) }, { jobId: 2, reason: "the seat switch again" });
    expect(db.prepare("SELECT seq FROM steps WHERE id = ?").get(stepId)).toEqual({ seq: last + 1 });
    expect(stateOfMachine(db, "zt-2").unsafe).toHaveLength(2);
    expect(() => db.prepare("UPDATE steps SET who = 'BL'").run()).toThrow(/only added/);
    expect(() => db.prepare("DELETE FROM events").run()).toThrow(/never erased/);
    expect(() => db.prepare("INSERT INTO owed (job_id, code, detail_json, who, at) VALUES (1, 'x', '{', 'AK', '')").run()).toThrow();
    expect(db.pragma("foreign_key_check")).toEqual([]);
  });

  it("a state that was folded by another reckoning is folded again when the depot is opened", () => {
    db.prepare("UPDATE machine_states SET fold_version = 0, state_json = '{}', is_held = 0 WHERE machine_id = 'zt-1'").run();
    const file = db.name;
    db.close();
    db = openDatabase(file);
    expect(stateOfMachine(db, "zt-1").unsafe).toHaveLength(1);
    expect(db.prepare("SELECT is_held FROM machine_states WHERE machine_id = 'zt-1'").get()).toEqual({ is_held: 1 });
  });
});

describe("service written down before it had a place in the log", () => {
  it("goes after everything that was written by its hour, and is only added to again", () => {
    const file = temporaryFile();
    const folder = mkdtempSync(path.join(tmpdir(), "zygometer-migrations-"));
    for (const name of readdirSync(MIGRATIONS_FOLDER).sort().slice(0, 13))
      copyFileSync(path.join(MIGRATIONS_FOLDER, name), path.join(folder, name));
    const before = new Database(file);
    migrate(before, { folder, now: at(0) });
    before.prepare("INSERT INTO people (initials, created_at) VALUES ('AK', ?)").run(at(0));
    const machine = machineSchema.parse(FLEET[0]?.machine);
    before
      .prepare("INSERT INTO machines (id, fleet_number, name, kind, site, created_at) VALUES ('zt-1', 'ZT-1', 'Zero-turn', ?, 'North', ?)")
      .run(machine.kind, at(0));
    before
      .prepare("INSERT INTO machine_sheets (machine_id, version, sheet_json, reason, who, at) VALUES ('zt-1', 1, ?, 'first', 'AK', ?)")
      .run(JSON.stringify(machine), at(0));
    const sanded = (minute: number, seq: number) =>
      before
        .prepare("INSERT INTO events (machine_id, event, data_json, who, at, seq) VALUES ('zt-1', 'top-dressed', '{}', 'AK', ?, ?)")
        .run(at(minute), seq);
    const looked = (minute: number) =>
      before.prepare("INSERT INTO service_log (machine_id, kind, what, who, at) VALUES ('zt-1', 'done', 'edges', 'AK', ?)").run(at(minute));
    sanded(2, 1);
    looked(1);
    looked(3);
    sanded(4, 2);
    before.close();
    const db = openDatabase(file);
    expect(db.prepare("SELECT seq FROM service_log ORDER BY id").pluck().all()).toEqual([0, 1]);
    const edges = () => serviceOf(db, getMachine(db, "zt-1"), at(9)).find(({ what }) => what === "edges")?.state;
    expect(edges()).toBe("due");
    // What is written down now takes the next place, whatever the clock says.
    logService(db, { who: "AK", now: at(0) }, { machineId: "zt-1", what: "edges", kind: "done", words: "" });
    expect(edges()).toBeUndefined();
    logEvent(db, { who: "AK", now: at(0) }, { machineId: "zt-1", event: "top-dressed" });
    expect(edges()).toBe("due");
    expect(() => db.prepare("UPDATE service_log SET words = 'x'").run()).toThrow("only added to");
  });
});
