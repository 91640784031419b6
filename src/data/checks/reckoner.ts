import type { CheckId } from "@/core/catalogue";
import { getMachine, type MachineRecord } from "@/data/machine/machines";
import type { Db } from "@/data/store/db";
import { type CheckContexts, checkContexts } from "./check-context";
import { lastKept } from "./last-kept";

export type ReckonerView = {
  machine: MachineRecord;
  contexts: CheckContexts;
  /** By check: what of this machine's last readings stays true. */
  lastKept: Partial<Record<CheckId, object>>;
  /** Open jobs of the machine, each with its last step: what was reckoned can be taken to one. */
  jobs: { id: number; lastStepId: number; words: string }[];
};

/** What a worksheet without a job knows of a machine. Throws `machine-not-found`. */
export function getReckonerView(db: Db, machineId: string, now: string): ReckonerView {
  const jobs = db
    .prepare(
      `SELECT j.id, (SELECT max(s.id) FROM steps s WHERE s.job_id = j.id) AS last_step_id,
         coalesce((SELECT c.words FROM complaints c WHERE c.job_id = j.id ORDER BY c.id LIMIT 1), '') AS words
       FROM jobs j WHERE j.machine_id = ? AND j.state <> 'closed' ORDER BY j.id`,
    )
    .all(machineId) as { id: number; last_step_id: number | null; words: string }[];
  return {
    machine: getMachine(db, machineId),
    contexts: checkContexts(db, { machineId, now }),
    lastKept: lastKept(db, machineId),
    jobs: jobs.map(({ id, last_step_id, words }) => ({ id, lastStepId: last_step_id ?? 0, words })),
  };
}
