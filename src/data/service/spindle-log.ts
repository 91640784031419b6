import * as z from "zod";
import { greasedSpindles, isRotation, SPINDLE_DEEDS, type SpindleDeed, type SpindleEntry } from "@/core/fleet/service/spindles";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { nextSeq } from "@/data/store/sequence";
import { insertEvent, listEvents, voidStanding } from "./events";

export const newSpindleEntrySchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.enum(SPINDLE_DEEDS), places: z.array(z.string().max(60)).min(1).max(7) }),
  z.object({ kind: z.literal("moved"), moves: z.record(z.string().max(60), z.string().max(60)) }),
]);

const movesSchema = z.record(z.string(), z.string());

/** `serviceEntryId`: the line of service it was written with. */
export type SpindleRecord = SpindleEntry & { id: number; serviceEntryId?: number };

type Row = {
  id: number;
  kind: string;
  place: string | null;
  moves_json: string | null;
  service_entry_id: number | null;
  who: string;
  at: string;
  seq: number;
};

/** What was done to a machine's spindles, oldest first, without what was taken back. */
export function listSpindleLog(db: Db, machineId: string): SpindleRecord[] {
  const rows = db
    .prepare(
      `SELECT l.id, l.kind, l.place, l.moves_json, l.service_entry_id, l.who, l.at, l.seq FROM spindle_log l WHERE l.machine_id = ? AND l.kind <> 'taken-back'
         AND NOT EXISTS (SELECT 1 FROM spindle_log b WHERE b.takes_back_id = l.id) ORDER BY l.id`,
    )
    .all(machineId) as Row[];
  return rows.map(({ id, kind, place, moves_json, service_entry_id, who, at, seq }) => {
    const written = { id, who, at, seq, ...(service_entry_id === null ? {} : { serviceEntryId: service_entry_id }) };
    return kind === "moved"
      ? { ...written, kind, moves: movesSchema.parse(JSON.parse(moves_json ?? "{}")) }
      : { ...written, kind: kind as SpindleDeed, place: place ?? "" };
  });
}

type NewRow = { machineId: string; kind: string; place?: string; moves?: object; serviceEntryId?: number; takesBackId?: number };

function insertRow(db: Db, doing: Doing, { machineId, kind, place, moves, serviceEntryId, takesBackId }: NewRow): number {
  return Number(
    db
      .prepare(
        "INSERT INTO spindle_log (machine_id, kind, place, moves_json, service_entry_id, takes_back_id, who, at, seq) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)",
      )
      .run(
        machineId,
        kind,
        place ?? null,
        moves ? JSON.stringify(moves) : null,
        serviceEntryId ?? null,
        takesBackId ?? null,
        doing.who,
        doing.now,
        nextSeq(db),
      ).lastInsertRowid,
  );
}

/** The same done to spindles at each of these places. Inside a transaction. */
export function insertSpindleDeeds(
  db: Db,
  doing: Doing,
  args: { machineId: string; kind: SpindleDeed; places: readonly string[]; serviceEntryId?: number },
): number[] {
  const { machineId, kind, places, serviceEntryId } = args;
  return [...new Set(places)].map((place) => {
    const entryId = insertRow(db, doing, { machineId, kind, place, ...(serviceEntryId === undefined ? {} : { serviceEntryId }) });
    // New bearings are work on the spindle: what was read of it before holds no longer.
    if (kind === "bearings-new") insertApart(db, doing, { machineId, place, entryId });
    return entryId;
  });
}

const insertApart = (db: Db, doing: Doing, args: { machineId: string; place: string; entryId: number }): void => {
  const { machineId, place, entryId } = args;
  insertEvent(db, doing, { machineId, event: "spindle-apart", place, data: { spindleEntryId: entryId } });
};

/** Writes down what was done. Throws `invalid` for a spindle the machine does not have, or a turning round that leaves one without a place. */
export function logSpindles(
  db: Db,
  doing: Doing,
  args: { machineId: string } & z.output<typeof newSpindleEntrySchema>,
): { entryIds: number[] } {
  return once(db, doing, "spindles-logged", () => {
    const places = greasedSpindles(getMachine(db, args.machineId).machine).map(({ id }) => id);
    const { machineId } = args;
    audit(db, doing, { action: "spindles-logged", subject: `machine:${machineId}`, detail: { kind: args.kind } });
    if (args.kind === "moved") {
      const { moves } = args;
      if (!isRotation(moves, places)) throw new AppError("invalid", { issues: [{ code: "not-a-rotation", path: ["moves"] }] });
      const entryId = insertRow(db, doing, { machineId, kind: "moved", moves });
      for (const place of Object.keys(moves)) if (moves[place] !== place) insertApart(db, doing, { machineId, place, entryId });
      return { entryIds: [entryId] };
    }
    const unknown = args.places.filter((place) => !places.includes(place));
    if (unknown.length > 0)
      throw new AppError("invalid", { issues: unknown.map((place) => ({ code: "unknown-spindle", path: ["places"], place })) });
    return { entryIds: insertSpindleDeeds(db, doing, { ...args, kind: args.kind }) };
  });
}

/**
 * Takes an entry back by a further one, with what it wrote on the machine's log; the first stays. Throws `nothing-to-undo`, and `invalid` where somebody else's
 * reason why the machine may not run goes with it and none of substance is given.
 */
export function takeBackSpindleEntry(
  db: Db,
  doing: Doing,
  args: { machineId: string; entryId: number; reason?: string | undefined },
): { entryId: number } {
  return once(db, doing, "spindle-entry-taken-back", () => {
    const log = listSpindleLog(db, args.machineId);
    const entry = log.find(({ id }) => id === args.entryId);
    if (!entry) throw new AppError("nothing-to-undo");
    const takenBack = takeBackRow(db, doing, args);
    audit(db, doing, { action: "spindle-entry-taken-back", subject: `machine:${args.machineId}`, detail: { entryId: args.entryId } });
    // The last of those that were written as one: with it goes the line of service.
    const { serviceEntryId } = entry;
    if (serviceEntryId !== undefined && log.every((one) => one.id === entry.id || one.serviceEntryId !== serviceEntryId))
      insertServiceTakenBack(db, doing, { machineId: args.machineId, serviceEntryId });
    return { entryId: takenBack };
  });
}

/** One line taken back, with what it wrote on the machine's log. Inside a transaction. */
function takeBackRow(db: Db, doing: Doing, args: { machineId: string; entryId: number; reason?: string | undefined }): number {
  const { machineId, entryId, reason = "" } = args;
  const takenBack = insertRow(db, doing, { machineId, kind: "taken-back", takesBackId: entryId });
  for (const standing of listEvents(db, machineId))
    if (standing.spindleEntryId === entryId) voidStanding(db, doing, { machineId, standing, reason });
  return takenBack;
}

/** Takes back what a line of service wrote here. Inside a transaction. */
export function takeBackOfService(db: Db, doing: Doing, args: { machineId: string; serviceEntryId: number }): void {
  for (const { id, serviceEntryId } of listSpindleLog(db, args.machineId))
    if (serviceEntryId === args.serviceEntryId) takeBackRow(db, doing, { machineId: args.machineId, entryId: id });
}

function insertServiceTakenBack(db: Db, doing: Doing, args: { machineId: string; serviceEntryId: number }): void {
  db.prepare(
    `INSERT INTO service_log (machine_id, kind, what, words, takes_back_id, who, at, seq)
     SELECT machine_id, 'taken-back', what, '', id, ?, ?, ? FROM service_log WHERE id = ?`,
  ).run(doing.who, doing.now, nextSeq(db), args.serviceEntryId);
}
