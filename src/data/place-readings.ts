import type { Db } from "./connection";

export type PlaceReading = { at: string; jobId: number; who: string; checkId: string; place: string; quantity: string; value: number };

/** The last readings taken at a place of a machine, the newest first; those of its tips and ends with it. Corrected and undone ones do not count. */
export function readingsAt(db: Db, machineId: string, place: string, limit = 40): PlaceReading[] {
  const rows = db
    .prepare(
      `SELECT t.at, t.job_id, s.who, t.check_id, r.place, r.quantity, r.value FROM takes t JOIN steps s ON s.id = t.step_id JOIN readings r ON r.step_id = t.step_id
       WHERE t.machine_id = ? AND ':' || r.place || ':' LIKE ? ESCAPE '\\'
         AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = t.step_id)
         AND NOT EXISTS (SELECT 1 FROM takes c WHERE c.corrects_step_id = t.step_id AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = c.step_id))
       ORDER BY s.seq DESC, r.id LIMIT ?`,
    )
    .all(machineId, `%:${place.replace(/[\\%_]/g, "\\$&")}:%`, limit) as {
    at: string;
    job_id: number;
    who: string;
    check_id: string;
    place: string;
    quantity: string;
    value: number;
  }[];
  return rows.map(({ job_id, check_id, ...row }) => ({ ...row, jobId: job_id, checkId: check_id }));
}
