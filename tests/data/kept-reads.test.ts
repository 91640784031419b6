import { describe, expect, it } from "vitest";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { listProcedures } from "@/data/catalogue/procedures";
import { checkContexts } from "@/data/checks/check-context";
import { lastKept } from "@/data/checks/last-kept";
import { takesOfMachine } from "@/data/checks/takes";
import { getBay } from "@/data/fleet/bay";
import { bookOf } from "@/data/fleet/book";
import { fleetRows } from "@/data/fleet/fleet";
import { closedJobs, holdsOf } from "@/data/fleet/holds";
import { getMachineView } from "@/data/fleet/machine-view";
import { readingsDrift } from "@/data/fleet/sisters";
import { awayNow } from "@/data/job/handover";
import { getJobView } from "@/data/job/job-view";
import { logHours } from "@/data/machine/hours";
import { addMachine, getMachine, listMachines } from "@/data/machine/machines";
import { openDatabase } from "@/data/open";
import type { DeedId } from "@/data/projections/deeds";
import { stepsOfMachine } from "@/data/record/step-data";
import { dueNow, serviceOf } from "@/data/service/due";
import { listEvents } from "@/data/service/events";
import { listParts, listSets, sharpBySets } from "@/data/service/parts";
import type { Db } from "@/data/store/db";
import { watchReads } from "@/data/store/reads";
import { seedDepot } from "@/demo/depot";
import { GateDepot, newTally, type Walk, walkGate } from "../fuzz/gate-walk";
import { emptyDepot, openJob } from "./helpers";

const WALKS = 8;
const DEEDS = 80;
/** What moves lists without moving the gate: done as often as everything else together. */
const BESIDE: readonly DeedId[] = [
  "service-done",
  "service-postponed",
  "service-taken-back",
  "spindles-logged",
  "spindle-entry-taken-back",
  "hours-logged",
  "meter-swapped",
  "service-rule",
  "set-added",
  "set-fitted",
  "set-sharpened",
  "set-came-off",
  "part-changed",
  "owed-done",
  "machine-renamed",
  "machine-standing",
  "machine-photographed",
];
/** After every deed so many of the pages are laid beside what the record says; each gets its turn. */
const AT_A_TIME = 6;
const NOW = "2026-05-20T12:00:00.000Z";

/** Whatever is kept between two reads, as pages ask for it. */
const READS: Record<string, (db: Db, of: { machineId: string; jobId: number }) => unknown> = {
  bay: (db) => getBay(db),
  fleet: (db) => fleetRows(db, NOW),
  due: (db) => dueNow(db, NOW),
  "service of the fleet": (db) => dueNow(db, NOW),
  holds: (db) => holdsOf(db, NOW),
  "holds since": (db) => holdsOf(db, NOW, "2026-05-05T00:00:00.000Z"),
  "closed jobs": (db, { machineId }) => closedJobs(db, NOW, machineId),
  "a machine": (db, { machineId }) => getMachineView(db, machineId, { now: NOW }),
  "service of one": (db, { machineId }) => serviceOf(db, getMachine(db, machineId), NOW),
  "a machine's book": (db, { machineId }) => bookOf(db, machineId),
  "a job": (db, { jobId }) => getJobView(db, jobId, NOW),
  worksheets: (db, { machineId }) => checkContexts(db, { machineId, now: NOW }),
  "last kept": (db, { machineId }) => lastKept(db, machineId),
  log: (db, { machineId }) => [stepsOfMachine(db, machineId), takesOfMachine(db, machineId), listEvents(db, machineId)],
  drift: (db, { machineId }) => [...readingsDrift(db, [machineId])],
  shelf: (db, { machineId }) => [listParts(db), listSets(db, NOW, { machineId }), sharpBySets(db, machineId)],
  shop: (db) => [listProcedures(db), awayNow(db), listMachines(db, { withRetired: true })],
};

/** Inside a transaction nothing is kept: there everything is read from the record. */
const fromRecord = <T>(db: Db, read: () => T): T => db.transaction(read)();

/** By table, the sorts of subject that a row of it moves, as the record's own triggers say. */
function sortsByTable(db: Db): Map<string, readonly string[]> {
  const rows = db
    .prepare("SELECT tbl_name, sql FROM sqlite_master WHERE type = 'trigger' AND name LIKE '%\\_stamp\\_insert' ESCAPE '\\'")
    .all() as {
    tbl_name: string;
    sql: string;
  }[];
  const found = new Map(rows.map(({ tbl_name, sql }) => [tbl_name, [...sql.matchAll(/'(\w+):?'/g)].map((hit) => hit[1] as string)]));
  // Folded from the log, in the same change.
  return found.set("machine_states", ["log"]);
}

/** A closed job is not written to before it is opened again: what is told of closed jobs goes by them alone. */
const STILL = ["jobs", "steps", "complaints"];

describe("what is kept of a read", () => {
  it("goes by every table it is read from: the demo's pages, statement by statement", () => {
    const db = openDatabase(":memory:");
    seedDepot(db, NOW);
    const sorts = sortsByTable(db);
    expect(sorts.size).toBeGreaterThan(25);
    const open: { key: string; on: readonly string[] | undefined; isWhole: boolean }[] = [];
    const missed = new Set<string>();
    const keys = new Set<string>();
    const statement = (sql: string) => {
      const tables = [...sql.matchAll(/\b(?:FROM|JOIN)\s+(\w+)/g)].map((hit) => hit[1] as string);
      for (const { key, on = [], isWhole } of open)
        for (const table of isWhole ? [] : tables) {
          const wanted = sorts.get(table);
          const isHeld = wanted === undefined || wanted.some((sort) => on.some((one) => one.replace("every:", "").split(":")[0] === sort));
          const isStill = STILL.includes(table) && on.some((one) => one.startsWith("closed:"));
          if (!isHeld && !isStill) missed.add(`${key.replace(/[a-z]+-\d+/g, "…").slice(0, 60)}: ${table}`);
        }
    };
    watchReads(db, {
      begin: (key, on) => {
        keys.add(key.split(" ").slice(0, 2).join(" "));
        open.push({ key, on, isWhole: on === undefined });
      },
      end: () => open.pop(),
      statement,
    });
    for (const { id } of listMachines(db)) for (const read of Object.values(READS)) read(db, { machineId: id, jobId: 46 });
    watchReads(db, undefined);
    expect([...missed]).toEqual([]);
    expect(keys.size).toBeGreaterThan(20);
  });

  it("asks the record as often with three times the machines: after a write to one, only that one is read again", () => {
    const counts = [1, 3].map((times) => {
      const { db, clock } = emptyDepot();
      for (const { fleetNumber, name, machine } of FLEET)
        for (let k = 2; k <= times; k++)
          addMachine(db, clock.doing(), {
            fleetNumber: `${fleetNumber}-${k}`,
            name,
            site: "Elsewhere",
            machine: machineSchema.parse(machine),
            meterHours: 100,
          });
      let asked = 0;
      const prepare = db.prepare.bind(db);
      const counted = new Set<object>();
      db.prepare = ((sql: string) => {
        const statement = prepare(sql);
        if (counted.has(statement)) return statement;
        counted.add(statement);
        for (const way of ["get", "all"] as const) {
          const own = statement[way].bind(statement);
          Object.defineProperty(statement, way, {
            value: (...given: unknown[]) => {
              asked++;
              return own(...given);
            },
          });
        }
        return statement;
      }) as typeof db.prepare;
      const of = { machineId: "zt-1", jobId: openJob(db, clock) };
      return Object.entries(READS).map(([name, read]) => {
        read(db, of);
        logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 2000 + asked / 1e6, isCorrection: false, isSure: true });
        const before = asked;
        read(db, of);
        return [name, asked - before];
      });
    });
    expect(counts[1]).toEqual(counts[0]);
    expect(counts[0]?.some(([, n]) => Number(n) > 0)).toBe(true);
  });

  it.each(Array.from({ length: WALKS }, (_, k) => k + 1))(
    "is what the record says, after whatever deed of whoever: walk %i",
    (seed) => {
      const depot = new GateDepot();
      const names = Object.keys(READS);
      let [turn, compared] = [0, 0];
      const compare = (walk: Walk) => {
        const { db, machineId, jobs } = walk;
        walk.perform(walk.pick(BESIDE), walk.pick(["AK", "JM"]));
        for (let k = 0; k < AT_A_TIME; k++) {
          const name = names[turn++ % names.length] as string;
          const of = { machineId, jobId: jobs[turn % jobs.length] as number };
          const read = () => JSON.parse(JSON.stringify(READS[name]?.(db, of)));
          const kept = read();
          expect([name, kept]).toEqual([name, fromRecord(db, read)]);
          compared++;
        }
      };
      walkGate(depot, { seed, deeds: DEEDS, tally: newTally(), after: compare });
      expect(compared).toBeGreaterThan(names.length);
    },
    180_000,
  );
});
