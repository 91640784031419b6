import * as z from "zod";
import type { ServiceEntry } from "@/core/fleet/service/standings";
import { TASK_IDS } from "@/core/fleet/service/tasks";
import { getMachine } from "@/data/machine/machines";
import { audit, type Doing } from "@/data/store/audit";
import { localDay } from "@/data/store/clock";
import { dayText, isTooFar } from "@/data/store/days";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { nextSeq } from "@/data/store/sequence";

export const what = z.enum(TASK_IDS);
export const words = z.string().trim().max(500).default("");
/** Only there; all over the machine where none are named. */
export const places = z.array(z.string().max(60)).min(1, "pick-places").max(20).optional();

export const postponeSchema = z.object({ what, untilDay: dayText, words: z.string().trim().min(1, "say-why").max(500), places });

type NewEntry = {
  machineId: string;
  kind: string;
  what: string;
  words: string;
  untilDay?: string;
  places?: readonly string[] | undefined;
  owedId?: number;
  roundId?: number | undefined;
  takesBackId?: number;
};

/** One more line of a machine's service, at the end of the one log. Inside a transaction. */
export function insertEntry(db: Db, doing: Doing, args: NewEntry): number {
  const { lastInsertRowid } = db
    .prepare(
      `INSERT INTO service_log (machine_id, kind, what, until_day, words, places_json, owed_id, round_id, takes_back_id, who, at, seq)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    )
    .run(
      args.machineId,
      args.kind,
      args.what,
      args.untilDay ?? null,
      args.words,
      args.places ? JSON.stringify(args.places) : null,
      args.owedId ?? null,
      args.roundId ?? null,
      args.takesBackId ?? null,
      doing.who,
      doing.now,
      nextSeq(db),
    );
  audit(db, doing, {
    action: `service-${args.kind}`,
    subject: `machine:${args.machineId}`,
    detail: { what: args.what, words: args.words, ...(args.places ? { places: args.places } : {}) },
  });
  return Number(lastInsertRowid);
}

/** Throws `invalid` with `day-gone` or `date-too-far` for a day that nothing can be put off to. */
export function requireDayToCome(untilDay: string, doing: Doing): void {
  if (untilDay <= localDay(doing.now)) throw new AppError("invalid", { issues: [{ code: "day-gone", path: ["untilDay"] }] });
  if (isTooFar(untilDay, doing.now)) throw new AppError("invalid", { issues: [{ code: "date-too-far", path: ["untilDay"] }] });
}

type EntryRow = {
  id: number;
  machine_id: string;
  kind: ServiceEntry["kind"];
  what: string;
  until_day: string | null;
  words: string;
  places_json: string | null;
  owed_id: number | null;
  round_id: number | null;
  who: string;
  at: string;
  seq: number;
};
export type EntryRecord = ServiceEntry & { machineId: string; roundId?: number };

const ENTRIES = `SELECT l.id, l.machine_id, l.kind, l.what, l.until_day, l.words, l.places_json, l.owed_id, l.round_id, l.who, l.at, l.seq FROM service_log l
  WHERE l.kind <> 'taken-back' AND NOT EXISTS (SELECT 1 FROM service_log b WHERE b.takes_back_id = l.id)`;
const entryOf = (row: EntryRow): EntryRecord => ({
  id: row.id,
  machineId: row.machine_id,
  kind: row.kind,
  what: row.what,
  words: row.words,
  who: row.who,
  at: row.at,
  seq: row.seq,
  ...(row.until_day === null ? {} : { untilDay: row.until_day }),
  ...(row.places_json === null ? {} : { places: z.array(z.string()).parse(JSON.parse(row.places_json)) }),
  ...(row.owed_id === null ? {} : { owedId: row.owed_id }),
  ...(row.round_id === null ? {} : { roundId: row.round_id }),
});

/** What was written down as service of one machine, oldest first, without what was taken back. */
export function serviceEntries(db: Db, machineId: string): EntryRecord[] {
  return (db.prepare(`${ENTRIES} AND l.machine_id = ? ORDER BY l.id`).all(machineId) as EntryRow[]).map(entryOf);
}

/** So many of a day are shown: whoever did more goes to the machine. */
const OF_A_DAY = 30;

/** What was written down today over the fleet and stands, the last first. */
export function entriesToday(db: Db, now: string): (EntryRecord & { fleetNumber: string })[] {
  const rows = db.prepare(`${ENTRIES} ORDER BY l.id DESC LIMIT ${OF_A_DAY}`).all() as EntryRow[];
  return rows
    .filter(({ at }) => localDay(at) === localDay(now))
    .map((row) => ({ ...entryOf(row), fleetNumber: getMachine(db, row.machine_id).fleetNumber }));
}

/** Done, looked at again, put off: more of one task say nothing of today; of its places, at each of them. */
const LAST_ENTRIES = 4;
const LAST_AT_PLACES = 40;

/** Of each task what says how it stands: when it was last done, and whether it was put off. */
export function lastEntries(db: Db, machineId: string): EntryRecord[] {
  const last = (where: string, limit: number) =>
    db.prepare(`${ENTRIES} AND l.machine_id = ? AND l.what = ? AND l.places_json ${where} ORDER BY l.id DESC LIMIT ${limit}`);
  const [everywhere, somewhere] = [last("IS NULL", LAST_ENTRIES), last("IS NOT NULL", LAST_AT_PLACES)];
  return TASK_IDS.flatMap((id) => [...(everywhere.all(machineId, id) as EntryRow[]), ...(somewhere.all(machineId, id) as EntryRow[])])
    .map(entryOf)
    .sort((a, b) => a.id - b.id);
}

/** What was written down of things owed and stands, by what they are owed under; of one machine, or of all. */
export function entriesOfOwed(db: Db, machineId?: string): Map<number, EntryRecord[]> {
  const sql = (own: string) => `${ENTRIES} AND l.owed_id IS NOT NULL ${own} ORDER BY l.id`;
  const rows = (machineId === undefined ? db.prepare(sql("")).all() : db.prepare(sql("AND l.machine_id = ?")).all(machineId)) as EntryRow[];
  const found = new Map<number, EntryRecord[]>();
  for (const row of rows) found.set(row.owed_id ?? 0, [...(found.get(row.owed_id ?? 0) ?? []), entryOf(row)]);
  return found;
}
