import * as z from "zod";
import type { EventId } from "@/core/catalogue";
import type { LoggedEvent } from "@/core/job/staleness";
import type { Db } from "@/data/store/db";
import { ofMachine, whileUnchanged } from "@/data/store/reads";
import { pressureChangeSchema } from "./step-data";

export const eventDataSchema = z.object({
  pressures: z.array(pressureChangeSchema).optional(),
  words: z.string().max(500).optional(),
  droveOn: z.boolean().optional(),
  /** On the site. */
  where: z.string().max(120).optional(),
  /** Written with this entry of the spindle log: it goes when that one is taken back. */
  spindleEntryId: z.number().int().optional(),
});

export type EventRecord = LoggedEvent & {
  id: number;
  words?: string;
  stepId?: number;
  droveOn?: boolean;
  where?: string;
  spindleEntryId?: number;
};

type Row = {
  id: number;
  event: EventId;
  place: string | null;
  data_json: string;
  step_id: number | null;
  who: string;
  at: string;
  seq: number;
};

const SELECT = "SELECT e.id, e.event, e.place, e.data_json, e.step_id, e.who, e.at, e.seq FROM events e";
const STANDS = `e.voids_id IS NULL AND NOT EXISTS (SELECT 1 FROM events v WHERE v.voids_id = e.id)
  AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = e.step_id)`;

/** A machine's log without what was undone or voided, in its order; `sinceSeq` leaves earlier ones out. */
export function listEvents(db: Db, machineId: string, sinceSeq = 0): EventRecord[] {
  return whileUnchanged(
    db,
    `events ${machineId} ${sinceSeq}`,
    () =>
      (db.prepare(`${SELECT} WHERE e.machine_id = ? AND e.seq >= ? AND ${STANDS} ORDER BY e.seq`).all(machineId, sinceSeq) as Row[]).map(
        fromRow,
      ),
    { on: ofMachine(machineId, "log"), size: "middling" },
  );
}

/** Runs that were taken back: a machine that was run is not safe again by saying it was not. */
export function listTakenBackRuns(db: Db, machineId: string, sinceSeq = 0): EventRecord[] {
  return (
    db
      .prepare(
        `${SELECT} WHERE e.machine_id = ? AND e.seq >= ? AND e.event = 'run' AND e.voids_id IS NULL AND NOT (${STANDS}) ORDER BY e.seq`,
      )
      .all(machineId, sinceSeq) as Row[]
  ).map(fromRow);
}

function fromRow(row: Row): EventRecord {
  const { pressures, words, droveOn, where, spindleEntryId } = eventDataSchema.parse(JSON.parse(row.data_json));
  return {
    id: row.id,
    seq: row.seq,
    event: row.event,
    at: row.at,
    who: row.who,
    ...(row.place === null ? {} : { place: row.place }),
    ...(row.step_id === null ? {} : { stepId: row.step_id }),
    ...(pressures ? { pressures } : {}),
    ...(words ? { words } : {}),
    ...(where ? { where } : {}),
    ...(droveOn === undefined ? {} : { droveOn }),
    ...(spindleEntryId === undefined ? {} : { spindleEntryId }),
  };
}
