import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { machineSchema } from "@/core/machine";
import { itemsFor, type SafeState } from "@/core/safety";
import { PSI_PASCALS, toSi } from "@/core/units";
import { takeComplaint } from "@/data/complaints";
import { type Db, openDatabase } from "@/data/connection";
import type { Doing } from "@/data/context";
import { addMachine, getMachine } from "@/data/machines";
import { addPerson } from "@/data/people";
import { recordConfirmation } from "@/data/safe-state";
import { FLEET } from "@/demo/fleet";

export function temporaryFile(): string {
  return path.join(mkdtempSync(path.join(tmpdir(), "zygometer-")), "test.sqlite");
}

/** A clock that moves on a minute each time it is asked. */
export class Clock {
  private minutes = 0;
  doing(submissionId?: string): Doing {
    this.minutes += 1;
    return { who: "AK", now: new Date(Date.UTC(2026, 4, 4, 7, this.minutes)).toISOString(), ...(submissionId ? { submissionId } : {}) };
  }
}

/** A database with one person and the demo's machines, without any history. */
export function emptyDepot(file = ":memory:"): { db: Db; clock: Clock } {
  const db = openDatabase(file, "2026-05-01T00:00:00.000Z");
  const clock = new Clock();
  addPerson(db, { initials: "AK", now: clock.doing().now });
  for (const { fleetNumber, name, site, machine } of FLEET)
    addMachine(db, clock.doing(), { fleetNumber, name, site, machine: machineSchema.parse(machine) });
  return { db, clock };
}

export function openJob(db: Db, clock: Clock, machineId = "zt-1"): number {
  const looks = { symptoms: ["step-between-passes" as const], denied: [], contexts: [] };
  return takeComplaint(db, clock.doing(), { machineId, words: "a ledge", saidBy: "TV", place: "", looks }).jobId;
}

export function makeSafe(db: Db, clock: Clock, jobId: number, state: SafeState = "locked-out", machineId = "zt-1"): void {
  const answers = Object.fromEntries(itemsFor(getMachine(db, machineId).machine, state).map(({ id }) => [id, { answer: "yes" as const }]));
  recordConfirmation(db, clock.doing(), { jobId, state, answers });
}

export const tyres = (pressuresPsi: readonly number[]) => ({
  tyres: ["left-drive", "left-caster", "right-caster", "right-drive"].map((wheelId, k) => ({
    wheelId,
    pressurePascals: (pressuresPsi[k] ?? 0) * PSI_PASCALS,
  })),
});

export const tips = (inches: readonly number[]) => ({
  tips: (
    [
      ["left", "left"],
      ["right", "right"],
      ["middle", "front"],
      ["middle", "rear"],
    ] as const
  ).map(([spindleId, direction], k) => ({ spindleId, direction, heightMetres: toSi(inches[k] ?? 0, "in") })),
});

/** Read at the four quick places: level, nose a quarter inch down. */
export const LEVEL_INCHES = [3.25, 3.25, 3.0625, 3.3125];
export const LEDGE_INCHES = [3, 3.31, 3.25, 3.19];
