import * as z from "zod";
import { hasTask, TASK_IDS, type TaskId, taskRow } from "@/core/fleet/service/tasks";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { audit, type Doing } from "@/data/store/audit";
import { localDay } from "@/data/store/clock";
import { dayText } from "@/data/store/days";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";

export const newRoundSchema = z.object({
  what: z.enum(TASK_IDS),
  title: z.string().trim().min(1, "say-what").max(80),
  /** To be through by that day. */
  byDay: dayText,
  machines: z.array(z.string().max(60)).min(1, "pick-machines").max(400),
  /** Looked at once more so many days after it was done: bolts after their first run. */
  recheckDays: z.number().min(0.5).max(60).optional(),
});

/** A round of one task over many machines. Throws `machine-not-found`, and `invalid` with `not-of-this-sort` for a machine without that task. */
export function addRound(db: Db, doing: Doing, args: z.output<typeof newRoundSchema>): { roundId: number } {
  return once(db, doing, "round-added", () => {
    const machines = [...new Set(args.machines)];
    const task = taskRow(args.what);
    const without = machines.filter((id) => !task || !hasTask(task, getMachine(db, id).machine));
    if (without.length > 0)
      throw new AppError("invalid", { issues: without.map((id) => ({ code: "not-of-this-sort", path: ["machines"], machine: id })) });
    if (task?.isCounted) throw new AppError("invalid", { issues: [{ code: "counted-in-a-job", path: ["what"] }] });
    if (args.byDay < localDay(doing.now)) throw new AppError("invalid", { issues: [{ code: "day-gone", path: ["byDay"] }] });
    const { lastInsertRowid } = db
      .prepare("INSERT INTO rounds (what, title, by_day, machines_json, recheck_days, who, at) VALUES (?, ?, ?, ?, ?, ?, ?)")
      .run(args.what, args.title, args.byDay, JSON.stringify(machines), args.recheckDays ?? null, doing.who, doing.now);
    audit(db, doing, { action: "round-added", subject: `round:${lastInsertRowid}`, detail: args });
    return { roundId: Number(lastInsertRowid) };
  });
}

export type RoundLine = {
  machineId: string;
  fleetNumber: string;
  name: string;
  site: string;
  done?: { entryId: number; at: string; who: string };
  /** Looked at once more after it was done: when that is owed, and when it was. */
  recheck?: { dueAt: string; done?: { entryId: number; at: string; who: string } };
};
export type RoundRecord = {
  id: number;
  what: TaskId;
  title: string;
  byDay: string;
  recheckDays?: number;
  who: string;
  at: string;
  lines: RoundLine[];
};

type Row = {
  id: number;
  what: TaskId;
  title: string;
  by_day: string;
  machines_json: string;
  recheck_days: number | null;
  who: string;
  at: string;
};
type Entry = { id: number; machine_id: string; kind: "done" | "rechecked"; at: string; who: string };

const DAY = 86_400_000;

function fromRow(db: Db, row: Row): RoundRecord {
  const entries = db
    .prepare(
      `SELECT l.id, l.machine_id, l.kind, l.at, l.who FROM service_log l WHERE l.round_id = ? AND l.kind IN ('done', 'rechecked')
       AND NOT EXISTS (SELECT 1 FROM service_log b WHERE b.takes_back_id = l.id) ORDER BY l.id`,
    )
    .all(row.id) as Entry[];
  const said = (machineId: string, kind: Entry["kind"]) => {
    const entry = entries.findLast((one) => one.machine_id === machineId && one.kind === kind);
    return entry && { entryId: entry.id, at: entry.at, who: entry.who };
  };
  const lines = (JSON.parse(row.machines_json) as string[]).flatMap((machineId): RoundLine[] => {
    const { fleetNumber, name, site, retired } = getMachine(db, machineId);
    const done = said(machineId, "done");
    // Out of the fleet since, and not done by then: nobody waits for it.
    if (retired && !done) return [];
    const again = said(machineId, "rechecked");
    const line: RoundLine = {
      machineId,
      fleetNumber,
      name,
      site,
      ...(done ? { done } : {}),
      ...(done && row.recheck_days !== null
        ? {
            recheck: {
              dueAt: new Date(Date.parse(done.at) + row.recheck_days * DAY).toISOString(),
              ...(again ? { done: again } : {}),
            },
          }
        : {}),
    };
    return [line];
  });
  return {
    id: row.id,
    what: row.what,
    title: row.title,
    byDay: row.by_day,
    ...(row.recheck_days === null ? {} : { recheckDays: row.recheck_days }),
    who: row.who,
    at: row.at,
    lines,
  };
}

/** A round with every machine of it. Throws `round-not-found`. */
export function getRound(db: Db, id: number): RoundRecord {
  const row = db.prepare("SELECT * FROM rounds WHERE id = ?").get(id) as Row | undefined;
  if (!row) throw new AppError("round-not-found");
  return fromRow(db, row);
}

/** The last rounds, the newest first. */
export function listRounds(db: Db, limit = 30): RoundRecord[] {
  return (db.prepare("SELECT * FROM rounds ORDER BY id DESC LIMIT ?").all(limit) as Row[]).map((row) => fromRow(db, row));
}

/** A round is through when every machine of it was done, and looked at once more where that is asked. */
export const isThrough = ({ lines, recheckDays }: RoundRecord): boolean =>
  lines.every(({ done, recheck }) => done !== undefined && (recheckDays === undefined || recheck?.done !== undefined));
