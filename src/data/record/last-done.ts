import type { Db } from "@/data/store/db";
import { STEP_DATA } from "./step-data";

/** A fix of a machine by the last time it was made. */
export type LastDone = { fix: string; at: string; who: string; jobId: number; units: string[]; words: string };

type Row = { data_json: string; at: string; who: string; job_id: number };

/** Each kind of fix a machine ever had, by its last time, newest first: when were its blades last ground. Undone ones were not made. */
export function lastDone(db: Db, machineId: string): LastDone[] {
  const rows = db
    .prepare(
      `SELECT s.data_json, s.at, s.who, s.job_id, max(s.seq) AS seq FROM steps s JOIN jobs j ON j.id = s.job_id
       WHERE j.machine_id = ? AND s.kind = 'fix' AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = s.id)
       GROUP BY json_extract(s.data_json, '$.fix') ORDER BY seq DESC`,
    )
    .all(machineId) as Row[];
  return rows.map(({ data_json, at, who, job_id }) => {
    const { fix, units = [], words } = STEP_DATA.fix.parse(JSON.parse(data_json));
    return { fix, at, who, jobId: job_id, units, words };
  });
}
