import { assessCheck, checkRow, isOffered } from "@/core/checks";
import { EVENTS, type EventRow } from "@/core/diagnosis";
import { staleReasons } from "@/core/events";
import type { Db } from "./connection";
import { AppError } from "./errors";
import { listEvents } from "./events";
import { getMachine } from "./machines";
import { takesOfJob } from "./takes-read";

const eventRows: readonly EventRow[] = EVENTS;
const DISTURBS = eventRows.filter(({ makesStale }) => makesStale.includes("blade-timing")).map(({ id }) => id as string);

/**
 * Geared blades that were disturbed in this job are turned by hand and found clear before they are run; found to strike, never. Throws
 * `not-safe` with what is wanted. A deck without gears passes.
 */
export function requireTimed(db: Db, job: { id: number; machineId: string; openedAt: string }): void {
  const { machine } = getMachine(db, job.machineId);
  const row = checkRow("blade-timing");
  if (!row || !isOffered(row, machine) || assessCheck("blade-timing", { machine, readings: {} }).kind !== "assessed") return;
  const events = listEvents(db, job.machineId, job.openedAt);
  const take = takesOfJob(db, job.id).findLast(({ checkId }) => checkId === "blade-timing");
  const isStale = take !== undefined && staleReasons({ machine, check: "blade-timing", takenAt: take.at, events }).length > 0;
  if (take && !isStale && (take.verdict === "stop" || take.verdict === "out"))
    throw new AppError("not-safe", { issues: [{ code: "timing-strikes", path: [] }] });
  const wasDisturbed = events.some(({ event }) => DISTURBS.includes(event));
  const isSeen = take !== undefined && !isStale && take.verdict !== "not-enough-readings";
  if (wasDisturbed && !isSeen) throw new AppError("not-safe", { issues: [{ code: "timing-unseen", path: [] }] });
}
