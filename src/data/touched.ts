import type { Db } from "./connection";

const touched = new WeakMap<Db, Set<string>>();

/** Says that a machine's log or sheet moved in the change in hand. */
export function touch(db: Db, machineId: string): void {
  const machines = touched.get(db) ?? new Set();
  machines.add(machineId);
  touched.set(db, machines);
}

/** Machines that moved since it was last asked; asking forgets them. */
export function takeTouched(db: Db): string[] {
  const machines = [...(touched.get(db) ?? [])];
  touched.delete(db);
  return machines;
}

export function isTouched(db: Db, machineId: string): boolean {
  return touched.get(db)?.has(machineId) === true;
}
