import * as z from "zod";
import { SCHOOLS, type School, schoolById, schoolFollowed, withSchool } from "@/core/machine/specification";
import { once } from "@/data/projections/context";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { listMachines, type MachineRecord, writeSheet } from "./machines";

export type SchoolStanding = {
  id: string;
  /** What the depot said last, if it ever did. */
  depot?: { choice: string; who: string; at: string };
  machines: { id: string; fleetNumber: string; follows?: string }[];
};

type Said = { choice: string; who: string; at: string };

/** What the depot last said of a question, read off its own trail. */
function depotSays(db: Db, school: School): Said | undefined {
  const row = db
    .prepare("SELECT detail_json, who, at FROM audit WHERE subject = ? AND action = 'school-set' ORDER BY id DESC LIMIT 1")
    .get(`school:${school.id}`) as { detail_json: string; who: string; at: string } | undefined;
  if (!row) return undefined;
  const { choice } = JSON.parse(row.detail_json) as { choice: string };
  return { choice, who: row.who, at: row.at };
}

const ofSchool = (db: Db, school: School): MachineRecord[] => listMachines(db).filter(({ machine }) => school.isFor(machine));

/** Every question with what the depot follows, and what each machine it is asked of does. */
export function schoolStandings(db: Db): SchoolStanding[] {
  return SCHOOLS.map((school) => {
    const depot = depotSays(db, school);
    return {
      id: school.id,
      ...(depot ? { depot } : {}),
      machines: ofSchool(db, school).map(({ id, fleetNumber, machine }) => {
        const follows = schoolFollowed(school, machine);
        return { id, fleetNumber, ...(follows === undefined ? {} : { follows }) };
      }),
    };
  });
}

export const schoolSchema = z.object({
  school: z.enum(SCHOOLS.map(({ id }) => id) as [string, ...string[]]),
  choice: z.string().max(40),
  /** Machines that are to go their own way, besides those that do already. */
  reason: z.string().trim().min(1, "say-why").max(300),
});

/**
 * Sets what the depot follows, on the sheet of every machine that followed it so far or said nothing: a new version each, with the reason. Machines that
 * say something else keep it. Throws `invalid` for a choice the school does not have.
 */
export function setSchool(db: Db, doing: Doing, args: z.output<typeof schoolSchema>): { changed: string[]; kept: string[] } {
  return once(db, doing, "school-set", () => {
    const school = schoolById(args.school);
    if (!school?.choices.some(({ id }) => id === args.choice))
      throw new AppError("invalid", { issues: [{ code: "nothing-set", path: ["choice"] }] });
    const before = depotSays(db, school)?.choice;
    const changed: string[] = [];
    const kept: string[] = [];
    for (const { id, machine, sheetVersion } of ofSchool(db, school)) {
      const follows = schoolFollowed(school, machine);
      if (follows === args.choice) continue;
      if (follows !== undefined && follows !== before) {
        kept.push(id);
        continue;
      }
      const next = withSchool(school, machine, args.choice);
      writeSheet(db, doing, {
        machineId: id,
        basedOnVersion: sheetVersion,
        machine: next,
        reason: `The depot's school, ${school.question.toLowerCase()}: ${args.reason}`,
      });
      changed.push(id);
    }
    audit(db, doing, {
      action: "school-set",
      subject: `school:${school.id}`,
      detail: { choice: args.choice, reason: args.reason, changed },
    });
    return { changed, kept };
  });
}
