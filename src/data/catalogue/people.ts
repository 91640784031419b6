import * as z from "zod";
import type { UnitSystem } from "@/core/basics/units";
import type { Standpoint } from "@/core/machine";
import { once } from "@/data/projections/context";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { lookOf } from "./initials";

const STANDPOINTS = ["behind", "front", "left", "right", "underneath"] as const satisfies readonly Standpoint[];

export type { Standpoint };

export type Person = {
  initials: string;
  unitSystem: UnitSystem;
  theme: "light" | "dark";
  checkOrder: "information" | "walk-round";
  standsAt: Standpoint;
};

export { initialsSchema } from "./initials";

/** More people than any depot has: a list that is longer was filled by nobody who works there. */
export const MOST_PEOPLE = 300;

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

/** Adds someone by initials. Throws `initials-taken`, also for those that look alike in print, and `too-many-people`. */
export function addPerson(db: Db, { initials, now }: { initials: string; now: string }): Person {
  return db
    .transaction(() => {
      const all = listPeople(db);
      const alike = all.find((one) => lookOf(one.initials) === lookOf(initials));
      if (alike) {
        const code = alike.initials === initials ? "initials-taken" : "initials-look-alike";
        throw new AppError("initials-taken", { issues: [{ code, path: ["initials"], alike: alike.initials }] });
      }
      if (all.length >= MOST_PEOPLE) throw new AppError("too-many-people");
      db.prepare("INSERT INTO people (initials, created_at) VALUES (?, ?)").run(initials, now);
      audit(db, { who: initials, now }, { action: "person-added", subject: `person:${initials}` });
      return findPerson(db, initials) as Person;
    })
    .immediate();
}

/**
 * Changes how someone likes to see things, and puts it on the audit trail: where one stands decides which way turns are told. What is left out
 * stays. Throws `unknown-person`, and `not-yours` for anybody but the person.
 */
export function setPreferences(
  db: Db,
  doing: Doing,
  { initials, preferences }: { initials: string; preferences: z.output<typeof preferencesSchema> },
): Person {
  return once(db, doing, "preferences-set", () => {
    const person = findPerson(db, initials);
    if (!person) throw new AppError("unknown-person");
    if (doing.who !== initials) throw new AppError("not-yours");
    const next = { ...person, ...preferences };
    db.prepare("UPDATE people SET unit_system = ?, theme = ?, check_order = ?, stands_at = ? WHERE initials = ?").run(
      next.unitSystem,
      next.theme,
      next.checkOrder,
      next.standsAt,
      initials,
    );
    audit(db, doing, { action: "preferences-set", subject: `person:${initials}`, detail: preferences });
    return next;
  });
}
