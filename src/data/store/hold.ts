import { mkdirSync } from "node:fs";
import path from "node:path";
import Database from "better-sqlite3";
import { AppError, ofDriver } from "./errors";

/**
 * Whoever works on a data folder holds it, as many as like; whoever would put another record in its place needs it alone. The hold is the
 * operating system's lock on a small file: it ends with the program, however that ends.
 */
const LOCK = "zygometer.lock";
/** What nothing refers to is collected, and closed with it: a hold is referred to for as long as it stands. */
const holds = new Set<Database.Database>();

function lockIn(folder: string): Database.Database {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  return new Database(path.join(folder, LOCK), { timeout: 0 });
}

/** Holds a folder until the program ends, or until what is answered is called. Throws `folder-in-use` while another has it alone. */
export function holdFolder(folder: string): () => void {
  const db = lockIn(folder);
  try {
    db.exec("BEGIN");
    db.prepare("SELECT count(*) FROM sqlite_master").get();
  } catch (error) {
    db.close();
    throw inUse(error);
  }
  holds.add(db);
  return () => {
    holds.delete(db);
    db.close();
  };
}

/** Runs something while nobody else holds the folder. Throws `folder-in-use` where a program works on it. */
export function withFolderAlone<T>(folder: string, work: () => T): T {
  const db = lockIn(folder);
  try {
    db.exec("BEGIN EXCLUSIVE");
  } catch (error) {
    db.close();
    throw inUse(error);
  }
  try {
    return work();
  } finally {
    db.close();
  }
}

function inUse(error: unknown): unknown {
  const ours = ofDriver(error);
  return ours instanceof AppError && ours.code === "record-busy" ? new AppError("folder-in-use", { cause: error }) : ours;
}
