import type { UnitSystem } from "@/core/basics/units";
import type { Machine } from "@/core/machine";
import { type BookLine, sheetChanges } from "@/data/fleet/book";
import { closedJobs } from "@/data/fleet/holds";
import { assessmentsOf } from "@/data/record/takes-read";
import type { Db } from "@/data/store/db";
import { outcomesIn, type Told } from "./book-words";

/** What the words of some lines of a book stand on: of those that are shown their figures, of all what became of their jobs. */
export function toldOf(
  db: Db,
  args: { machineId: string; machine: Machine; system: UnitSystem; all: readonly BookLine[]; shown: readonly BookLine[]; now: string },
): Told {
  const { machineId, machine, system, all, shown, now } = args;
  return {
    machine,
    system,
    assessments: assessmentsOf(
      db,
      shown.flatMap((line) => (line.of === "step" && line.step.kind === "take" ? [line.step.id] : [])),
    ),
    holds: new Map(closedJobs(db, now, machineId).map((job) => [job.jobId, job])),
    outcomes: outcomesIn(all),
    changesOf: (version) => sheetChanges(db, machineId, version),
  };
}
