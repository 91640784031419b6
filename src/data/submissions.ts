import type { Db } from "./connection";

const DAY = 86_400_000;
/** So long a browser may take to send again what it never got an answer to: a tablet left in a drawer over a holiday. Estimate. */
const KEPT_DAYS = 60;

/** Lets go of answers nobody will ask for again. */
export function pruneSubmissions(db: Db, now: string): void {
  db.prepare("DELETE FROM submissions WHERE at < ?").run(new Date(Date.parse(now) - KEPT_DAYS * DAY).toISOString());
}
