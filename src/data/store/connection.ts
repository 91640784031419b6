import { chmodSync, existsSync, mkdirSync, readdirSync, statSync } from "node:fs";
import path from "node:path";
import Database from "better-sqlite3";
import type { Db } from "./db";
import { AppError, ofDriver } from "./errors";
import { isNewer, migrate } from "./migrate";
import { keepStatements } from "./reads";

/** Another program's lock is waited for that long, then said; the server answers nobody while it waits. */
const BUSY_MILLISECONDS = 2000;

/**
 * An open, migrated database: WAL, foreign keys on, busy timeout. `file` may be ":memory:". A file that cannot be used is looked at without a
 * change to it; what `ready` does is part of the opening, and where it throws the file is closed again. Throws `database-newer`, `record-spoilt`,
 * `record-unreadable`, `record-busy`, `no-room`.
 */
export function connect(file: string, args: { now: string; ready: (db: Db) => void }): Db {
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
    migrate(db, { now: args.now });
    args.ready(db);
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

/** The record's own identity: what a browser kept for another record, with the same numbers in it, is not taken up for this one. */
export function recordId(db: Db): string {
  return (db.prepare("SELECT id FROM record").get() as { id: string }).id;
}
