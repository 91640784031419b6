import { readdirSync } from "node:fs";
import { expect, it } from "vitest";
import { heldMachines } from "@/data/fleet/bay";
import { openDatabase } from "@/data/open";
import { stateOfMachine } from "@/data/projections/machine-state";
import { MIGRATIONS_FOLDER } from "@/data/store/migrate";
import { seedDepot } from "@/demo/depot";
import { emptyDepot, temporaryFile } from "./helpers";

it("runs in WAL with foreign keys on and a busy timeout", () => {
  const { db } = emptyDepot(temporaryFile());
  expect(db.pragma("journal_mode", { simple: true })).toBe("wal");
  expect(db.pragma("foreign_keys", { simple: true })).toBe(1);
  expect(db.pragma("busy_timeout", { simple: true })).toBe(2000);
});

it("migrates once and opens again without touching anything", () => {
  const file = temporaryFile();
  emptyDepot(file).db.close();
  const again = openDatabase(file);
  expect((again.prepare("SELECT count(*) AS n FROM migrations").get() as { n: number }).n).toBe(readdirSync(MIGRATIONS_FOLDER).length);
  expect((again.prepare("SELECT count(*) AS n FROM machines").get() as { n: number }).n).toBe(14);
});

it("refuses a database newer than itself", () => {
  const file = temporaryFile();
  const { db } = emptyDepot(file);
  db.prepare("INSERT INTO migrations (version, name, at) VALUES (9999, 'from the future', '')").run();
  db.close();
  expect(() => openDatabase(file)).toThrow("database-newer");
});

it("names its constraints: a foreign machine and a second undo are refused by name", () => {
  const { db } = emptyDepot();
  expect(() => db.prepare("INSERT INTO jobs (machine_id, opened_at, state) VALUES ('none', '', 'waiting')").run()).toThrow(/FOREIGN KEY/);
  expect(() => db.prepare("INSERT INTO jobs (machine_id, opened_at, state) VALUES ('zt-1', '', 'lost')").run()).toThrow(/jobs_state_known/);
  expect(() => db.prepare("INSERT INTO people (initials, created_at) VALUES ('A', '')").run()).toThrow(/people_initials_form/);
});

it("the demo depot loads the same twice on the same day: a dozen past jobs and some open ones", () => {
  const dump = () => {
    const db = openDatabase(":memory:");
    seedDepot(db, "2026-11-01T12:00:00.000Z");
    const states = db.prepare("SELECT state, count(*) AS n FROM jobs GROUP BY state ORDER BY state").all();
    const readings = db.prepare("SELECT place, value FROM readings ORDER BY id").all();
    return { states: states as { state: string; n: number }[], readings };
  };
  const first = dump();
  expect(dump()).toEqual(first);
  const of = (state: string) => first.states.find((row) => row.state === state)?.n ?? 0;
  expect(of("closed")).toBeGreaterThanOrEqual(12);
  expect(of("waiting")).toBeGreaterThanOrEqual(1);
  expect(of("in-work")).toBeGreaterThanOrEqual(2);
});

it("the demo depot is told by people who do it right: one machine is held, one was struck, and most closed jobs are proved", () => {
  const db = openDatabase(":memory:");
  seedDepot(db, "2026-11-01T12:00:00.000Z");
  expect(heldMachines(db).map(({ fleetNumber, state }) => [fleetNumber, state.unsafe.map(({ kind }) => kind)])).toEqual([
    ["WP-2", ["by-word"]],
  ]);
  expect(stateOfMachine(db, "zt-1").struck?.checks.length).toBeGreaterThan(3);
  const proved = db.prepare("SELECT count(*) AS n FROM steps WHERE kind = 'close' AND json_extract(data_json, '$.isProved') = 1").get() as {
    n: number;
  };
  expect(proved.n).toBeGreaterThanOrEqual(15);
});
