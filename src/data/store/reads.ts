import type { Statement } from "better-sqlite3";
import type { Db } from "./db";
import { ofDriver } from "./errors";

/** What is written of a machine, by sort: its log (jobs, steps, events, specifications), and what is kept beside it. */
const OF_A_MACHINE = ["log", "closed", "sheet", "hours", "owed", "service", "spindles", "sets", "photographs"] as const;
/** What the shop has once. */
const OF_THE_SHOP = ["fleet", "people", "rules", "rounds", "parts", "stock", "sets", "procedures", "sites"] as const;
export type MachineSubject = (typeof OF_A_MACHINE)[number];
/** What something is read from, as the record's stamps name it: of one machine, of every machine there is, or of the shop. */
export type Subject = `${MachineSubject}:${string}` | `every:${MachineSubject}` | (typeof OF_THE_SHOP)[number];

/** Subjects of one machine. */
export const ofMachine = (machineId: string, ...sorts: readonly MachineSubject[]): Subject[] =>
  sorts.map((sort): Subject => `${sort}:${machineId}`);

/** The log of the machine a job is of; nothing that moves, where there is no such job. */
export function ofJob(db: Db, jobId: number): Subject[] {
  const row = db.prepare("SELECT machine_id FROM jobs WHERE id = ?").get(jobId) as { machine_id: string } | undefined;
  return row ? ofMachine(row.machine_id, "log") : ["fleet"];
}

/**
 * So many answers are kept of each size, the ones asked for longest ago go first: all takes or steps of a machine with years behind it are a megabyte, its events
 * or a job's takes some ten kilobytes, what a list shows of it less than one.
 */
const MOST = { long: 40, middling: 600, short: 12_000 } as const;
type Size = keyof typeof MOST;

type Answer = { stamp: string; answer: unknown };
/** What is kept of one machine: by its newest stamp, and by whatever else it was made from. */
type Piece = { n: number; made: readonly unknown[]; answer: unknown };
type Held = {
  /** Of the whole record: another value whenever anything was written, by this connection or by another one that committed. */
  whole: string;
  lastN: number;
  stamps: Map<string, number>;
  /** The same of each machine, by sort. */
  machines: Map<string, Partial<Record<MachineSubject, number>>>;
  answers: Record<Size, Map<string, Answer>>;
  pieces: Map<string, Map<string, Piece>>;
  /** What was put together last, by what it was put together from. */
  wholes: Map<string, { parts: readonly unknown[]; answer: unknown }>;
  /** In one reckoning that waits for nothing and writes nothing, nothing is written meanwhile: it is looked for once. */
  isAtOnce: boolean;
};
type Asked = { own: Statement; others: Statement; moved: Statement };
/** Once a process, beside its one connection: pages and routes are built apart, and each has this module by itself. */
const shared = globalThis as typeof globalThis & { zygometerReads?: { held: WeakMap<Db, Held>; asked: WeakMap<Db, Asked> } };
shared.zygometerReads ??= { held: new WeakMap(), asked: new WeakMap() };
const { held, asked } = shared.zygometerReads;

function heldOf(db: Db): Held {
  const ask = asked.get(db) ?? {
    own: db.prepare("SELECT total_changes() AS n"),
    others: db.prepare("PRAGMA data_version"),
    moved: db.prepare("SELECT subject, n FROM stamps WHERE n > ? ORDER BY n"),
  };
  asked.set(db, ask);
  const before = held.get(db);
  if (before?.isAtOnce) return before;
  const { n } = ask.own.get() as { n: number };
  const { data_version } = ask.others.get() as { data_version: number };
  const whole = `${n} ${data_version}`;
  const answers = { long: new Map(), middling: new Map(), short: new Map() };
  const kept = before ?? {
    whole: "",
    lastN: 0,
    stamps: new Map(),
    machines: new Map(),
    answers,
    pieces: new Map(),
    wholes: new Map(),
    isAtOnce: false,
  };
  held.set(db, kept);
  if (kept.whole === whole) return kept;
  for (const { subject, n: stamp } of ask.moved.all(kept.lastN) as { subject: string; n: number }[]) {
    kept.stamps.set(subject, stamp);
    const at = subject.indexOf(":");
    const sort = at < 0 ? subject : subject.slice(0, at);
    // In rising order: the last of a sort is that sort's newest.
    kept.stamps.set(`every:${sort}`, stamp);
    if (at >= 0) {
      const own = kept.machines.get(subject.slice(at + 1)) ?? {};
      own[sort as MachineSubject] = stamp;
      kept.machines.set(subject.slice(at + 1), own);
    }
    kept.lastN = stamp;
  }
  kept.whole = whole;
  return kept;
}

/** The stamps of what something is read from, as one text: another one as soon as any of it was written to. */
function stampOf(kept: Held, on: readonly Subject[]): string {
  let stamp = "";
  for (const subject of on) stamp += `${kept.stamps.get(subject) ?? 0} `;
  return stamp;
}

/**
 * What a read answered, kept while nothing was written to what it is read from (`on`; everything, where that is not said): a page asks for the same machine,
 * its log and its takes a dozen times, and the next page for most of it again. Inside a transaction nothing is kept, since what was read there may be rolled
 * back. Answers are shared: nobody changes them.
 */
export function whileUnchanged<T>(
  db: Db,
  key: string,
  read: () => T,
  { on, size = "short" }: { on?: readonly Subject[]; size?: Size } = {},
): T {
  const watcher = watchers.get(db);
  if (watcher) return watchedRead(watcher, { key, on, read });
  if (db.inTransaction) return read();
  const kept = heldOf(db);
  const stamp = on === undefined ? kept.whole : stampOf(kept, on);
  const answers = kept.answers[size];
  const before = answers.get(key);
  if (before?.stamp === stamp) {
    // Asked for again, it goes last.
    answers.delete(key);
    answers.set(key, before);
    return before.answer as T;
  }
  const answer = read();
  answers.delete(key);
  answers.set(key, { stamp, answer });
  if (answers.size > MOST[size]) {
    const [oldest] = answers.keys();
    if (oldest !== undefined) answers.delete(oldest);
  }
  return answer;
}

/** Forgets all that was kept: after what it was read from was made anew without a word in the record. */
export const forgetReads = (db: Db): unknown => held.delete(db);

const areSame = (a: readonly unknown[], b: readonly unknown[]): boolean => a.length === b.length && a.every((one, k) => one === b[k]);

/** When anything of these sorts was last written of a machine, or of the shop: one number, since stamps only rise. */
function newestOf(kept: Held, machineId: string, sorts: readonly MachineSubject[], shop: number): number {
  let newest = shop;
  const own = kept.machines.get(machineId);
  if (own)
    for (const sort of sorts) {
      const stamp = own[sort];
      if (stamp !== undefined && stamp > newest) newest = stamp;
    }
  return newest;
}

/**
 * One answer a machine, in their order, each kept while nothing was written of that machine (`on`) or of the shop (`of`), and while what else it is `made` from
 * is the very same. A piece that is read again and is as it was (`isAsBefore`) stays the very same too, so that what is put together of it (`putTogether`) is.
 */
export function eachMachine<T>(
  db: Db,
  key: string,
  machineIds: readonly string[],
  read: (machineId: string) => T,
  how: {
    on: readonly MachineSubject[];
    of?: readonly (typeof OF_THE_SHOP)[number][];
    made?: (machineId: string) => readonly unknown[];
    isAsBefore?: (before: T, now: T) => boolean;
  },
): readonly T[] {
  const { on, of = [], made = () => NOTHING, isAsBefore } = how;
  const watcher = watchers.get(db);
  if (watcher)
    return machineIds.map((id) =>
      watchedRead(watcher, { key: `${key} ${id}`, on: [...ofMachine(id, ...on), ...of], read: () => read(id) }),
    );
  if (db.inTransaction) return machineIds.map(read);
  const kept = heldOf(db);
  const pieces = kept.pieces.get(key) ?? new Map<string, Piece>();
  kept.pieces.set(key, pieces);
  const shop = Math.max(0, ...of.map((subject) => kept.stamps.get(subject) ?? 0));
  return machineIds.map((id) => {
    const n = newestOf(kept, id, on, shop);
    const from = made(id);
    const before = pieces.get(id);
    if (before && before.n === n && areSame(before.made, from)) return before.answer as T;
    const now = read(id);
    const answer = before && isAsBefore?.(before.answer as T, now) ? (before.answer as T) : now;
    pieces.set(id, { n, made: from, answer });
    return answer;
  });
}
const NOTHING: readonly unknown[] = [];

/** What is put together of pieces, kept while they are the very same ones. */
export function putTogether<T>(db: Db, key: string, parts: readonly unknown[], make: () => T): T {
  if (watchers.has(db) || db.inTransaction) return make();
  const { wholes } = heldOf(db);
  const before = wholes.get(key);
  if (before && areSame(before.parts, parts)) return before.answer as T;
  const answer = make();
  wholes.delete(key);
  wholes.set(key, { parts, answer });
  // Some keys are said by whoever asks (a site, since when): no more are kept than a depot has.
  if (wholes.size > MOST_WHOLES) wholes.delete(wholes.keys().next().value as string);
  return answer;
}
const MOST_WHOLES = 1000;

/** Who looks on while reads are made, to see that each is kept by everything it is read from; with a watcher nothing is answered from what was kept. */
export type ReadWatcher = {
  begin: (key: string, on: readonly Subject[] | undefined) => void;
  end: () => void;
  statement: (sql: string) => void;
};
const watchers = new WeakMap<Db, ReadWatcher>();
export function watchReads(db: Db, watcher: ReadWatcher | undefined): void {
  if (watcher) watchers.set(db, watcher);
  else watchers.delete(db);
}

/** Reads that belong to one answer: what was written is looked for once, and not for each of them. Writes nothing, waits for nothing. */
export function atOnce<T>(db: Db, read: () => T): T {
  if (db.inTransaction) return read();
  const kept = heldOf(db);
  const before = kept.isAtOnce;
  kept.isAtOnce = true;
  try {
    return read();
  } finally {
    kept.isAtOnce = before;
  }
}

function watchedRead<T>(watcher: ReadWatcher, { key, on, read }: { key: string; on: readonly Subject[] | undefined; read: () => T }): T {
  watcher.begin(key, on);
  try {
    return read();
  } finally {
    watcher.end();
  }
}

/** A statement whose failures are ours: a page that meets a spoilt place says so. */
function translating(db: Db, statement: Statement): Statement {
  for (const way of ["get", "all", "run"] as const) {
    const own = statement[way].bind(statement) as (...given: unknown[]) => unknown;
    Object.defineProperty(statement, way, {
      configurable: true,
      value: (...given: unknown[]) => {
        try {
          watchers.get(db)?.statement(statement.source);
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
    const kept = statements.get(sql) ?? translating(db, compile(sql));
    statements.set(sql, kept);
    return kept;
  }) as typeof db.prepare;
  return db;
}
