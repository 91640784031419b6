import { rmSync } from "node:fs";
import Database from "better-sqlite3";
import { openDatabase } from "@/data/open";
import { refoldStates } from "@/data/projections/machine-state";

/** Twenty-two fleets like the demo's, each closed story told twenty times more over five years: some 300 machines and 20,000 jobs. */
const FLEETS = 22;
const RETOLD = 20;
const DAYS_APART = 91;
/** More than the demo has rows of any kind: each copy counts on from there. */
const STRIDE = 10_000;
/** Tables of one fleet, in the order their references want; `jobs`: those told again with each closed story. */
const TABLES = ["machines", "machine_sheets", "hours", "part_sets", "set_log"] as const;
/** What names something owed comes after it: while a reference waits for its row, every row that could be it is looked at by all tables. */
const AFTER_JOBS = ["service_log", "spindle_log"] as const;
/** The shop's own, once for all fleets. */
const OF_SHOP = ["parts", "part_versions", "part_moves", "service_rules", "procedures", "procedures_withdrawn", "site_places"] as const;
const OF_JOBS = ["jobs", "complaints", "steps", "takes", "readings", "events", "owed"] as const;

type Copy = { fleet: number; retold: number };
type Column = { name: string };

/** How a column of a copied row is said: counted on, named after its fleet, set back in time, or as it was. */
function said(table: string, column: string, { fleet, retold }: Copy): string {
  const on = (fleet * (RETOLD + 1) + (RETOLD - retold)) * STRIDE;
  const counted = [
    "job_id",
    "set_id",
    "step_id",
    "undoes_id",
    "corrects_id",
    "corrects_step_id",
    "voids_id",
    "takes_back_id",
    "service_entry_id",
    "owed_id",
    "seq",
  ];
  if (counted.includes(column) || (column === "id" && table !== "machines")) return `${column} + ${on}`;
  if (column === "machine_id" || (column === "id" && table === "machines") || column === "fleet_number")
    return fleet === 0 ? column : `${column} || '-${fleet + 1}'`;
  if (["at", "opened_at", "closed_at", "due_at"].includes(column) && retold > 0)
    return `strftime('%Y-%m-%dT%H:%M:%fZ', ${column}, '-${retold * DAYS_APART} days')`;
  // A story told again owes nothing that its first did not: what was done of it is said in the row.
  if (table === "owed" && (column === "done_at" || column === "done_by"))
    return `coalesce(${column}, (SELECT ${column === "done_at" ? "at" : "who"} FROM demo.service_log WHERE owed_id = owed.id AND kind = 'done'))`;
  // A round is of one fleet, and its lines are copied without it.
  if (column === "round_id") return "NULL";
  if (column === "mark") return fleet === 0 ? column : `${column} || '-${fleet + 1}'`;
  if (table === "steps" && column === "data_json")
    return `CASE kind WHEN 'complaint' THEN json_set(data_json, '$.complaintId', json_extract(data_json, '$.complaintId') + ${on})
      WHEN 'take' THEN CASE WHEN json_extract(data_json, '$.correctsStepId') IS NULL THEN data_json
        ELSE json_set(data_json, '$.correctsStepId', json_extract(data_json, '$.correctsStepId') + ${on}) END
      ELSE data_json END`;
  return column;
}

/** Which rows of a table a story told again brings along. */
function whereOf(table: string, retold: number): string {
  if (retold === 0) return "";
  const closed = "(SELECT id FROM demo.jobs WHERE state = 'closed')";
  if (table === "jobs") return `WHERE id IN ${closed}`;
  if (table === "readings" || table === "events") return `WHERE step_id IN (SELECT id FROM demo.steps WHERE job_id IN ${closed})`;
  return `WHERE job_id IN ${closed}`;
}

/** A meter is read once a week, for five years before the demo's own readings begin; so many hours a week, January first (estimate). */
const WEEKS = 260;
const HOURS_A_WEEK = [1, 1.5, 6, 13, 17, 16, 14, 13, 13, 10, 6, 1.5];
const WEEK = 7 * 86_400_000;

/** Real meters: the weeks before a machine's first reading, counted down from it. Before the demo's own, whose ids come behind. */
function addMeters(db: Database.Database, fleet: number): void {
  const first = db
    .prepare(
      "SELECT machine_id, min(at) AS at, min(meter_hours) AS meter, min(who) AS who FROM demo.hours GROUP BY machine_id ORDER BY machine_id",
    )
    .all() as { machine_id: string; at: string; meter: number; who: string }[];
  const insert = db.prepare("INSERT INTO hours (id, machine_id, meter_hours, who, at) VALUES (?, ?, ?, ?, ?)");
  first.forEach(({ machine_id, at, meter, who }, k) => {
    const weeks = Array.from({ length: WEEKS }, (_, week) => new Date(Date.parse(at) - (WEEKS - week) * WEEK));
    const shares = weeks.map((day) => HOURS_A_WEEK[day.getUTCMonth()] ?? 0);
    // The meter starts where all of them fit under the first reading of the demo.
    const whole = shares.reduce((sum, one) => sum + one, 0);
    const unit = Math.min(1, (0.9 * meter) / whole);
    let hours = meter - whole * unit;
    weeks.forEach((day, week) => {
      insert.run(
        fleet * (RETOLD + 1) * STRIDE + k * WEEKS + week + 1,
        fleet === 0 ? machine_id : `${machine_id}-${fleet + 1}`,
        hours,
        who,
        day.toISOString(),
      );
      hours += (shares[week] ?? 0) * unit;
    });
  });
}

/** Makes the large depot from a demo's file: seeded as the demo is, so always the same. Answers how much of what it holds. */
export function makeLargeDepot({ demo, file, fleets = FLEETS }: { demo: string; file: string; fleets?: number }): Record<string, number> {
  for (const end of ["", "-wal", "-shm"]) rmSync(`${file}${end}`, { force: true });
  openDatabase(file).close();
  const db = new Database(file);
  db.pragma("synchronous = OFF");
  db.prepare("ATTACH ? AS demo").run(demo);
  db.exec("INSERT INTO people SELECT * FROM demo.people WHERE initials NOT IN (SELECT initials FROM people)");
  db.transaction(() => {
    for (let fleet = 0; fleet < fleets; fleet++) {
      if (fleet === 0) db.exec("PRAGMA defer_foreign_keys = ON");
      if (fleet === 0) for (const table of OF_SHOP) db.exec(`INSERT INTO ${table} SELECT * FROM demo.${table}`);
      for (const table of TABLES) {
        if (table === "hours") addMeters(db, fleet);
        copy(db, table, { fleet, retold: 0 });
      }
      for (let retold = RETOLD; retold >= 0; retold--) for (const table of OF_JOBS) copy(db, table, { fleet, retold });
      for (const table of AFTER_JOBS) copy(db, table, { fleet, retold: 0 });
    }
  })();
  db.exec(
    "UPDATE owed SET done_at = due_at, done_by = (SELECT min(initials) FROM people) WHERE done_at IS NULL AND due_at < date('now', '-60 days')",
  );
  db.exec("DETACH demo");
  refoldStates(db);
  const count = (table: string) => (db.prepare(`SELECT count(*) AS n FROM ${table}`).get() as { n: number }).n;
  const held = Object.fromEntries(["machines", "jobs", "steps", "takes", "readings", "hours"].map((table) => [table, count(table)]));
  db.pragma("wal_checkpoint(TRUNCATE)");
  db.close();
  return held;
}

function copy(db: Database.Database, table: string, one: Copy): void {
  const columns = (db.prepare(`SELECT name FROM pragma_table_info('${table}')`).all() as Column[]).map(({ name }) => name);
  const values = columns.map((column) => said(table, column, one)).join(", ");
  db.exec(`INSERT INTO ${table} (${columns.join(", ")}) SELECT ${values} FROM demo.${table} ${whereOf(table, one.retold)}`);
}
