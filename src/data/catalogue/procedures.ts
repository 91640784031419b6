import { randomBytes } from "node:crypto";
import * as z from "zod";
import { CHECKS, type CheckId } from "@/core/catalogue";
import { once } from "@/data/projections/context";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { whileUnchanged } from "@/data/store/reads";

const CHECK_IDS = CHECKS.map(({ id }) => id) as [CheckId, ...CheckId[]];

export const procedureSchema = z.object({
  title: z.string().trim().min(1, "say-what").max(80),
  /** How it is done here, and to which limits. */
  body: z.string().trim().min(1, "say-what").max(5000),
  /** Worksheets it is gone by at: a reading taken while it is in force names it. */
  checks: z.array(z.enum(CHECK_IDS)).min(1, "pick-checks").max(40),
});
export const newProcedureSchema = z.object({
  slug: z
    .string()
    .regex(/^[a-z][a-z0-9]*(-[a-z0-9]+)*$/)
    .max(60)
    .optional(),
  basedOnVersion: z.number().int().min(0).default(0),
  procedure: procedureSchema,
  reason: z.string().trim().min(1, "say-why").max(300),
});
export const withdrawSchema = z.object({ version: z.number().int().min(1), reason: z.string().trim().min(1, "say-why").max(300) });

export type Procedure = z.output<typeof procedureSchema>;
export type ProcedureVersion = {
  slug: string;
  version: number;
  procedure: Procedure;
  reason: string;
  who: string;
  at: string;
  withdrawn?: { reason: string; who: string; at: string };
};

type Row = {
  slug: string;
  version: number;
  data_json: string;
  reason: string;
  who: string;
  at: string;
  w_reason: string | null;
  w_who: string | null;
  w_at: string | null;
};

/** Every version of every procedure, the oldest first. */
export function listProcedures(db: Db): ProcedureVersion[] {
  return whileUnchanged(
    db,
    "procedures",
    () =>
      (
        db
          .prepare(
            `SELECT p.slug, p.version, p.data_json, p.reason, p.who, p.at, w.reason AS w_reason, w.who AS w_who, w.at AS w_at FROM procedures p
           LEFT JOIN procedures_withdrawn w ON w.slug = p.slug AND w.version = p.version ORDER BY p.slug, p.version`,
          )
          .all() as Row[]
      ).map(({ data_json, w_reason, w_who, w_at, ...row }) => ({
        ...row,
        procedure: procedureSchema.parse(JSON.parse(data_json)),
        ...(w_reason === null || w_who === null || w_at === null ? {} : { withdrawn: { reason: w_reason, who: w_who, at: w_at } }),
      })),
    { on: ["procedures"] },
  );
}

/** Of each procedure its last version, unless that was withdrawn: an older one does not come back by itself. */
export function proceduresInForce(db: Db): ProcedureVersion[] {
  const last = new Map(listProcedures(db).map((one) => [one.slug, one]));
  return [...last.values()].filter(({ withdrawn }) => withdrawn === undefined);
}

/** As much of a title as an address can hold; a title of another alphabet has nothing of it. */
const wordsOf = (title: string): string =>
  title
    .toLowerCase()
    .normalize("NFKD")
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^[^a-z]+/, "")
    .slice(0, 40)
    .replace(/-+$/, "") || "procedure";

/** An id nobody has: made, not derived, so that two of one title, or of none that an address can hold, are two. */
function newSlug(db: Db, title: string): string {
  const words = wordsOf(title);
  const isTaken = (slug: string) => db.prepare("SELECT 1 FROM procedures WHERE slug = ?").get(slug) !== undefined;
  return isTaken(words) ? `${words}-${randomBytes(4).toString("hex")}` : words;
}

/** A procedure, or its next version. Throws `changed-since` when another version came in between. */
export function keepProcedure(db: Db, doing: Doing, args: z.output<typeof newProcedureSchema>): { slug: string; version: number } {
  return once(db, doing, "procedure-kept", () => {
    const slug = args.slug ?? newSlug(db, args.procedure.title);
    const last = listProcedures(db).findLast((one) => one.slug === slug);
    if ((last?.version ?? 0) !== args.basedOnVersion) throw new AppError("changed-since");
    const version = args.basedOnVersion + 1;
    db.prepare("INSERT INTO procedures (slug, version, data_json, reason, who, at) VALUES (?, ?, ?, ?, ?, ?)").run(
      slug,
      version,
      JSON.stringify(args.procedure),
      args.reason,
      doing.who,
      doing.now,
    );
    audit(db, doing, { action: "procedure-kept", subject: `procedure:${slug}`, detail: { version, reason: args.reason } });
    return { slug, version };
  });
}

/** Says that a version was wrong: the jobs that went by it are listed from then on. Throws `procedure-not-found`, also for one withdrawn already. */
export function withdrawProcedure(db: Db, doing: Doing, args: { slug: string } & z.output<typeof withdrawSchema>): { jobs: number[] } {
  return once(db, doing, "procedure-withdrawn", () => {
    const found = listProcedures(db).find((one) => one.slug === args.slug && one.version === args.version);
    if (!found || found.withdrawn) throw new AppError("procedure-not-found");
    db.prepare("INSERT INTO procedures_withdrawn (slug, version, reason, who, at) VALUES (?, ?, ?, ?, ?)").run(
      args.slug,
      args.version,
      args.reason,
      doing.who,
      doing.now,
    );
    audit(db, doing, { action: "procedure-withdrawn", subject: `procedure:${args.slug}`, detail: args });
    return { jobs: jobsBy(db, args.slug, args.version).map(({ jobId }) => jobId) };
  });
}

/** Names on a step what it was done by: those in force for its check, inside the transaction that writes the step. */
export function nameProcedures(db: Db, stepId: number, checkId: string): void {
  const insert = db.prepare("INSERT INTO step_procedures (step_id, slug, version) VALUES (?, ?, ?)");
  for (const { slug, version, procedure } of proceduresInForce(db))
    if ((procedure.checks as readonly string[]).includes(checkId)) insert.run(stepId, slug, version);
}

/** Jobs with a reading that was taken by a version of a procedure and stands, the newest first. */
export function jobsBy(db: Db, slug: string, version: number): { jobId: number; machineId: string; state: string; readings: number }[] {
  const rows = db
    .prepare(
      `SELECT j.id, j.machine_id, j.state, count(*) AS n FROM step_procedures p JOIN steps s ON s.id = p.step_id JOIN jobs j ON j.id = s.job_id
       WHERE p.slug = ? AND p.version = ? AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = s.id) GROUP BY j.id ORDER BY j.id DESC`,
    )
    .all(slug, version) as { id: number; machine_id: string; state: string; n: number }[];
  return rows.map(({ id, machine_id, state, n }) => ({ jobId: id, machineId: machine_id, state, readings: n }));
}
