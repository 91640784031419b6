import { announce, lastStamp, movedSince } from "@/data/store/announce";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import type { Subject } from "@/data/store/reads";
import type { DeedId } from "./deeds";
import { beginExplaining, requireExplained } from "./explained";
import { settleStates } from "./machine-state";

/** What of an answer is written down, and how it is answered again from that: what stands in the record already is not kept twice. */
type Kept<T> = { keep: (answer: T) => unknown; again: (kept: unknown) => T };

type Before = { action: string; answer_json: string; who: string | null; digest: string | null };

/** An id is bound to its person, target and content; of ids from before that was kept, to what was done. */
function isSame(before: Before, doing: Doing, action: string): boolean {
  if (before.action !== action) return false;
  if (before.who !== null && before.who !== doing.who) return false;
  return before.digest === null || before.digest === (doing.digest ?? null);
}

/**
 * Runs a change in one immediate transaction, once for each submission id: the same id again gets the same answer and changes
 * nothing. Throws `submission-reused` when the id was used by another, for another action or with another content, `unknown-person` for
 * initials not on the list, `reason-stands` where a reason that keeps a machine from running would go by a deed that does not do away with it.
 */
export function once<T>(
  db: Db,
  doing: Doing,
  action: DeedId,
  change: () => T,
  kept: Kept<T> = { keep: (answer) => answer, again: (answer) => answer as T },
): T {
  let moved: Subject[] = [];
  let began = 0;
  const work = db.transaction(() => {
    began = lastStamp(db);
    const answer = within();
    moved = movedSince(db, began);
    return answer;
  });
  const within = () => {
    if (!db.prepare("SELECT 1 FROM people WHERE initials = ?").get(doing.who)) throw new AppError("unknown-person");
    const id = doing.submissionId;
    const changed = () => {
      beginExplaining(db);
      const done = change();
      for (const one of settleStates(db, logsMoved(db, began))) requireExplained(db, doing, action, one);
      return done;
    };
    if (id === undefined) return changed();
    const before = db.prepare("SELECT action, answer_json, who, digest FROM submissions WHERE id = ?").get(id) as Before | undefined;
    if (before && !isSame(before, doing, action)) throw new AppError("submission-reused");
    if (before) return kept.again(JSON.parse(before.answer_json));
    const answer = changed();
    db.prepare("INSERT INTO submissions (id, action, answer_json, at, who, digest) VALUES (?, ?, ?, ?, ?, ?)").run(
      id,
      action,
      JSON.stringify(kept.keep(answer)),
      doing.now,
      doing.who,
      doing.digest ?? null,
    );
    return answer;
  };
  const answer = work.immediate();
  announce(moved);
  return answer;
}

const LOG = "log:";
/** Machines whose log was written to since. */
const logsMoved = (db: Db, stamp: number): string[] =>
  movedSince(db, stamp).flatMap((subject) => (subject.startsWith(LOG) ? [subject.slice(LOG.length)] : []));
