import type { ContextId } from "@/core/catalogue";
import type { Machine } from "@/core/machine";
import { tickedSinceProof } from "@/data/job/job-view";
import { getMachine } from "@/data/machine/machines";
import { type Hazards, hazardsOf } from "@/data/machine/site-places";
import { listEvents } from "@/data/record/events-read";
import type { Db } from "@/data/store/db";

/** What a complaint about a machine is taken with: its sheet, what its log says changed, and the jobs open on it. */
export type Intake = {
  machineId: string;
  machine: Machine;
  ticked: ContextId[];
  openJobs: { jobId: number; words: string }[];
  site: string;
  /** What lies in wait where it mows. */
  hazards: Hazards;
};

/** Throws `machine-not-found`. */
export function getIntake(db: Db, machineId: string, now: string): Intake {
  const { machine, site } = getMachine(db, machineId);
  const jobs = db
    .prepare(
      `SELECT j.id, coalesce((SELECT c.words FROM complaints c WHERE c.job_id = j.id ORDER BY c.id LIMIT 1), '') AS words
       FROM jobs j WHERE j.machine_id = ? AND j.state <> 'closed' ORDER BY j.id`,
    )
    .all(machineId) as { id: number; words: string }[];
  return {
    machineId,
    machine,
    ticked: tickedSinceProof(db, { machineId, events: listEvents(db, machineId), openedAt: now }).map(({ context }) => context),
    openJobs: jobs.map(({ id, words }) => ({ jobId: id, words })),
    site,
    hazards: hazardsOf(db, site, now),
  };
}
