import type { Db } from "./db";

/** Who does it and when: the clock comes in from outside, so that the demo's history can be written too. */
export type Doing = { who: string; now: string; submissionId?: string /** Of who sends what to where, as it came. */; digest?: string };

/** Adds a line to the audit trail. Inside the transaction of what it tells of. */
export function audit(db: Db, doing: Doing, entry: { action: string; subject: string; detail?: unknown }): void {
  db.prepare("INSERT INTO audit (at, who, action, subject, detail_json) VALUES (?, ?, ?, ?, ?)").run(
    doing.now,
    doing.who,
    entry.action,
    entry.subject,
    JSON.stringify(entry.detail ?? {}),
  );
}
