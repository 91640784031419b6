import type { Verdict } from "@/core/basics/findings";
import type { CheckId } from "@/core/catalogue";
import { type Drift, driftOf } from "@/core/checks/baseline";
import { staleReasons } from "@/core/job/staleness";
import { cuttingWidth } from "@/core/machine";
import { type SheetDifference, sheetDifferences } from "@/core/machine/specification";
import { getMachine, listMachines, type MachineRecord } from "@/data/machine/machines";
import { listEvents } from "@/data/record/events-read";
import { sheetOfVersion } from "@/data/record/sheets-read";
import { assessmentsOf, rootOf, STANDS } from "@/data/record/takes-read";
import type { Db } from "@/data/store/db";
import { grouped } from "@/data/store/grouped";
import { whileUnchanged } from "@/data/store/reads";

/** Machines that are one kind with as many blades or units, and as wide: those whose sheets ought to agree. */
export type Family = { key: string; members: MachineRecord[] };

/** Nearer than this share of the wider one, two widths are one size of machine. Estimate: makers' sizes lie a tenth apart. */
const ONE_SIZE = 0.04;

/** In order of width, broken where the next is another size. */
function bySize(members: readonly MachineRecord[]): MachineRecord[][] {
  const wide = members.map((one) => ({ one, width: cuttingWidth(one.machine) })).sort((a, b) => a.width - b.width);
  const sizes: (typeof wide)[] = [];
  for (const next of wide) {
    const last = sizes.at(-1);
    const before = last?.at(-1);
    if (last && before && next.width - before.width <= ONE_SIZE * next.width) last.push(next);
    else sizes.push([next]);
  }
  return sizes.map((size) => size.map(({ one }) => one).sort((a, b) => a.fleetNumber.localeCompare(b.fleetNumber)));
}

export function families(db: Db): Family[] {
  const found = grouped(listMachines(db), ({ machine }) => [`${machine.kind}-${machine.spindles.length + machine.units.length}`]);
  return [...found].flatMap(([key, kin]) =>
    bySize(kin)
      .filter((members) => members.length > 1)
      .map((members, k) => ({ key: k === 0 ? key : `${key}-${k + 1}`, members })),
  );
}

export type SisterDifference = { key: string; byMachine: Record<string, unknown>; example: SheetDifference };

/** Where the sheets of these machines do not all agree: for each value what every one of them says. */
export function sisterDifferences(members: readonly MachineRecord[]): SisterDifference[] {
  const [first, ...others] = members;
  if (!first) return [];
  const found = new Map<string, SisterDifference>();
  for (const other of others)
    for (const one of sheetDifferences(first.machine, other.machine)) {
      const own = found.get(one.key) ?? { key: one.key, byMachine: {}, example: one };
      own.byMachine[other.id] = one.b;
      own.byMachine[first.id] = one.a;
      found.set(one.key, own);
    }
  // One that agrees with the first says what the first says.
  for (const row of found.values()) for (const { id } of members) if (!(id in row.byMachine)) row.byMachine[id] = row.byMachine[first.id];
  return [...found.values()];
}

type StandingRow = Parameters<typeof rootOf>[1] & {
  machine_id: string;
  check_id: CheckId;
  step_id: number;
  job_id: number;
  verdict: Verdict;
};

/** `isStale`: something happened to the machine since that the reading does not know of. */
export type CheckDrift = { checkId: CheckId; isStale: boolean; drifts: Drift[] };

/** What was last read of each machine, check by check, against what it read when that check was right for the first time. */
export function readingsDrift(db: Db, machineIds: readonly string[]): Map<string, CheckDrift[]> {
  return whileUnchanged(db, `drift of ${machineIds.join(" ")}`, () => readDrift(db, machineIds));
}

function readDrift(db: Db, machineIds: readonly string[]): Map<string, CheckDrift[]> {
  const rows = db
    .prepare(
      `SELECT t.machine_id, t.check_id, t.step_id, t.job_id, t.verdict, t.at, s.seq, t.corrects_step_id FROM takes t JOIN steps s ON s.id = t.step_id
       WHERE t.machine_id IN (SELECT value FROM json_each(?)) AND ${STANDS}`,
    )
    .all(JSON.stringify(machineIds)) as StandingRow[];
  const inOrder = rows.map((row) => ({ ...row, ...rootOf(db, row) })).sort((a, b) => a.seq - b.seq);
  const ofEach = [...grouped(inOrder, ({ machine_id, check_id }) => [`${machine_id} ${check_id}`]).values()].flatMap((own) => {
    const last = own.at(-1);
    return last ? [{ last, first: own.find(({ verdict }) => verdict === "in-tolerance") }] : [];
  });
  const told = assessmentsOf(db, [...new Set(ofEach.flatMap(({ last, first }) => [last.step_id, ...(first ? [first.step_id] : [])]))]);
  const toldAt = ({ step_id, at, job_id }: (typeof inOrder)[number]) => ({ at, jobId: job_id, figures: told.get(step_id)?.figures ?? [] });
  const drifts = ofEach.map(({ last, first }) => ({
    machineId: last.machine_id,
    checkId: last.check_id,
    isStale:
      staleReasons({
        machine: getMachine(db, last.machine_id).machine,
        check: last.check_id,
        takenSeq: last.seq,
        events: listEvents(db, last.machine_id),
      }).length > 0,
    drifts: driftOf({ baseline: first && toldAt(first), last: toldAt(last) }),
  }));
  const byMachine = grouped(drifts, ({ machineId }) => [machineId]);
  return new Map(machineIds.map((id) => [id, byMachine.get(id) ?? []]));
}

/**
 * The family of a machine with where its sheets differ, what drifted on each since its first, and its readings against its own baseline; every family by its
 * members where no machine is asked for. Throws `machine-not-found`.
 */
export function sistersOf(db: Db, machineId: string | undefined) {
  const all = families(db).map(({ key, members }) => ({ key, members }));
  const ids = (members: readonly MachineRecord[]) => members.map(({ id }) => id);
  if (machineId === undefined) return { families: all.map(({ key, members }) => ({ key, machines: ids(members) })) };
  const own = all.find(({ members }) => members.some(({ id }) => id === getMachine(db, machineId).id));
  const members = own?.members ?? [getMachine(db, machineId)];
  const readings = readingsDrift(db, ids(members));
  return {
    machines: members.map(({ id }) => ({ id, drifted: sinceBaseline(db, id), readings: readings.get(id) ?? [] })),
    differences: sisterDifferences(members).map(({ key, byMachine }) => ({ key, byMachine })),
  };
}

/** What has drifted on one machine since its first sheet. */
export function sinceBaseline(db: Db, machineId: string): SheetDifference[] {
  const { machine, sheetVersion } = getMachine(db, machineId);
  return sheetVersion === 1 ? [] : sheetDifferences(sheetOfVersion(db, machineId, 1), machine);
}
