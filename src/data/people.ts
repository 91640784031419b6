import * as z from "zod";
import type { Standpoint } from "@/core/machine";
import type { UnitSystem } from "@/core/units";
import type { Db } from "./connection";
import { audit } from "./context";
import { AppError } from "./errors";

const STANDPOINTS = ["behind", "front", "left", "right", "underneath"] as const satisfies readonly Standpoint[];

export type { Standpoint };

export type Person = {
  initials: string;
  unitSystem: UnitSystem;
  theme: "light" | "dark";
  checkOrder: "information" | "walk-round";
  standsAt: Standpoint;
};

export const initialsSchema = z
  .string()
  .trim()
  .toUpperCase()
  .regex(/^[\p{L}]{2,4}$/u, "two to four letters");

export const preferencesSchema = z.object({
  unitSystem: z.enum(["us", "metric"]).optional(),
  theme: z.enum(["light", "dark"]).optional(),
  checkOrder: z.enum(["information", "walk-round"]).optional(),
  standsAt: z.enum(STANDPOINTS).optional(),
});

type Row = {
  initials: string;
  unit_system: UnitSystem;
  theme: "light" | "dark";
  check_order: "information" | "walk-round";
  stands_at: Standpoint;
};

const fromRow = (row: Row): Person => ({
  initials: row.initials,
  unitSystem: row.unit_system,
  theme: row.theme,
  checkOrder: row.check_order,
  standsAt: row.stands_at,
});

export function listPeople(db: Db): Person[] {
  return (db.prepare("SELECT * FROM people ORDER BY initials").all() as Row[]).map(fromRow);
}

export function findPerson(db: Db, initials: string): Person | undefined {
  const row = db.prepare("SELECT * FROM people WHERE initials = ?").get(initials) as Row | undefined;
  return row && fromRow(row);
}

/** Adds someone by initials. Throws `initials-taken`. */
export function addPerson(db: Db, { initials, now }: { initials: string; now: string }): Person {
  return db
    .transaction(() => {
      if (findPerson(db, initials)) throw new AppError("initials-taken", { issues: [{ code: "initials-taken", path: ["initials"] }] });
      db.prepare("INSERT INTO people (initials, created_at) VALUES (?, ?)").run(initials, now);
      audit(db, { who: initials, now }, { action: "person-added", subject: `person:${initials}` });
      return findPerson(db, initials) as Person;
    })
    .immediate();
}

/** Changes how someone likes to see things; what is left out stays. Throws `unknown-person`. */
export function setPreferences(db: Db, args: { initials: string; preferences: z.output<typeof preferencesSchema>; now: string }): Person {
  const person = findPerson(db, args.initials);
  if (!person) throw new AppError("unknown-person");
  const next = { ...person, ...args.preferences };
  db.prepare("UPDATE people SET unit_system = ?, theme = ?, check_order = ?, stands_at = ? WHERE initials = ?").run(
    next.unitSystem,
    next.theme,
    next.checkOrder,
    next.standsAt,
    args.initials,
  );
  return next;
}
