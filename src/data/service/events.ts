import * as z from "zod";
import { EVENT_IDS, type EventId } from "@/core/catalogue";
import { isSubstantial } from "@/core/job/safety";
import { mayRun } from "@/core/job/status";
import { requirePlaces } from "@/data/catalogue/known";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { stateOfMachine } from "@/data/projections/machine-state";
import { type EventRecord, type eventDataSchema, listEvents } from "@/data/record/events-read";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { nextSeq } from "@/data/store/sequence";
import { letGo } from "./let-go";

export { type EventRecord, listEvents } from "@/data/record/events-read";

/** A hold is let go by a release with its reasons, never by a line in the log. */
const LOGGABLE = EVENT_IDS.filter((id) => id !== "released") as [EventId, ...EventId[]];

export const newEventSchema = z.object({
  event: z.enum(LOGGABLE),
  place: z.string().max(60).optional(),
  words: z.string().max(500).optional(),
  /** Of a strike: whether the drive ran on after it, and where on the site it was. */
  droveOn: z.boolean().optional(),
  where: z.string().trim().max(120).optional(),
});
export const voidEventSchema = z.object({ reason: z.string().trim().max(500).default("") });

/** Writes an event inside a transaction. Throws `invalid` for a place the machine does not have, however the event was told. */
export function insertEvent(
  db: Db,
  doing: Doing,
  args: { machineId: string; event: EventId; place?: string | undefined; stepId?: number; data?: z.input<typeof eventDataSchema> },
): number {
  if (args.place !== undefined) requirePlaces(getMachine(db, args.machineId).machine, [{ id: args.place, path: ["place"] }]);
  const { lastInsertRowid } = db
    .prepare("INSERT INTO events (machine_id, event, place, data_json, step_id, who, at, seq) VALUES (?, ?, ?, ?, ?, ?, ?, ?)")
    .run(
      args.machineId,
      args.event,
      args.place ?? null,
      JSON.stringify(args.data ?? {}),
      args.stepId ?? null,
      doing.who,
      doing.now,
      nextSeq(db),
    );
  return Number(lastInsertRowid);
}

/**
 * Somebody says that a machine was run: against a reason why it may not, that wants words of substance. It is a claim, and lets go of nothing but the lock-out
 * of who makes it. That nobody made it ready is no such reason: operators do not. Throws `invalid` at the words, with what stood against it.
 */
export function requireToldRun(db: Db, doing: Doing, args: { machineId: string; words?: string | undefined }): void {
  const { reasons } = mayRun(stateOfMachine(db, args.machineId), { to: "cut", who: doing.who });
  const against = reasons.filter(({ code }) => code !== "not-ready").map(({ code }) => code);
  if (against.length > 0 && !isSubstantial(args.words ?? ""))
    throw new AppError("invalid", { issues: [{ code: "run-against-reasons", path: ["words"], against }] });
}

/** Logs what happened to a machine outside any job. Throws `invalid` at the words of a run that it might not have made. */
export function logEvent(db: Db, doing: Doing, args: { machineId: string } & z.output<typeof newEventSchema>): { eventId: number } {
  return once(db, doing, "event-logged", () => {
    getMachine(db, args.machineId);
    if (args.event === "run") requireToldRun(db, doing, args);
    const eventId = insertEvent(db, doing, {
      ...args,
      data: {
        ...(args.words ? { words: args.words } : {}),
        ...(args.where ? { where: args.where } : {}),
        ...(args.droveOn === undefined ? {} : { droveOn: args.droveOn }),
      },
    });
    audit(db, doing, { action: "event-logged", subject: `machine:${args.machineId}`, detail: { event: args.event } });
    return { eventId };
  });
}

/** Taking one of these back lets a machine run again: it wants a reason like any release. */
export const HOLDING_EVENTS: readonly EventId[] = ["struck", "held-out"];

/** What a step brought about goes with its step; a complaint is never undone, so a strike told with it is taken back like one logged by hand. */
export function canTakeBack(db: Db, { stepId }: Pick<EventRecord, "stepId">): boolean {
  if (stepId === undefined) return true;
  return db.prepare("SELECT 1 FROM steps WHERE id = ? AND kind = 'complaint'").get(stepId) !== undefined;
}

/**
 * Takes an event back by a further entry; the first stays on the log. Throws `nothing-to-undo`, and `invalid` where something that keeps the machine from
 * running goes with it, it is somebody else's event or a strike or a hold, and no reason of substance is given (`letGo`).
 */
export function voidEvent(
  db: Db,
  doing: Doing,
  args: { machineId: string; eventId: number } & Partial<z.output<typeof voidEventSchema>>,
): { eventId: number } {
  return once(db, doing, "event-voided", () => {
    const standing = listEvents(db, args.machineId).find(({ id }) => id === args.eventId);
    if (!standing || !canTakeBack(db, standing)) throw new AppError("nothing-to-undo");
    const { reason = "" } = args;
    if (HOLDING_EVENTS.includes(standing.event) && !isSubstantial(reason))
      throw new AppError("invalid", { issues: [{ code: "reason-of-substance", path: ["reason"] }] });
    const eventId = voidStanding(db, doing, { machineId: args.machineId, standing, reason });
    audit(db, doing, { action: "event-voided", subject: `machine:${args.machineId}`, detail: { eventId: args.eventId, reason } });
    return { eventId };
  });
}

/** Takes a standing event back inside a transaction; what kept the machine from running by it is let go of with the reason, or refused without (`letGo`). */
export function voidStanding(
  db: Db,
  doing: Doing,
  { machineId, standing, reason }: { machineId: string; standing: EventRecord; reason: string },
): number {
  const before = stateOfMachine(db, machineId);
  const { lastInsertRowid } = db
    .prepare("INSERT INTO events (machine_id, event, data_json, voids_id, who, at, seq) VALUES (?, ?, ?, ?, ?, ?, ?)")
    .run(machineId, standing.event, JSON.stringify(reason ? { words: reason } : {}), standing.id, doing.who, doing.now, nextSeq(db));
  const eventId = Number(lastInsertRowid);
  letGo(db, doing, { machineId, before, of: standing.who, reason, from: { eventId } });
  return eventId;
}
