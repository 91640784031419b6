import { chmodSync, existsSync, mkdirSync, readdirSync, statSync } from "node:fs";
import path from "node:path";
import Database from "better-sqlite3";
import { AppError, ofDriver } from "./errors";
import { ensureFeedKey } from "./feed-key";
import { disownStates, disownUnfit, refoldStates } from "./machine-state";
import { isNewer, migrate } from "./migrate";
import { keepStatements } from "./reads";
import { pruneSubmissions } from "./submissions";

export type Db = Database.Database;

/** Another program's lock is waited for that long, then said; the server answers nobody while it waits. */
const BUSY_MILLISECONDS = 2000;

/**
 * What is kept beside the log: all of it made anew, who hears how far it has come (`refoldStates`), or left for whoever has opened it (`toFold`): the gate takes
 * none of it before.
 */
type Rebuild = { isFoldedAnew?: boolean; told?: Parameters<typeof refoldStates>[1]; isFoldedLater?: boolean };

/**
 * An open, migrated database: WAL, foreign keys on, busy timeout. `file` may be ":memory:". A file that cannot be used is looked at without a
 * change to it. Throws `database-newer`, `record-spoilt`, `record-unreadable`, `record-busy`, `no-room`.
 */
export function openDatabase(file: string, now = new Date().toISOString(), rebuild: Rebuild = {}): Db {
  let db: Db | undefined;
  try {
    if (file !== ":memory:") {
      makeFolder(path.dirname(file));
      if (existsSync(file)) lookInto(file);
    }
    db = keepStatements(new Database(file));
    db.pragma(`busy_timeout = ${BUSY_MILLISECONDS}`);
    db.pragma("journal_mode = WAL");
    db.pragma("synchronous = FULL");
    db.pragma("foreign_keys = ON");
    migrate(db, { now });
    if (rebuild.isFoldedAnew) disownStates(db);
    if (rebuild.isFoldedLater) left.set(db, new Set(disownUnfit(db)));
    else refoldStates(db, rebuild.told);
    ensureFeedKey(db, now);
    pruneSubmissions(db, now);
    if (file !== ":memory:") ownerOnly(file);
    return db;
  } catch (error) {
    db?.close();
    throw ofDriver(error);
  }
}

/**
 * A file larger than this is not read through when it is opened: from a cold disk that takes half a minute (366 MB: 33 s, 0.7 s warm). What is
 * spoilt in it is told when it is met.
 */
const READ_THROUGH_BYTES = 100_000_000;

/** Reads a file without touching it: whether it is a database, whole, and none of a newer application. */
function lookInto(file: string): void {
  const stat = statSync(file);
  if (!stat.isFile()) throw new AppError("record-unreadable");
  const db = new Database(file, { readonly: true, timeout: BUSY_MILLISECONDS });
  try {
    const found = stat.size > READ_THROUGH_BYTES ? "ok" : db.pragma("quick_check(1)", { simple: true });
    if (found !== "ok") throw new AppError("record-spoilt", { cause: new Error(String(found)) });
    if (isNewer(db)) throw new AppError("database-newer");
  } finally {
    db.close();
  }
}

/** A folder this makes, or that holds nothing but what this put there, is its owner's alone; one that is shared with others is left as it is. */
function makeFolder(folder: string): void {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const isOurs = readdirSync(folder).every((name) => name.startsWith("zygometer") || name === "tls");
  if (isOurs) mended(() => chmodSync(folder, 0o700));
}

/** Nobody else on the machine reads the record. */
function ownerOnly(file: string): void {
  for (const end of ["", "-wal", "-shm"]) if (existsSync(file + end)) mended(() => chmodSync(file + end, 0o600));
}

/** What belongs to somebody else keeps the rights it was given. */
function mended(change: () => void): void {
  try {
    change();
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "EPERM") throw error;
  }
}

/** The folder all data is kept in. */
export function dataFolder(): string {
  return path.resolve(/*turbopackIgnore: true*/ process.env.ZYGOMETER_DATA ?? "data");
}

export function databaseFile(): string {
  return path.join(dataFolder(), "zygometer.sqlite");
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

/** The record's own identity: what a browser kept for another record, with the same numbers in it, is not taken up for this one. */
export function recordId(db: Db): string {
  return (db.prepare("SELECT id FROM record").get() as { id: string }).id;
}
