import { allIds, getMachine } from "@/data/machine/machines";
import { toFold } from "@/data/open";
import { foldAnew } from "@/data/projections/machine-state";
import { unlessSpoilt } from "@/data/record/sheets-read";
import { dueOfMachine } from "@/data/service/due";
import { looksOf } from "@/data/service/edge-looks";
import { monthsOf } from "@/data/service/season";
import type { Db } from "@/data/store/db";
import { forgetReads } from "@/data/store/reads";
import { closedJobs } from "./holds";

/** Whoever asks meanwhile is answered first. */
const breath = () => new Promise<void>((resolve) => setImmediate(resolve));

/**
 * Folds what an opening left, machine by machine; answers how many. Until then lists show a machine as it was kept, and the gate folds its log. One that cannot be
 * folded now (the disk full, the record held by another program) stays left, and the note with it.
 */
export async function foldWhatIsLeft(db: Db): Promise<number> {
  const ids = toFold(db);
  let done = 0;
  for (const id of [...ids]) {
    await breath();
    try {
      foldAnew(db, id);
      ids.delete(id);
      done += 1;
    } catch {
      // Said by what is left; the next start goes on from there.
    }
  }
  // What lists kept meanwhile was read from states of the reckoning before.
  if (done > 0) forgetReads(db);
  return done;
}

/**
 * Reads once what lists show of every machine, machine by machine, so that the first page after a start does not read them all at once. What cannot be read is
 * left for the page that says so. `isOver` stops it.
 */
export async function warmUp(db: Db, { now, isOver = () => false }: { now: string; isOver?: () => boolean }): Promise<number> {
  const ids = allIds(db);
  let read = 0;
  const each = async (work: (id: string) => unknown) => {
    for (const id of ids) {
      await breath();
      if (isOver()) return;
      unlessSpoilt(() => work(id));
      read += 1;
    }
  };
  // What one machine's lines are reckoned from of all the others comes first.
  await each((id) => [getMachine(db, id), monthsOf(db, [id], now), looksOf(db, [id])]);
  await each((id) => dueOfMachine(db, getMachine(db, id), now));
  await each((id) => closedJobs(db, now, id));
  return read;
}
