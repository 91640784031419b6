import * as z from "zod";
import { physicalOrNought } from "@/core/basics/units/physical";
import { once } from "@/data/projections/context";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError, type Issue } from "@/data/store/errors";
import { ofMachine, whileUnchanged } from "@/data/store/reads";

const HOUR = 3_600_000;
/** A meter cannot run faster than the clock; a clock a little off, and one read before the machine was last logged, are let pass. */
const SLACK_HOURS = 24;
/** More than any meter shows. */
const MOST_HOURS = 200_000;

type Row = { id: number; meter_hours: number; offset_hours: number; corrects_id: number | null; at: string };
/** A reading of the meter that stands: a correction in the place, and at the hour, of what it corrects. */
type Standing = Row & { rootId: number };

/** Readings that stand, in the order they were first read in. */
function standingHours(db: Db, machineId: string): Standing[] {
  const rows = db
    .prepare("SELECT id, meter_hours, offset_hours, corrects_id, at FROM hours WHERE machine_id = ? ORDER BY id")
    .all(machineId) as Row[];
  const byId = new Map(rows.map((row) => [row.id, row]));
  const corrected = new Set(rows.map(({ corrects_id }) => corrects_id));
  const rootOf = (row: Row): Row => {
    const before = row.corrects_id === null ? undefined : byId.get(row.corrects_id);
    return before ? rootOf(before) : row;
  };
  return rows
    .filter(({ id }) => !corrected.has(id))
    .map((row) => ({ ...row, rootId: rootOf(row).id, at: rootOf(row).at }))
    .sort((a, b) => a.rootId - b.rootId);
}

/** The machine's hours as they were read, all its meters together, one after the other; a correction stands where, and when, its slip stood. */
export function meterReadings(db: Db, machineId: string): { at: string; meterHours: number }[] {
  return whileUnchanged(
    db,
    `meter of ${machineId}`,
    () => standingHours(db, machineId).map(({ at, meter_hours, offset_hours }) => ({ at, meterHours: meter_hours + offset_hours })),
    { on: ofMachine(machineId, "hours") },
  );
}

function requireMachine(db: Db, machineId: string): void {
  if (!db.prepare("SELECT 1 FROM machines WHERE id = ?").get(machineId)) throw new AppError("machine-not-found");
}

/**
 * Logs the hour meter. Throws `invalid` when it runs backwards, a correction when it runs behind the reading before the slip, or faster than hours went
 * by and nobody is sure: a digit too many makes every service overdue, one too few makes what is overdue good.
 */
export function logHours(
  db: Db,
  doing: Doing,
  args: { machineId: string; meterHours: number; isCorrection: boolean; isSure?: boolean | undefined },
): { hoursId: number } {
  return once(db, doing, "hours-logged", () => {
    requireMachine(db, args.machineId);
    const standing = standingHours(db, args.machineId);
    const last = standing.at(-1);
    const swap = args.isCorrection && last ? swapBegunBy(db, last.rootId) : undefined;
    // The first figure of a new meter follows no other of that meter.
    const before = args.isCorrection ? (swap ? undefined : standing.at(-2)) : last;
    const problem = hoursProblem(doing, { ...args, before });
    if (problem) throw new AppError("invalid", { issues: [problem] });
    const offsetHours = swap && last ? last.offset_hours + last.meter_hours - args.meterHours : (last?.offset_hours ?? 0);
    const hoursId = insertHours(db, doing, { ...args, offsetHours, correctsId: args.isCorrection ? last?.id : undefined });
    return { hoursId };
  });
}

/** Writes a reading of the meter. Inside a transaction. `at`: when it was read, where that is not now. */
export function insertHours(
  db: Db,
  doing: Doing,
  args: { machineId: string; meterHours: number; offsetHours?: number; correctsId?: number | undefined; at?: string },
): number {
  const { lastInsertRowid } = db
    .prepare("INSERT INTO hours (machine_id, meter_hours, corrects_id, offset_hours, who, at) VALUES (?, ?, ?, ?, ?, ?)")
    .run(args.machineId, args.meterHours, args.correctsId ?? null, args.offsetHours ?? 0, doing.who, args.at ?? doing.now);
  audit(db, doing, { action: "hours-logged", subject: `machine:${args.machineId}`, detail: { meterHours: args.meterHours } });
  return Number(lastInsertRowid);
}

export const meterSwapSchema = z.object({
  /** What the old one showed when it came out, and the new one when it went in. */
  oldHours: physicalOrNought("hours", MOST_HOURS),
  newHours: physicalOrNought("hours", MOST_HOURS),
  isSure: z.boolean().optional(),
  /** The swap that stands, where this is a further one and not the same told twice. */
  seenSwapId: z.number().int().optional(),
});

export type MeterSwap = { id: number; who: string; at: string; oldHours: number; newHours: number };

const SWAPS = `SELECT s.id, s.who, s.at, s.before_hours_id, s.old_hours_id, s.new_hours_id FROM meter_swaps s
  WHERE NOT EXISTS (SELECT 1 FROM meter_swaps_taken_back b WHERE b.swap_id = s.id)`;
type SwapRow = { id: number; who: string; at: string; before_hours_id: number | null; old_hours_id: number | null; new_hours_id: number };

const swapBegunBy = (db: Db, hoursId: number): SwapRow | undefined =>
  db.prepare(`${SWAPS} AND s.new_hours_id = ?`).get(hoursId) as SwapRow | undefined;
const lastSwapRow = (db: Db, machineId: string): SwapRow | undefined =>
  db.prepare(`${SWAPS} AND s.machine_id = ? ORDER BY s.id DESC LIMIT 1`).get(machineId) as SwapRow | undefined;

/** The last swap of a machine's meter that stands. */
export function lastMeterSwap(db: Db, machineId: string): MeterSwap | undefined {
  const swap = lastSwapRow(db, machineId);
  if (!swap) return undefined;
  const hours = (id: number | null) =>
    (db.prepare("SELECT meter_hours AS hours FROM hours WHERE id = ?").get(id) as { hours: number } | undefined)?.hours ?? 0;
  const { id, who, at } = swap;
  return { id, who, at, oldHours: hours(swap.old_hours_id ?? swap.before_hours_id), newHours: hours(swap.new_hours_id) };
}

/**
 * Another hour meter is fitted: the machine's hours go on where the old one stopped. Throws `invalid` with `hours-run-backwards`, `hours-run-too-fast` unless
 * it is sure, and `meter-swapped-already` for a swap within a day of another, or with no reading since that, unless that one was seen.
 */
export function swapMeter(
  db: Db,
  doing: Doing,
  args: { machineId: string } & z.output<typeof meterSwapSchema>,
): { hoursId: number; totalHours: number; swapId: number } {
  return once(db, doing, "meter-swapped", () => {
    const { machineId, oldHours, newHours } = args;
    requireMachine(db, machineId);
    const last = standingHours(db, machineId).at(-1);
    refuseSwappedTwice(db, doing, { ...args, last });
    const problem = hoursProblem(doing, { meterHours: oldHours, before: last, isSure: args.isSure });
    if (problem) throw new AppError("invalid", { issues: [{ ...problem, path: ["oldHours"] }] });
    const totalHours = oldHours + (last?.offset_hours ?? 0);
    const oldId =
      last?.meter_hours === oldHours
        ? undefined
        : insertHours(db, doing, { machineId, meterHours: oldHours, offsetHours: last?.offset_hours ?? 0 });
    const hoursId = insertHours(db, doing, { machineId, meterHours: newHours, offsetHours: totalHours - newHours });
    const { lastInsertRowid } = db
      .prepare("INSERT INTO meter_swaps (machine_id, before_hours_id, old_hours_id, new_hours_id, who, at) VALUES (?, ?, ?, ?, ?, ?)")
      .run(machineId, last?.id ?? null, oldId ?? null, hoursId, doing.who, doing.now);
    audit(db, doing, { action: "meter-swapped", subject: `machine:${machineId}`, detail: { oldHours, newHours } });
    return { hoursId, totalHours, swapId: Number(lastInsertRowid) };
  });
}

/** Two who write the same swap down swap it once. */
function refuseSwappedTwice(
  db: Db,
  doing: Doing,
  { machineId, seenSwapId, last }: { machineId: string; seenSwapId?: number | undefined; last: Standing | undefined },
): void {
  const swap = lastSwapRow(db, machineId);
  if (!swap || swap.id === seenSwapId) return;
  const isLately = Math.abs(Date.parse(doing.now) - Date.parse(swap.at)) < SLACK_HOURS * HOUR;
  const isUnread = last?.rootId === swap.new_hours_id;
  if (isLately || isUnread)
    throw new AppError("invalid", {
      issues: [{ code: "meter-swapped-already", path: ["oldHours"], by: swap.who, at: swap.at, swapId: swap.id }],
    });
}

/**
 * Takes the last swap of a meter back: the meter goes on as it stood before it, and what was read since is read on that meter. Throws `nothing-to-undo` where
 * it is not the last one that stands.
 */
export function takeBackMeterSwap(db: Db, doing: Doing, args: { machineId: string; swapId: number }): { swapId: number } {
  return once(db, doing, "meter-swap-taken-back", () => {
    const { machineId, swapId } = args;
    const swap = lastSwapRow(db, machineId);
    if (swap?.id !== swapId) throw new AppError("nothing-to-undo");
    const standing = standingHours(db, machineId);
    const begun = standing.findIndex(({ rootId }) => rootId === swap.new_hours_id);
    const first = standing[begun];
    if (!first) throw new AppError("nothing-to-undo");
    const old = standing.find(({ rootId }) => rootId === swap.old_hours_id);
    const before = standing.filter(({ rootId }) => rootId < (swap.old_hours_id ?? swap.new_hours_id)).at(-1);
    const [meterHours, offsetHours] = before
      ? [before.meter_hours, before.offset_hours]
      : [old?.meter_hours ?? first.meter_hours, old?.offset_hours ?? 0];
    const added = first.offset_hours - offsetHours;
    for (const row of old ? [old, first] : [first])
      insertHours(db, doing, { machineId, meterHours, offsetHours, correctsId: row.id, at: row.at });
    for (const row of standing.slice(begun + 1))
      insertHours(db, doing, {
        ...{ machineId, meterHours: row.meter_hours, offsetHours: row.offset_hours - added },
        ...{ correctsId: row.id, at: row.at },
      });
    db.prepare("INSERT INTO meter_swaps_taken_back (swap_id, who, at) VALUES (?, ?, ?)").run(swapId, doing.who, doing.now);
    audit(db, doing, { action: "meter-swap-taken-back", subject: `machine:${machineId}`, detail: { swapId } });
    return { swapId };
  });
}

export const hoursImportSchema = z.object({
  rows: z
    .array(z.object({ fleetNumber: z.string().trim().min(1).max(20), meterHours: physicalOrNought("hours", MOST_HOURS) }))
    .min(1, "nothing-set")
    .max(1000),
  isSure: z.boolean().optional(),
});

/**
 * Hour meters of many machines at once: all rows are written, or none. Throws `invalid` with an issue at every row that cannot be: `unknown-machine`,
 * `hours-run-backwards`, `hours-run-too-fast` unless it is sure, `machine-twice`.
 */
export function importHours(db: Db, doing: Doing, args: z.output<typeof hoursImportSchema>): { hoursIds: number[] } {
  return once(db, doing, "hours-imported", () => {
    const issues: Issue[] = [];
    const seen = new Set<string>();
    const hoursIds = args.rows.flatMap(({ fleetNumber, meterHours }, k): number[] => {
      const at = (code: string, detail: object = {}) => issues.push({ code, path: ["rows", k, "meterHours"], fleetNumber, ...detail });
      const found = db.prepare("SELECT id FROM machines WHERE fleet_number = ? COLLATE NOCASE").get(fleetNumber) as
        | { id: string }
        | undefined;
      if (!found) {
        at("unknown-machine");
        return [];
      }
      if (seen.has(found.id)) at("machine-twice");
      seen.add(found.id);
      const before = standingHours(db, found.id).at(-1);
      const problem = hoursProblem(doing, { meterHours, before, isSure: args.isSure });
      if (problem) issues.push({ ...problem, path: ["rows", k, "meterHours"], fleetNumber });
      return issues.length > 0 ? [] : [insertHours(db, doing, { machineId: found.id, meterHours, offsetHours: before?.offset_hours ?? 0 })];
    });
    if (issues.length > 0) throw new AppError("invalid", { issues });
    return { hoursIds };
  });
}

/** What is wrong with a reading of the hour meter after the one before it, if anything. */
function hoursProblem(
  doing: Doing,
  args: { meterHours: number; before: Standing | undefined; isSure?: boolean | undefined },
): Issue | undefined {
  const { meterHours, before } = args;
  if (before === undefined) return undefined;
  const beforeHours = before.meter_hours;
  if (meterHours < beforeHours) return { code: "hours-run-backwards", path: ["meterHours"], beforeHours };
  const gone = Math.max(0, Date.parse(doing.now) - Date.parse(before.at)) / HOUR + SLACK_HOURS;
  if (meterHours - beforeHours > gone && args.isSure !== true)
    return { code: "hours-run-too-fast", path: ["meterHours"], beforeHours, goneHours: Math.max(0, Math.round(gone)) };
  return undefined;
}
