import type { Db } from "./db";
import type { Subject } from "./reads";

type Listener = (moved: readonly Subject[]) => void;

/** One list for the whole process: routes may each come with a copy of this module. */
const held = globalThis as typeof globalThis & { zygometerListeners?: Set<Listener> };

function listeners(): Set<Listener> {
  held.zygometerListeners ??= new Set();
  return held.zygometerListeners;
}

/**
 * Tells every open screen what a change wrote to, once it is in the record. A screen whose line is dead is let go: what was written stands, whoever could not be
 * told of it.
 */
export function announce(moved: readonly Subject[]): void {
  if (moved.length === 0) return;
  for (const listener of [...listeners()])
    try {
      listener(moved);
    } catch {
      listeners().delete(listener);
    }
}

/** Hears of everything that is written, until the answer is called. */
export function listen(listener: Listener): () => void {
  listeners().add(listener);
  return () => listeners().delete(listener);
}

/** How far the record's stamps have come. */
export const lastStamp = (db: Db): number => (db.prepare("SELECT coalesce(max(n), 0) AS n FROM stamps").get() as { n: number }).n;

/** What was written to since. */
export const movedSince = (db: Db, stamp: number): Subject[] =>
  (db.prepare("SELECT subject FROM stamps WHERE n > ? ORDER BY n").all(stamp) as { subject: Subject }[]).map(({ subject }) => subject);
