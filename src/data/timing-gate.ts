import { worksheetsFor } from "@/core/checks";
import { EVENTS, type EventRow } from "@/core/diagnosis";
import { staleReasons } from "@/core/events";
import type { Db } from "./connection";
import { AppError } from "./errors";
import { listEvents } from "./events";
import { getMachine } from "./machines";
import { boxStates } from "./rebuild-moves";
import { listSteps } from "./steps";
import { takesOfMachine } from "./takes-read";

const eventRows: readonly EventRow[] = EVENTS;
const DISTURBS = eventRows.filter(({ makesStale }) => makesStale.includes("blade-timing")).map(({ id }) => id as string);

/**
 * Geared blades that were disturbed since the machine last ran, in this job or before it, are turned by hand and found clear before they are
 * run; found to strike, never; nor is a deck with a box apart. Throws `not-safe` with what is wanted. A deck without gears passes.
 */
export function requireTimed(db: Db, job: { id: number; machineId: string; openedAt: string }): void {
  const { machine } = getMachine(db, job.machineId);
  if (!worksheetsFor(machine).some(({ id }) => id === "blade-timing")) return;
  if (boxStates(machine, listSteps(db, job.id)).some(({ where }) => where !== "on")) refuse("box-still-open");
  const events = listEvents(db, job.machineId);
  const [take] = takesOfMachine(db, job.machineId)
    .filter(({ checkId }) => checkId === "blade-timing")
    .sort((a, b) => b.at.localeCompare(a.at));
  const isFresh = take !== undefined && staleReasons({ machine, check: "blade-timing", takenAt: take.at, events }).length === 0;
  if (isFresh && (take.verdict === "stop" || take.verdict === "out")) refuse("timing-strikes");
  const lastRun = events.findLast(({ event, at }) => event === "run" && at < job.openedAt)?.at ?? "";
  const wasDisturbed = events.some(({ event, at }) => at > lastRun && DISTURBS.includes(event));
  if (wasDisturbed && !(isFresh && take.verdict !== "not-enough-readings")) refuse("timing-unseen");
}

function refuse(code: "box-still-open" | "timing-strikes" | "timing-unseen"): never {
  throw new AppError("not-safe", { issues: [{ code, path: [] }] });
}
