import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import type { Database } from "better-sqlite3";
import { AppError } from "./errors";

export const MIGRATIONS_FOLDER = path.join(process.cwd(), "src", "data", "store", "migrations");

const BOOKKEEPING = `CREATE TABLE IF NOT EXISTS migrations (
  version INTEGER NOT NULL CONSTRAINT migrations_pk PRIMARY KEY,
  name TEXT NOT NULL,
  at TEXT NOT NULL
) STRICT`;

const filesIn = (folder: string): string[] =>
  readdirSync(/*turbopackIgnore: true*/ folder)
    .filter((name) => /^\d{4}_.+\.sql$/.test(name))
    .sort();

/** Whether a database knows migrations this application does not. Reads only. */
export function isNewer(db: Database, folder = MIGRATIONS_FOLDER): boolean {
  const has = db.prepare("SELECT 1 FROM sqlite_master WHERE name = 'migrations'").get();
  if (!has) return false;
  const { version } = db.prepare("SELECT coalesce(max(version), 0) AS version FROM migrations").get() as { version: number };
  return version > Number(filesIn(folder).at(-1)?.slice(0, 4) ?? 0);
}

/**
 * Brings a database up to the newest numbered file, each in one transaction with its bookkeeping row.
 * Throws `database-newer` for a database that knows migrations this application does not.
 */
export function migrate(db: Database, { folder = MIGRATIONS_FOLDER, now }: { folder?: string; now: string }): void {
  db.exec(BOOKKEEPING);
  const files = filesIn(folder);
  const done = (db.prepare("SELECT coalesce(max(version), 0) AS version FROM migrations").get() as { version: number }).version;
  const newest = Number(files.at(-1)?.slice(0, 4) ?? 0);
  if (done > newest) throw new AppError("database-newer");
  for (const name of files) {
    const version = Number(name.slice(0, 4));
    if (version <= done) continue;
    const sql = readFileSync(/*turbopackIgnore: true*/ path.join(/*turbopackIgnore: true*/ folder, name), "utf8");
    // A table may be made anew under its old name: the references to it are looked at again before the transaction ends.
    db.pragma("foreign_keys = OFF");
    const step = db.transaction(() => {
      const already = db.prepare("SELECT 1 FROM migrations WHERE version = ?").get(version);
      if (already) return;
      db.exec(sql);
      if ((db.pragma("foreign_key_check") as unknown[]).length > 0) throw new Error(`${name} leaves a reference without its row`);
      db.prepare("INSERT INTO migrations (version, name, at) VALUES (?, ?, ?)").run(version, name, now);
    });
    try {
      step.immediate();
    } finally {
      db.pragma("foreign_keys = ON");
    }
  }
}
