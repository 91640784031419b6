import { worksheetById } from "@/core/checks";
import { answersAt } from "@/core/checks/form";
import { isPlaceOf, type Machine } from "@/core/machine";
import type { Db } from "./connection";
import { STANDS } from "./takes-read";

export type PlaceAnswers = { at: string; jobId: number; who: string; checkId: string; answers: { label: string; says: string }[] };

/** What was picked rather than measured at a place (how paper cut, how a hub turned), take by take, the newest first. */
export function answersOfPlace(db: Db, args: { machineId: string; machine: Machine; place: string }, limit = 40): PlaceAnswers[] {
  const rows = db
    .prepare(
      `SELECT t.at, t.job_id, s.who, t.check_id, t.input_json FROM takes t JOIN steps s ON s.id = t.step_id
       WHERE t.machine_id = ? AND instr(t.input_json, ?) > 0 AND ${STANDS} ORDER BY s.seq DESC LIMIT ?`,
    )
    .all(args.machineId, `${JSON.stringify(args.place)}:`, limit) as {
    at: string;
    job_id: number;
    who: string;
    check_id: string;
    input_json: string;
  }[];
  return rows.flatMap(({ at, job_id, who, check_id, input_json }) => {
    const input: unknown = JSON.parse(input_json);
    const form = worksheetById(check_id)?.form?.(args.machine, input);
    const answers = form ? answersAt({ form, readings: input, place: args.place, isPlace: (id) => isPlaceOf(args.machine, id) }) : [];
    return answers.length === 0 ? [] : [{ at, jobId: job_id, who, checkId: check_id, answers }];
  });
}

export type PlaceReading = { at: string; jobId: number; who: string; checkId: string; place: string; quantity: string; value: number };

/** The last readings taken at a place of a machine, the newest first; those of its tips and ends with it. Corrected and undone ones do not count. */
export function readingsAt(db: Db, machineId: string, place: string, limit = 40): PlaceReading[] {
  const rows = db
    .prepare(
      `SELECT t.at, t.job_id, s.who, t.check_id, r.place, r.quantity, r.value FROM takes t JOIN steps s ON s.id = t.step_id JOIN readings r ON r.step_id = t.step_id
       WHERE t.machine_id = ? AND ':' || r.place || ':' LIKE ? ESCAPE '\\'
         AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = t.step_id)
         AND NOT EXISTS (SELECT 1 FROM takes c WHERE c.corrects_step_id = t.step_id AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = c.step_id))
       ORDER BY s.seq DESC, r.id LIMIT ?`,
    )
    .all(machineId, `%:${place.replace(/[\\%_]/g, "\\$&")}:%`, limit) as {
    at: string;
    job_id: number;
    who: string;
    check_id: string;
    place: string;
    quantity: string;
    value: number;
  }[];
  return rows.map(({ job_id, check_id, ...row }) => ({ ...row, jobId: job_id, checkId: check_id }));
}
