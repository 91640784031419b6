import type { Db } from "./db";

/** The next place in the log: one sequence over the steps of all jobs, the events and specifications of all machines, what was written down as service, of sets and of spindles. Inside a transaction. */
export function nextSeq(db: Db): number {
  const { seq } = db
    .prepare(
      `SELECT max((SELECT coalesce(max(seq), 0) FROM steps), (SELECT coalesce(max(seq), 0) FROM machine_sheets), (SELECT coalesce(max(seq), 0) FROM events),
         (SELECT coalesce(max(seq), 0) FROM service_log), (SELECT coalesce(max(seq), 0) FROM set_log), (SELECT coalesce(max(seq), 0) FROM spindle_log)) AS seq`,
    )
    .get() as { seq: number };
  return seq + 1;
}
