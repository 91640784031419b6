import { ensureFeedKey } from "./fleet/feed-key";
import { disownStates, disownUnfit, refoldStates } from "./projections/machine-state";
import { connect, databaseFile } from "./store/connection";
import type { Db } from "./store/db";
import { AppError } from "./store/errors";
import { pruneSubmissions } from "./store/submissions";

/**
 * What is kept beside the log: all of it made anew, who hears how far it has come (`refoldStates`), or left for whoever has opened it (`toFold`): the gate takes
 * none of it before.
 */
type Rebuild = { isFoldedAnew?: boolean; told?: Parameters<typeof refoldStates>[1]; isFoldedLater?: boolean };

/** The record, opened, migrated and with its projections brought up. `file` may be ":memory:". Throws as `connect` does. */
export function openDatabase(file: string, now = new Date().toISOString(), rebuild: Rebuild = {}): Db {
  return connect(file, {
    now,
    ready: (db) => {
      if (rebuild.isFoldedAnew) disownStates(db);
      if (rebuild.isFoldedLater) left.set(db, new Set(disownUnfit(db)));
      else refoldStates(db, rebuild.told);
      ensureFeedKey(db, now);
      pruneSubmissions(db, now);
    },
  });
}

const held = globalThis as typeof globalThis & { zygometerDb?: Db; zygometerToFold?: WeakMap<Db, Set<string>> };
held.zygometerToFold ??= new WeakMap();
const left = held.zygometerToFold;

/** Machines whose state is still to be folded after an opening that left it for later. */
export const toFold = (db: Db): Set<string> => left.get(db) ?? new Set();

/** The server's one connection, opened at first use; one that could not be opened is tried again at the next. */
export function database(): Db {
  if (!held.zygometerDb) {
    // A server answers at once; what is to be folded anew is folded beside it.
    const db = openDatabase(databaseFile(), undefined, process.env.ZYGOMETER_START === "1" ? { isFoldedLater: true } : {});
    held.zygometerDb = db;
    process.once("exit", () => db.close());
  }
  return held.zygometerDb;
}

/** What keeps the record from being opened, as a code; nothing where it is open. */
export function openingTrouble(): AppError | undefined {
  try {
    database();
    return undefined;
  } catch (error) {
    if (error instanceof AppError) return error;
    throw error;
  }
}
