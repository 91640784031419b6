import type { JobState } from "@/core/jobs";
import { type KindId, kindById } from "@/core/kinds";
import { cuttingWidth } from "@/core/machine";
import type { MachineState } from "@/core/state";
import { localDay } from "./clock";
import type { Db } from "./connection";
import { dueNow } from "./due";
import { grouped } from "./grouped";
import { listMachines } from "./machines";
import { atOnce, ofMachine, whileUnchanged } from "./reads";

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

function readRows(db: Db, now: string): FleetRow[] {
  return whileUnchanged(db, `fleet on ${localDay(now)}`, () => {
    const open = db.prepare("SELECT id, machine_id, state FROM jobs WHERE state <> 'closed' ORDER BY id").all() as {
      id: number;
      machine_id: string;
      state: JobState;
    }[];
    const jobs = grouped(open, ({ machine_id }) => [machine_id]);
    const lines = dueNow(db, now);
    const owed = counted(
      lines.filter(({ what }) => what === "owed"),
      ({ machineId }) => machineId,
    );
    const due = counted(
      lines.filter(({ state, what }) => what !== "owed" && (state === "due" || state === "overdue")),
      ({ machineId }) => machineId,
    );
    return listMachines(db, { withRetired: true }).map((record): FleetRow => {
      const { id, machine } = record;
      const own = stateInShort(db, id);
      const open = (jobs.get(id) ?? []).map((job) => ({ id: job.id, state: job.state }));
      const working = JOB_ORDER.find((state) => open.some((job) => job.state === state));
      const hours = record.totalHours ?? record.meterHours;
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
        state: record.retired
          ? "retired"
          : own?.isHeld
            ? "held"
            : own?.isStruck
              ? "struck"
              : ((working as FleetState | undefined) ?? "ready"),
        openJobs: open,
        owed: owed.get(id) ?? 0,
        due: due.get(id) ?? 0,
        notAsBuilt: own?.notAsBuilt ?? 0,
        sheetVersion: record.sheetVersion,
      };
    });
  });
}

/** What the table says of a machine's state, short of all there is to it. */
function stateInShort(db: Db, machineId: string): { isHeld: boolean; isStruck: boolean; notAsBuilt: number } | undefined {
  const read = () => {
    const row = db.prepare("SELECT is_held, state_json FROM machine_states WHERE machine_id = ?").get(machineId) as
      | { is_held: number; state_json: string }
      | undefined;
    if (!row) return undefined;
    const { struck, notAsBuilt } = JSON.parse(row.state_json) as MachineState;
    return { isHeld: row.is_held === 1, isStruck: struck !== undefined, notAsBuilt: notAsBuilt.length };
  };
  return whileUnchanged(db, `state in short of ${machineId}`, read, { on: ofMachine(machineId, "log") });
}
