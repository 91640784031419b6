import { beforeAll, describe, expect, it } from "vitest";
import { jobsBy, listProcedures } from "@/data/catalogue/procedures";
import { takesOfPlace } from "@/data/checks/place-readings";
import { getReckonerView } from "@/data/checks/reckoner";
import { takesOfMachine } from "@/data/checks/takes";
import { getBay, jobsOfMachine } from "@/data/fleet/bay";
import { bookOf } from "@/data/fleet/book";
import { fleetRows } from "@/data/fleet/fleet";
import { closedJobs } from "@/data/fleet/holds";
import { getIntake } from "@/data/fleet/intake";
import { getRound, listRounds } from "@/data/fleet/rounds";
import { awayNow, owedByMachine } from "@/data/job/handover";
import { getJobView } from "@/data/job/job-view";
import { getMachine, listMachineNames, listMachines } from "@/data/machine/machines";
import { schoolStandings } from "@/data/machine/schools";
import { hazardsOf } from "@/data/machine/site-places";
import { openDatabase } from "@/data/open";
import { dueNow, serviceOf, spindlesOf } from "@/data/service/due";
import { listOwed } from "@/data/service/owed";
import { listParts, listSets, lotsOf, movesOf, whatFits } from "@/data/service/parts";
import type { Db } from "@/data/store/db";
import { seedDepot } from "@/demo/depot";

const NOW = "2026-09-01T00:00:00.000Z";

/** What grows with the years: read whole, a page of five years takes seconds. */
const GROWS = [
  "steps",
  "takes",
  "readings",
  "events",
  "jobs",
  "complaints",
  "hours",
  "owed",
  "audit",
  "submissions",
  "spindle_log",
  "service_log",
  "set_log",
  "part_sets",
];
/** Indexes that hold only what is open or owed: to read one through is to read just that. */
const OPEN_ONLY = ["jobs_open", "owed_due", "owed_by_machine"];
/**
 * A row added to a table that others refer to, with a trigger on it: the plan has a look for references that the row mends, which is skipped while none is
 * broken (https://www.sqlite.org/opcode.html, FkIfZero).
 */
const ADDS_A_ROW = /^INSERT INTO \w+ \([^)]*\)\s+VALUES/;
/** Once when the data is opened, and then of nothing. */
const ONCE = [ADDS_A_ROW, /^DELETE FROM submissions/, /^SELECT m\.id FROM machines m LEFT JOIN machine_states/];

let db: Db;
const asked = new Set<string>();

/** Every statement that telling the whole demo and showing every page of it asks. */
beforeAll(() => {
  db = openDatabase(":memory:");
  const compile = db.prepare.bind(db);
  db.prepare = ((sql: string) => {
    asked.add(sql);
    return compile(sql);
  }) as typeof db.prepare;
  seedDepot(db, NOW);
  getBay(db);
  listMachineNames(db);
  listOwed(db);
  for (const { id } of listMachines(db)) {
    jobsOfMachine(db, id, { limit: 20 });
    takesOfMachine(db, id);
    getReckonerView(db, id, NOW);
    getIntake(db, id, NOW);
    spindlesOf(db, id, NOW);
    listOwed(db, id);
    bookOf(db, id);
    closedJobs(db, NOW, id);
    const record = getMachine(db, id);
    takesOfPlace(db, { machineId: id, machine: record.machine, place: "left" });
    serviceOf(db, record, NOW);
    whatFits(db, record.machine);
    listSets(db, NOW, { machineId: id });
    hazardsOf(db, record.site, NOW);
  }
  dueNow(db, NOW);
  fleetRows(db, NOW);
  awayNow(db);
  owedByMachine(db);
  for (const { id } of listParts(db)) {
    movesOf(db, id);
    lotsOf(db, id, NOW);
  }
  for (const { id } of listRounds(db)) getRound(db, id);
  for (const { slug, version } of listProcedures(db)) jobsBy(db, slug, version);
  schoolStandings(db);
  for (const { id } of db.prepare("SELECT id FROM jobs").all() as { id: number }[]) getJobView(db, id, NOW);
});

/** What a name in a plan stands for. */
function tablesIn(sql: string): Map<string, string> {
  const named = [...sql.matchAll(/\b(?:FROM|JOIN|UPDATE|INTO)\s+(\w+)(?:\s+(?:AS\s+)?(\w+))?/gi)];
  return new Map(named.flatMap(([, table = "", alias = table]) => [[table, table] as const, [alias, table] as const]));
}

function scansIn(sql: string): string[] {
  const given = Array.from({ length: sql.split("?").length - 1 }, () => null);
  const plan = db.prepare(`EXPLAIN QUERY PLAN ${sql}`).all(...given) as { detail: string }[];
  const tables = tablesIn(sql);
  return plan
    .map(({ detail }) => detail)
    .filter((detail) => {
      const [, name = "", index] = /^SCAN (\w+)(?: USING (?:COVERING )?INDEX (\w+))?/.exec(detail) ?? [];
      return GROWS.includes(tables.get(name) ?? name) && !OPEN_ONLY.includes(index ?? "");
    });
}

describe("query plans", () => {
  it("no statement reads a table through that grows with the years", () => {
    const own = [...asked].filter((sql) => /^\s*(SELECT|WITH|UPDATE|DELETE|INSERT)/i.test(sql) && sql !== "SELECT id FROM jobs");
    expect(own.length).toBeGreaterThan(50);
    const found = own
      .filter((sql) => !ONCE.some((one) => one.test(sql.trim())))
      .flatMap((sql) => scansIn(sql).map((detail) => `${detail}: ${sql.replace(/\s+/g, " ").slice(0, 160)}`));
    expect(found).toEqual([]);
  });

  it("would say so of one that does", () => {
    expect(scansIn("SELECT t.verdict FROM takes t WHERE t.verdict = ?")).toHaveLength(1);
    expect(scansIn("SELECT id FROM jobs WHERE state <> 'closed' ORDER BY opened_at")).toEqual([]);
  });
});
