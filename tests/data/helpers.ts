import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { PSI_PASCALS, toSi } from "@/core/basics/units";
import { allYes, itemsFor, type SafeState } from "@/core/job/safety";
import { putBackPoints } from "@/core/job/status";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { addPerson } from "@/data/catalogue/people";
import { takeComplaint } from "@/data/job/complaints";
import { recordTestCut } from "@/data/job/job-actions";
import { recordConfirmation, recordPutBack } from "@/data/job/safe-state";
import { addMachine, getMachine } from "@/data/machine/machines";
import { openDatabase } from "@/data/open";
import { stateOfMachine } from "@/data/projections/machine-state";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";

export function temporaryFile(): string {
  return path.join(mkdtempSync(path.join(tmpdir(), "zygometer-")), "test.sqlite");
}

/** A clock that moves on a minute each time it is asked. */
export class Clock {
  private minutes = 0;
  constructor(private readonly who = "AK") {}
  doing(submissionId?: string): Doing {
    this.minutes += 1;
    return { who: this.who, now: new Date(Date.UTC(2026, 4, 4, 7, this.minutes)).toISOString(), ...(submissionId ? { submissionId } : {}) };
  }
}

/** A database with two people and the demo's machines, without any history. */
export function emptyDepot(file = ":memory:"): { db: Db; clock: Clock } {
  const db = openDatabase(file, "2026-05-01T00:00:00.000Z");
  const clock = new Clock();
  for (const initials of ["AK", "BL"]) addPerson(db, { initials, now: clock.doing().now });
  for (const { fleetNumber, name, site, machine } of FLEET)
    addMachine(db, clock.doing(), { fleetNumber, name, site, machine: machineSchema.parse(machine) });
  return { db, clock };
}

export function openJob(db: Db, clock: Clock, machineId = "zt-1"): number {
  const looks = { symptoms: ["step-between-passes" as const], denied: [], contexts: [] };
  return takeComplaint(db, clock.doing(), { machineId, words: "a ledge", saidBy: "TV", place: "", looks }).jobId;
}

export function makeSafe(db: Db, clock: Clock, jobId: number, state: SafeState = "locked-out", machineId = "zt-1"): void {
  recordConfirmation(db, clock.doing(), { jobId, state, answers: allYes(itemsFor(getMachine(db, machineId).machine, state)) });
}

/** Put back as far as it wants it, then made ready to run. */
export function makeReady(db: Db, clock: Clock, jobId: number, machineId = "zt-1"): void {
  const state = stateOfMachine(db, machineId);
  const points = putBackPoints(getMachine(db, machineId).machine, state);
  if (state.toPutBack || state.unturned.length > 0) recordPutBack(db, clock.doing(), { jobId, answers: allYes(points) });
  makeSafe(db, clock, jobId, "running", machineId);
}

type Cut = Omit<Parameters<typeof recordTestCut>[2], "jobId">;
export const GOOD_CUT: Cut = {
  looks: "all-alike",
  turf: "good",
  dryness: "dry",
  light: "day",
  patch: "same",
  height: "as-complained",
  drivenBy: "same",
  place: "",
  operator: "",
  words: "",
};

/** A test cut that is proof, but for what is changed. */
export const cutWith = (db: Db, clock: Clock, jobId: number, more: Partial<Cut> = {}): { stepId: number } =>
  recordTestCut(db, clock.doing(), { jobId, ...GOOD_CUT, ...more });

/** As `refusedFor` tells it: the code of a refusal and those of its issues; empty where it was done. */
export function refusedFor(action: () => unknown): string[] {
  try {
    action();
  } catch (error) {
    if (error instanceof AppError) return [error.code, ...error.issues.map(({ code }) => code)];
    throw error;
  }
  return [];
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
  isCarriedRound: true,
});

/** Read at the four quick places: level, nose a quarter inch down. */
export const LEVEL_INCHES = [3.25, 3.25, 3.0625, 3.3125];
export const LEDGE_INCHES = [3, 3.31, 3.25, 3.19];
