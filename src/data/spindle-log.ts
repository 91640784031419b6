import * as z from "zod";
import { greasedSpindles, isRotation, type SpindleEntry, type SpindleStanding, spindleStandings } from "@/core/service/spindles";
import type { Db } from "./connection";
import { audit, type Doing, once } from "./context";
import { AppError } from "./errors";
import { insertEvent, listEvents, voidStanding } from "./events";
import { meterReadings } from "./hours";
import { getMachine, type MachineRecord } from "./machines";

export const newSpindleEntrySchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.enum(["topped-up", "purged", "bearings-new"]), places: z.array(z.string().max(60)).min(1).max(7) }),
  z.object({ kind: z.literal("moved"), moves: z.record(z.string().max(60), z.string().max(60)) }),
]);

const movesSchema = z.record(z.string(), z.string());

export type SpindleRecord = SpindleEntry & { id: number; who: string };

type Row = { id: number; kind: string; place: string | null; moves_json: string | null; who: string; at: string };

/** What was done to a machine's spindles, oldest first, without what was taken back. */
export function listSpindleLog(db: Db, machineId: string): SpindleRecord[] {
  const rows = db
    .prepare(
      `SELECT l.id, l.kind, l.place, l.moves_json, l.who, l.at FROM spindle_log l WHERE l.machine_id = ? AND l.kind <> 'taken-back'
         AND NOT EXISTS (SELECT 1 FROM spindle_log b WHERE b.takes_back_id = l.id) ORDER BY l.id`,
    )
    .all(machineId) as Row[];
  return rows.map(({ id, kind, place, moves_json, who, at }) =>
    kind === "moved"
      ? { id, kind, moves: movesSchema.parse(JSON.parse(moves_json ?? "{}")), who, at }
      : { id, kind: kind as "topped-up" | "purged" | "bearings-new", place: place ?? "", who, at },
  );
}

/** Writes down what was done. Throws `invalid` for a spindle the machine does not have, or a turning round that leaves one without a place. */
export function logSpindles(
  db: Db,
  doing: Doing,
  args: { machineId: string } & z.output<typeof newSpindleEntrySchema>,
): { entryIds: number[] } {
  return once(db, doing, "spindles-logged", () => {
    const places = greasedSpindles(getMachine(db, args.machineId).machine).map(({ id }) => id);
    const insert = db.prepare("INSERT INTO spindle_log (machine_id, kind, place, moves_json, who, at) VALUES (?, ?, ?, ?, ?, ?)");
    const add = (kind: string, place: string | null, moves: object | null) =>
      Number(insert.run(args.machineId, kind, place, moves && JSON.stringify(moves), doing.who, doing.now).lastInsertRowid);
    const apart = (place: string, spindleEntryId: number) =>
      insertEvent(db, doing, { machineId: args.machineId, event: "spindle-apart", place, data: { spindleEntryId } });
    audit(db, doing, { action: "spindles-logged", subject: `machine:${args.machineId}`, detail: { kind: args.kind } });
    if (args.kind === "moved") {
      if (!isRotation(args.moves, places)) throw new AppError("invalid", { issues: [{ code: "not-a-rotation", path: ["moves"] }] });
      const entryId = add("moved", null, args.moves);
      for (const place of Object.keys(args.moves)) if (args.moves[place] !== place) apart(place, entryId);
      return { entryIds: [entryId] };
    }
    const unknown = args.places.filter((place) => !places.includes(place));
    if (unknown.length > 0)
      throw new AppError("invalid", { issues: unknown.map((place) => ({ code: "unknown-spindle", path: ["places"], place })) });
    // New bearings and other places are work on the spindle: what was read of it before holds no longer.
    return {
      entryIds: [...new Set(args.places)].map((place) => {
        const entryId = add(args.kind, place, null);
        if (args.kind === "bearings-new") apart(place, entryId);
        return entryId;
      }),
    };
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
    if (!listSpindleLog(db, args.machineId).some(({ id }) => id === args.entryId)) throw new AppError("nothing-to-undo");
    const { lastInsertRowid } = db
      .prepare("INSERT INTO spindle_log (machine_id, kind, takes_back_id, who, at) VALUES (?, 'taken-back', ?, ?, ?)")
      .run(args.machineId, args.entryId, doing.who, doing.now);
    for (const standing of listEvents(db, args.machineId))
      if (standing.spindleEntryId === args.entryId)
        voidStanding(db, doing, { machineId: args.machineId, standing, reason: args.reason ?? "" });
    audit(db, doing, { action: "spindle-entry-taken-back", subject: `machine:${args.machineId}`, detail: { entryId: args.entryId } });
    return { entryId: Number(lastInsertRowid) };
  });
}

export function spindlesOf(db: Db, machineId: string, now: string): SpindleStanding[] {
  return spindlesOfRecord(db, getMachine(db, machineId), now);
}

/** The same of a machine that is at hand already. */
export function spindlesOfRecord(db: Db, { id, machine }: Pick<MachineRecord, "id" | "machine">, now: string): SpindleStanding[] {
  if (greasedSpindles(machine).length === 0) return [];
  return spindleStandings({ machine, entries: listSpindleLog(db, id), meter: meterReadings(db, id), now });
}

/** What is due, by spindle: how many hours it is over. */
export function greaseDue(db: Db, machineId: string, now: string): { place: string; what: "top-up" | "purge"; overHours: number }[] {
  return spindlesOf(db, machineId, now).flatMap(({ place, state, next }) =>
    state === "due" && next ? [{ place, what: next.what, overHours: Math.max(0, -next.inHours) }] : [],
  );
}
