import type { Db } from "./db";
import { AppError } from "./errors";

const DAY = 86_400_000;
/** So long a browser may take to send again what it never got an answer to: a tablet left in a drawer over a holiday. Estimate. */
const KEPT_DAYS = 60;

/** Whether what was sent under an id was done, and what it answered then. Throws `submission-not-found`, also for another's. */
export function submissionOf(db: Db, args: { id: string; who: string }): { action: string; answer: unknown } {
  const row = db.prepare("SELECT action, answer_json FROM submissions WHERE id = ? AND who = ?").get(args.id, args.who) as
    | { action: string; answer_json: string }
    | undefined;
  if (!row) throw new AppError("submission-not-found");
  return { action: row.action, answer: JSON.parse(row.answer_json) };
}

/** Lets go of answers nobody will ask for again. */
export function pruneSubmissions(db: Db, now: string): void {
  db.prepare("DELETE FROM submissions WHERE at < ?").run(new Date(Date.parse(now) - KEPT_DAYS * DAY).toISOString());
}
