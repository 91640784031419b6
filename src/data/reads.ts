import type { Statement } from "better-sqlite3";
import type { Db } from "./connection";
import { ofDriver } from "./errors";

/** So many answers are kept at most; then all are let go. A page over three hundred machines asks for several of each. */
const MOST_KEPT = 2500;

type Kept = { stamp: string; answers: Map<string, unknown> };
const held = new WeakMap<Db, Kept>();
const stamps = new WeakMap<Db, { own: Statement; others: Statement }>();

/** Another value whenever anything was written: by this connection, or by another one that committed. */
function stampOf(db: Db): string {
  const asked = stamps.get(db) ?? { own: db.prepare("SELECT total_changes() AS n"), others: db.prepare("PRAGMA data_version") };
  stamps.set(db, asked);
  const { n } = asked.own.get() as { n: number };
  const { data_version } = asked.others.get() as { data_version: number };
  return `${n} ${data_version}`;
}

/**
 * What a read answered, kept while nothing at all was written: a page asks for the same machine, its log and its takes a dozen times, and the
 * next page for most of it again. Inside a transaction nothing is kept, since what was read there may be rolled back. Answers are shared:
 * nobody changes them.
 */
export function whileUnchanged<T>(db: Db, key: string, read: () => T): T {
  if (db.inTransaction) return read();
  const stamp = stampOf(db);
  const before = held.get(db);
  const kept =
    before && before.stamp === stamp && before.answers.size < MOST_KEPT ? before : { stamp, answers: new Map<string, unknown>() };
  if (kept !== before) held.set(db, kept);
  if (kept.answers.has(key)) return kept.answers.get(key) as T;
  const answer = read();
  kept.answers.set(key, answer);
  return answer;
}

/** A statement whose failures are ours: a page that meets a spoilt place says so. */
function translating(statement: Statement): Statement {
  for (const way of ["get", "all", "run"] as const) {
    const own = statement[way].bind(statement) as (...given: unknown[]) => unknown;
    Object.defineProperty(statement, way, {
      value: (...given: unknown[]) => {
        try {
          return own(...given);
        } catch (error) {
          throw ofDriver(error);
        }
      },
    });
  }
  return statement;
}

/** A connection that compiles each statement once: a page asks the same few dozen over and over. Nobody sets a mode on a statement. */
export function keepStatements(db: Db): Db {
  const statements = new Map<string, Statement>();
  const compile = db.prepare.bind(db);
  db.prepare = ((sql: string) => {
    const kept = statements.get(sql) ?? translating(compile(sql));
    statements.set(sql, kept);
    return kept;
  }) as typeof db.prepare;
  return db;
}
