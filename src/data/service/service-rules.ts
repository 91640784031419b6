import * as z from "zod";
import { physical } from "@/core/basics/units/physical";
import { KIND_IDS, type KindId } from "@/core/catalogue/kinds";
import { type SetRule, TASK_IDS, type TaskId, taskRow } from "@/core/fleet/service/tasks";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { requireTaskAt } from "./service";

export const newRuleSchema = z
  .object({
    what: z.enum(TASK_IDS),
    scope: z.enum(["fleet", "kind", "machine", "place"]),
    kind: z.enum(KIND_IDS).optional(),
    machineId: z.string().max(60).optional(),
    place: z.string().max(60).optional(),
    isOff: z.boolean().default(false),
    everyHours: physical("hours", 5000).optional(),
    everyDays: physical("days", 1500).optional(),
    reason: z.string().trim().min(1, "say-why").max(300),
  })
  .refine(
    ({ scope, kind, machineId, place }) =>
      (scope === "kind") === (kind !== undefined) &&
      (scope === "machine" || scope === "place") === (machineId !== undefined) &&
      (scope === "place") === (place !== undefined),
    {
      message: "scope-named",
      path: ["scope"],
    },
  )
  .refine((rule) => rule.isOff || rule.everyHours !== undefined || rule.everyDays !== undefined, {
    message: "say-how-often",
    path: ["everyHours"],
  })
  .refine(({ what: id, everyHours, everyDays }) => !taskRow(id)?.goesBy || (everyHours === undefined && everyDays === undefined), {
    message: "not-by-hours",
    path: ["everyHours"],
  });

/** Sets a rule; an earlier one of the same scope stays on the record and rules no more. Throws `machine-not-found`, `invalid` for a place where the task is not done. */
export function addRule(db: Db, doing: Doing, args: z.output<typeof newRuleSchema>): { ruleId: number } {
  return once(db, doing, "service-rule", () => {
    if (args.machineId !== undefined) {
      const { machine } = getMachine(db, args.machineId);
      if (args.place !== undefined) requireTaskAt(machine, args.what, [args.place], ["place"]);
    }
    const { lastInsertRowid } = db
      .prepare(
        `INSERT INTO service_rules (what, scope, kind, machine_id, place, is_off, every_hours, every_days, reason, who, at)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      )
      .run(
        args.what,
        args.scope,
        args.kind ?? null,
        args.machineId ?? null,
        args.place ?? null,
        args.isOff ? 1 : 0,
        args.isOff ? null : (args.everyHours ?? null),
        args.isOff ? null : (args.everyDays ?? null),
        args.reason,
        doing.who,
        doing.now,
      );
    audit(db, doing, { action: "service-rule", subject: args.machineId ? `machine:${args.machineId}` : "fleet", detail: args });
    return { ruleId: Number(lastInsertRowid) };
  });
}

export type RuleRecord = SetRule & { id: number; reason: string; who: string; at: string };

/** Every rule there is, the oldest first: of one scope the last rules. */
export function listRules(db: Db): RuleRecord[] {
  const rows = db.prepare("SELECT * FROM service_rules ORDER BY id").all() as {
    id: number;
    what: TaskId;
    scope: SetRule["scope"];
    kind: KindId | null;
    machine_id: string | null;
    place: string | null;
    is_off: number;
    every_hours: number | null;
    every_days: number | null;
    reason: string;
    who: string;
    at: string;
  }[];
  return rows.map((row) => ({
    id: row.id,
    what: row.what,
    scope: row.scope,
    ...(row.kind === null ? {} : { kind: row.kind }),
    ...(row.machine_id === null ? {} : { machineId: row.machine_id }),
    ...(row.place === null ? {} : { place: row.place }),
    ...(row.is_off ? { isOff: true } : {}),
    ...(row.every_hours === null ? {} : { everyHours: row.every_hours }),
    ...(row.every_days === null ? {} : { everyDays: row.every_days }),
    reason: row.reason,
    who: row.who,
    at: row.at,
  }));
}
