import * as z from "zod";
import { hasTask, placesOf, type TaskId, taskRow } from "@/core/fleet/service/tasks";
import type { Machine } from "@/core/machine";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { insertEntry, places, type postponeSchema, requireDayToCome, serviceEntries, what, words } from "./service-log";
import { insertSpindleDeeds, takeBackOfService } from "./spindle-log";

export const serviceDoneSchema = z.object({
  what,
  kind: z.enum(["done", "rechecked"]).default("done"),
  words,
  places,
  roundId: z.number().int().positive().optional(),
});

/** Throws `invalid` with `not-of-this-sort` for a task such a machine does not have, `unknown-part` for a place where it is not done. */
export function requireTaskAt(
  machine: Machine,
  id: TaskId,
  named: readonly string[] | undefined,
  path: readonly (string | number)[] = ["places"],
): void {
  const task = taskRow(id);
  if (!task || !hasTask(task, machine)) throw new AppError("invalid", { issues: [{ code: "not-of-this-sort", path: ["what"] }] });
  const known = placesOf(task, machine);
  const unknown = (named ?? []).filter((place) => !known.includes(place));
  if (unknown.length > 0)
    throw new AppError("invalid", { issues: unknown.map((place) => ({ code: "unknown-part", path: [...path], place })) });
}

/**
 * Writes down that a task was done outside a job; grease goes into the log of the spindles, which it is counted by. Throws `round-not-found` for a round without
 * that machine, `invalid` with `counted-in-a-job` for one that is counted part by part: one grind is one fix, and its tally the knife's.
 */
export function logService(db: Db, doing: Doing, args: { machineId: string } & z.output<typeof serviceDoneSchema>): { entryId: number } {
  return once(db, doing, "service-done", () => {
    const { machine } = getMachine(db, args.machineId);
    requireTaskAt(machine, args.what, args.places);
    const task = taskRow(args.what);
    if (task?.isCounted) throw new AppError("invalid", { issues: [{ code: "counted-in-a-job", path: ["what"] }] });
    if (args.roundId !== undefined) requireRound(db, args.roundId, args);
    const entryId = insertEntry(db, doing, args);
    const [deed] = task?.spindles ?? [];
    if (deed && args.kind === "done") {
      const at = args.places ?? placesOf(task ?? {}, machine).flatMap((place) => place ?? []);
      insertSpindleDeeds(db, doing, { machineId: args.machineId, kind: deed, places: at, serviceEntryId: entryId });
    }
    return { entryId };
  });
}

function requireRound(db: Db, roundId: number, of: { what: string; machineId: string }): void {
  const row = db.prepare("SELECT what, machines_json FROM rounds WHERE id = ?").get(roundId) as
    | { what: string; machines_json: string }
    | undefined;
  if (!row || row.what !== of.what || !(JSON.parse(row.machines_json) as string[]).includes(of.machineId))
    throw new AppError("round-not-found");
}

/** Puts what is due off to a day, with the reason. Throws `invalid` for a day that is not to come. */
export function postponeService(db: Db, doing: Doing, args: { machineId: string } & z.output<typeof postponeSchema>): { entryId: number } {
  return once(db, doing, "service-postponed", () => {
    requireTaskAt(getMachine(db, args.machineId).machine, args.what, args.places);
    requireDayToCome(args.untilDay, doing);
    return { entryId: insertEntry(db, doing, { ...args, kind: "postponed" }) };
  });
}

/** Takes an entry back by a further one, and what it wrote in the log of the spindles with it; the first stays. Throws `nothing-to-undo`. */
export function takeBackService(db: Db, doing: Doing, args: { machineId: string; entryId: number }): { entryId: number } {
  return once(db, doing, "service-taken-back", () => {
    const entry = serviceEntries(db, args.machineId).find(({ id }) => id === args.entryId);
    if (!entry) throw new AppError("nothing-to-undo");
    takeBackOfService(db, doing, { machineId: args.machineId, serviceEntryId: args.entryId });
    const entryId = insertEntry(db, doing, {
      ...args,
      kind: "taken-back",
      what: entry.what,
      words: "",
      takesBackId: args.entryId,
      ...(entry.owedId === undefined ? {} : { owedId: entry.owedId }),
    });
    return { entryId };
  });
}
