import type { Db } from "./connection";

/** The next place in the log: one sequence over the steps of all jobs and the events of all machines. Inside a transaction. */
export function nextSeq(db: Db): number {
  const { seq } = db
    .prepare("SELECT max((SELECT coalesce(max(seq), 0) FROM steps), (SELECT coalesce(max(seq), 0) FROM events)) AS seq")
    .get() as {
    seq: number;
  };
  return seq + 1;
}
