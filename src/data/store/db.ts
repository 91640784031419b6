import type Database from "better-sqlite3";

/** The record's one connection. */
export type Db = Database.Database;
