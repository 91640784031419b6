import * as z from "zod";
import { EVENT_IDS, type EventId } from "@/core/diagnosis";
import type { LoggedEvent } from "@/core/events";
import type { Db } from "./connection";
import { audit, type Doing, once } from "./context";
import { AppError } from "./errors";
import { getMachine } from "./machines";
import { pressureChangeSchema } from "./steps";

const dataSchema = z.object({
  pressures: z.array(pressureChangeSchema).optional(),
  words: z.string().max(500).optional(),
  droveOn: z.boolean().optional(),
});

export const newEventSchema = z.object({
  event: z.enum(EVENT_IDS),
  place: z.string().max(60).optional(),
  words: z.string().max(500).optional(),
  /** Of a strike: whether the drive ran on after it. */
  droveOn: z.boolean().optional(),
});

export type EventRecord = LoggedEvent & { id: number; words?: string; stepId?: number; droveOn?: boolean };

type Row = { id: number; event: EventId; place: string | null; data_json: string; step_id: number | null; who: string; at: string };

/** A machine's log without what was undone or voided, oldest first; `since` leaves older ones out. */
export function listEvents(db: Db, machineId: string, since = ""): EventRecord[] {
  const rows = db
    .prepare(
      `SELECT e.id, e.event, e.place, e.data_json, e.step_id, e.who, e.at FROM events e
       WHERE e.machine_id = ? AND e.at >= ? AND e.voids_id IS NULL
         AND NOT EXISTS (SELECT 1 FROM events v WHERE v.voids_id = e.id)
         AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = e.step_id)
       ORDER BY e.at, e.id`,
    )
    .all(machineId, since) as Row[];
  return rows.map((row) => {
    const { pressures, words, droveOn } = dataSchema.parse(JSON.parse(row.data_json));
    return {
      id: row.id,
      event: row.event,
      at: row.at,
      who: row.who,
      ...(row.place === null ? {} : { place: row.place }),
      ...(row.step_id === null ? {} : { stepId: row.step_id }),
      ...(pressures ? { pressures } : {}),
      ...(words ? { words } : {}),
      ...(droveOn === undefined ? {} : { droveOn }),
    };
  });
}

/** Writes an event inside a transaction. */
export function insertEvent(
  db: Db,
  doing: Doing,
  args: { machineId: string; event: EventId; place?: string | undefined; stepId?: number; data?: z.input<typeof dataSchema> },
): number {
  const { lastInsertRowid } = db
    .prepare("INSERT INTO events (machine_id, event, place, data_json, step_id, who, at) VALUES (?, ?, ?, ?, ?, ?, ?)")
    .run(args.machineId, args.event, args.place ?? null, JSON.stringify(args.data ?? {}), args.stepId ?? null, doing.who, doing.now);
  return Number(lastInsertRowid);
}

/** Logs what happened to a machine outside any job. */
export function logEvent(db: Db, doing: Doing, args: { machineId: string } & z.output<typeof newEventSchema>): { eventId: number } {
  return once(db, doing, "event-logged", () => {
    getMachine(db, args.machineId);
    const eventId = insertEvent(db, doing, {
      ...args,
      data: { ...(args.words ? { words: args.words } : {}), ...(args.droveOn === undefined ? {} : { droveOn: args.droveOn }) },
    });
    audit(db, doing, { action: "event-logged", subject: `machine:${args.machineId}`, detail: { event: args.event } });
    return { eventId };
  });
}

/** Takes an event back by a further entry; the first stays on the log. Throws `nothing-to-undo`. */
export function voidEvent(db: Db, doing: Doing, args: { machineId: string; eventId: number }): { eventId: number } {
  return once(db, doing, "event-voided", () => {
    const standing = listEvents(db, args.machineId).find(({ id }) => id === args.eventId);
    if (!standing || standing.stepId !== undefined) throw new AppError("nothing-to-undo");
    const { lastInsertRowid } = db
      .prepare("INSERT INTO events (machine_id, event, data_json, voids_id, who, at) VALUES (?, ?, '{}', ?, ?, ?)")
      .run(args.machineId, standing.event, args.eventId, doing.who, doing.now);
    audit(db, doing, { action: "event-voided", subject: `machine:${args.machineId}`, detail: { eventId: args.eventId } });
    return { eventId: Number(lastInsertRowid) };
  });
}
