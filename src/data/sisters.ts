import { type SheetDifference, sheetDifferences } from "@/core/sheet";
import type { Db } from "./connection";
import { grouped } from "./grouped";
import { getMachine, listMachines, type MachineRecord } from "./machines";
import { sheetOfVersion } from "./sheets-read";

/** Machines that are one kind with as many blades or units: those whose sheets ought to agree. */
export type Family = { key: string; members: MachineRecord[] };

export function families(db: Db): Family[] {
  const found = grouped(listMachines(db), ({ machine }) => [`${machine.kind}-${machine.spindles.length + machine.units.length}`]);
  return [...found].filter(([, members]) => members.length > 1).map(([key, members]) => ({ key, members }));
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

/** What has drifted on one machine since its first sheet. */
export function sinceBaseline(db: Db, machineId: string): SheetDifference[] {
  const { machine, sheetVersion } = getMachine(db, machineId);
  return sheetVersion === 1 ? [] : sheetDifferences(sheetOfVersion(db, machineId, 1), machine);
}
