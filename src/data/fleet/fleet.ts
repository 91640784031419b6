import { type KindId, kindById } from "@/core/catalogue/kinds";
import type { JobState } from "@/core/job/jobs";
import type { MachineState } from "@/core/job/status";
import { cuttingWidth } from "@/core/machine";
import { listMachines, type MachineRecord } from "@/data/machine/machines";
import { dueNow } from "@/data/service/due";
import type { Db } from "@/data/store/db";
import { grouped } from "@/data/store/grouped";
import { atOnce, eachMachine, putTogether, whileUnchanged } from "@/data/store/reads";

/** How a machine stands in one word, the gravest that is true. */
export type FleetState = "held" | "struck" | "in-work" | "awaiting-proof" | "waiting" | "ready" | "retired";

/** A machine in the table of all of them. */
export type FleetRow = {
  id: string;
  fleetNumber: string;
  name: string;
  site: string;
  kind: KindId;
  kindLabel: string;
  cutters: number;
  widthMetres: number;
  hours?: number;
  state: FleetState;
  openJobs: { id: number; state: JobState }[];
  owed: number;
  /** Of service, grease and knives: what is due or overdue. */
  due: number;
  notAsBuilt: number;
  sheetVersion: number;
};

const JOB_ORDER: readonly JobState[] = ["in-work", "awaiting-proof", "waiting"];

function counted<T>(all: readonly T[], keyOf: (one: T) => string): Map<string, number> {
  const found = new Map<string, number>();
  for (const one of all) found.set(keyOf(one), (found.get(keyOf(one)) ?? 0) + 1);
  return found;
}

/** Every machine, those retired too, with what is open, owed and due on it. */
export function fleetRows(db: Db, now: string): FleetRow[] {
  return atOnce(db, () => readRows(db, now));
}

type OpenJob = { id: number; state: JobState };

function readRows(db: Db, now: string): FleetRow[] {
  const records = listMachines(db, { withRetired: true });
  const lines = dueNow(db, now);
  const open = whileUnchanged(db, "open jobs", () => openJobs(db), { on: ["every:log"] });
  const ids = putTogether(db, "ids in the table", records, () => records.map(({ id }) => id));
  const states = eachMachine(db, "state in short", ids, (id) => stateInShort(db, id), { on: ["log"] });
  return putTogether(db, "fleet", [records, lines, open, ...states], () => {
    const jobs = grouped(open, ({ machineId }) => [machineId]);
    const owed = counted(
      lines.filter(({ what }) => what === "owed"),
      ({ machineId }) => machineId,
    );
    const due = counted(
      lines.filter(({ state, what }) => what !== "owed" && (state === "due" || state === "overdue")),
      ({ machineId }) => machineId,
    );
    return records.map((record, k) =>
      rowOf(record, { state: states[k], open: jobs.get(record.id) ?? [], owed: owed.get(record.id) ?? 0, due: due.get(record.id) ?? 0 }),
    );
  });
}

function openJobs(db: Db): (OpenJob & { machineId: string })[] {
  const rows = db.prepare("SELECT id, machine_id, state FROM jobs WHERE state <> 'closed' ORDER BY id").all() as {
    id: number;
    machine_id: string;
    state: JobState;
  }[];
  return rows.map(({ id, machine_id, state }) => ({ id, state, machineId: machine_id }));
}

function rowOf(
  record: MachineRecord,
  { state: own, open, owed, due }: { state: InShort | undefined; open: readonly OpenJob[]; owed: number; due: number },
): FleetRow {
  const { id, machine } = record;
  const working = JOB_ORDER.find((state) => open.some((job) => job.state === state));
  const hours = record.totalHours ?? record.meterHours;
  const standing = own?.isHeld ? "held" : own?.isStruck ? "struck" : ((working as FleetState | undefined) ?? "ready");
  return {
    id,
    fleetNumber: record.fleetNumber,
    name: record.name,
    site: record.site,
    kind: machine.kind,
    kindLabel: kindById(machine.kind).label,
    cutters: machine.spindles.length + machine.units.length,
    widthMetres: cuttingWidth(machine),
    ...(hours === undefined ? {} : { hours }),
    state: record.retired ? "retired" : standing,
    openJobs: open.map((job) => ({ id: job.id, state: job.state })),
    owed,
    due,
    notAsBuilt: own?.notAsBuilt ?? 0,
    sheetVersion: record.sheetVersion,
  };
}

type InShort = { isHeld: boolean; isStruck: boolean; notAsBuilt: number };

/** What the table says of a machine's state, short of all there is to it. */
function stateInShort(db: Db, machineId: string): InShort | undefined {
  const row = db.prepare("SELECT is_held, state_json FROM machine_states WHERE machine_id = ?").get(machineId) as
    | { is_held: number; state_json: string }
    | undefined;
  if (!row) return undefined;
  const { struck, notAsBuilt } = JSON.parse(row.state_json) as MachineState;
  return { isHeld: row.is_held === 1, isStruck: struck !== undefined, notAsBuilt: notAsBuilt.length };
}
