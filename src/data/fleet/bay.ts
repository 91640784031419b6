import type { KindId } from "@/core/catalogue/kinds";
import type { JobState } from "@/core/job/jobs";
import type { MachineState } from "@/core/job/status";
import { type Machine, machineSchema } from "@/core/machine";
import { looksSchema } from "@/data/job/complaints";
import { IN_FLEET } from "@/data/machine/machines";
import { sheetInForce, unlessSpoilt } from "@/data/record/sheets-read";
import type { Db } from "@/data/store/db";

export type BayJob = {
  jobId: number;
  state: JobState;
  openedAt: string;
  machineId: string;
  fleetNumber: string;
  machineName: string;
  kind: KindId;
  site: string;
  sheetVersion: number;
  words: string;
  saidBy: string;
  symptoms: string[];
  /** Whether its machine is kept from running by anything unsafe. */
  isHeld: boolean;
  /** The last thing done, for who picks it up. */
  lastKind: string;
  lastAt: string;
  lastWho: string;
};

type Row = {
  job_id: number;
  state: JobState;
  opened_at: string;
  machine_id: string;
  fleet_number: string;
  name: string;
  kind: KindId;
  site: string;
  sheet_version: number;
  words: string | null;
  said_by: string | null;
  looks_json: string | null;
  is_held: number | null;
  last_kind: string;
  last_at: string;
  last_who: string;
};

const SELECT = `
  SELECT j.id AS job_id, j.state, j.opened_at, j.machine_id, m.fleet_number, m.name, m.kind, m.site,
    (SELECT max(version) FROM machine_sheets v WHERE v.machine_id = m.id) AS sheet_version, c.words, c.said_by, c.looks_json, ms.is_held, s.kind AS last_kind, s.at AS last_at, s.who AS last_who
  FROM jobs j
  JOIN machines m ON m.id = j.machine_id
  LEFT JOIN machine_states ms ON ms.machine_id = j.machine_id
  LEFT JOIN complaints c ON c.id = (SELECT min(id) FROM complaints WHERE job_id = j.id)
  JOIN steps s ON s.id = (SELECT max(id) FROM steps WHERE job_id = j.id)`;

const fromRow = (row: Row): BayJob => ({
  jobId: row.job_id,
  state: row.state,
  openedAt: row.opened_at,
  machineId: row.machine_id,
  fleetNumber: row.fleet_number,
  machineName: row.name,
  kind: row.kind,
  site: row.site,
  sheetVersion: row.sheet_version,
  words: row.words ?? "",
  saidBy: row.said_by ?? "",
  symptoms: row.looks_json === null ? [] : looksSchema.parse(JSON.parse(row.looks_json)).symptoms,
  isHeld: row.is_held === 1,
  lastKind: row.last_kind,
  lastAt: row.last_at,
  lastWho: row.last_who,
});

/** A machine that something keeps from running, with what it is. */
export type HeldMachine = { machineId: string; fleetNumber: string; name: string; site: string; machine: Machine; state: MachineState };

/** Where a held machine's sheet cannot be read, what holds it is said all the same, its places by their ids. */
const bareMachine = (kind: KindId): Machine => machineSchema.parse({ kind, wheels: [], spindles: [] });

/** Machines held, whether or not a job is open on them. */
export function heldMachines(db: Db): HeldMachine[] {
  const rows = db
    .prepare(
      `SELECT m.id, m.fleet_number, m.name, m.kind, m.site, s.state_json FROM machine_states s JOIN machines m ON m.id = s.machine_id
       WHERE s.is_held = 1 AND ${IN_FLEET} ORDER BY m.fleet_number`,
    )
    .all() as { id: string; fleet_number: string; name: string; kind: KindId; site: string; state_json: string }[];
  return rows.map((row) => ({
    machineId: row.id,
    fleetNumber: row.fleet_number,
    name: row.name,
    site: row.site,
    machine: unlessSpoilt(() => sheetInForce(db, row.id)) ?? bareMachine(row.kind),
    state: JSON.parse(row.state_json) as MachineState,
  }));
}

/** Every open job, the longest waiting first, and machines that are held. */
export function getBay(db: Db): { jobs: BayJob[]; held: HeldMachine[]; machineCount: number } {
  const jobs = (db.prepare(`${SELECT} WHERE j.state <> 'closed' ORDER BY j.id`).all() as Row[]).map(fromRow);
  const { n } = db.prepare("SELECT count(*) AS n FROM machines").get() as { n: number };
  return {
    jobs,
    held: heldMachines(db),
    machineCount: n,
  };
}

/** After every job there is. */
const LAST = Number.MAX_SAFE_INTEGER;

export type MachineJob = BayJob & { closedAt?: string; causes: string[]; isProved?: boolean };

/** Jobs of one machine, newest first; `limit` of them, before the job `before` where that is given. */
export function jobsOfMachine(db: Db, machineId: string, page: { limit?: number; before?: number | undefined } = {}): MachineJob[] {
  const rows = db
    .prepare(
      `${SELECT.replace("c.looks_json,", "c.looks_json, j.closed_at, close.data_json AS close_json,")}
       LEFT JOIN steps close ON close.id = (SELECT max(x.id) FROM steps x WHERE x.job_id = j.id AND x.kind = 'close'
         AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = x.id))
       WHERE j.machine_id = ? AND j.id < ? ORDER BY j.id DESC LIMIT ?`,
    )
    .all(machineId, page.before ?? LAST, page.limit ?? -1) as (Row & { closed_at: string | null; close_json: string | null })[];
  return rows.map((row) => {
    const close = row.close_json === null ? undefined : (JSON.parse(row.close_json) as { causes: string[]; isProved: boolean });
    return {
      ...fromRow(row),
      causes: close?.causes ?? [],
      ...(row.closed_at === null ? {} : { closedAt: row.closed_at }),
      ...(close ? { isProved: close.isProved } : {}),
    };
  });
}
