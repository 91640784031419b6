import { mkdirSync } from "node:fs";
import path from "node:path";
import Database from "better-sqlite3";
import { refoldStates } from "./machine-state";
import { migrate } from "./migrate";
import { keepStatements } from "./reads";
import { pruneSubmissions } from "./submissions";

export type Db = Database.Database;

const BUSY_MILLISECONDS = 5000;

/** An open, migrated database: WAL, foreign keys on, busy timeout. `file` may be ":memory:". */
export function openDatabase(file: string, now = new Date().toISOString()): Db {
  if (file !== ":memory:") mkdirSync(path.dirname(file), { recursive: true });
  const db = keepStatements(new Database(file));
  db.pragma(`busy_timeout = ${BUSY_MILLISECONDS}`);
  db.pragma("journal_mode = WAL");
  db.pragma("synchronous = FULL");
  db.pragma("foreign_keys = ON");
  migrate(db, { now });
  refoldStates(db);
  pruneSubmissions(db, now);
  return db;
}

/** The folder all data is kept in. */
export function dataFolder(): string {
  return path.resolve(/*turbopackIgnore: true*/ process.env.ZYGOMETER_DATA ?? "data");
}

export function databaseFile(): string {
  return path.join(dataFolder(), "zygometer.sqlite");
}

const held = globalThis as typeof globalThis & { zygometerDb?: Db };

/** The server's one connection, opened at first use. */
export function database(): Db {
  if (!held.zygometerDb) {
    const db = openDatabase(databaseFile());
    held.zygometerDb = db;
    process.once("exit", () => db.close());
  }
  return held.zygometerDb;
}
