import { STEP_DATA } from "@/data/record/step-data";
import { listOwed, type Owed } from "@/data/service/owed";
import type { Db } from "@/data/store/db";
import { grouped } from "@/data/store/grouped";

/** A part or box that left without its machine, with what is still owed on it. */
export type Away = { stepId: number; jobId: number; machineId: string; what: string; to: string; who: string; at: string; owed: Owed[] };

/** What left the bay and is not back: handed over, and something owed on it not done. The longest away first. */
export function awayNow(db: Db): Away[] {
  const owed = listOwed(db).filter(({ code }) => code === "handed-over");
  const rows = db
    .prepare(
      `SELECT s.id, s.job_id, j.machine_id, s.data_json, s.who, s.at FROM steps s JOIN jobs j ON j.id = s.job_id
       WHERE s.id IN (SELECT o.step_id FROM owed o WHERE o.code = 'handed-over' AND o.done_at IS NULL)
         AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = s.id) ORDER BY s.seq`,
    )
    .all() as { id: number; job_id: number; machine_id: string; data_json: string; who: string; at: string }[];
  return rows.flatMap(({ id, job_id, machine_id, data_json, who, at }) => {
    const { what, to } = STEP_DATA.handover.parse(JSON.parse(data_json));
    const own = owed.filter(
      (one) => one.jobId === job_id && one.detail !== undefined && "what" in one.detail && one.detail.what === what && one.detail.to === to,
    );
    return own.length > 0 ? [{ stepId: id, jobId: job_id, machineId: machine_id, what, to, who, at, owed: own }] : [];
  });
}

/** Machines that went out with something still owed: what, and by when. Soonest first. */
export function owedByMachine(db: Db): { machineId: string; owed: Owed[] }[] {
  const owing = listOwed(db).filter(({ code }) => code !== "handed-over");
  return [...grouped(owing, ({ machineId }) => [machineId])].map(([machineId, owed]) => ({ machineId, owed }));
}
