import { worksheetById } from "@/core/checks";
import { answersAt, isReadAt } from "@/core/checks/form";
import { isPlaceOf, type Machine } from "@/core/machine";
import { type Take, takesNaming } from "@/data/record/takes-read";
import type { Db } from "@/data/store/db";
import { ofMachine, whileUnchanged } from "@/data/store/reads";

/** `answers`: what was picked rather than measured (how paper cut, how a hub turned). */
export type PlaceTake = Pick<Take, "stepId" | "at" | "jobId" | "who" | "checkId" | "readings"> & {
  answers: { label: string; says: string }[];
};

/** Takes shown at a place. */
const MOST_TAKES = 12;

/**
 * What was read at a place of a machine, take by take, the newest first; at its tips and ends with it. Corrected and undone takes do not count.
 */
export function takesOfPlace(db: Db, args: { machineId: string; machine: Machine; place: string }): PlaceTake[] {
  return whileUnchanged(db, `takes at ${args.place} of ${args.machineId}`, () => readTakes(db, args), {
    on: ofMachine(args.machineId, "log", "sheet"),
    size: "middling",
  });
}

function readTakes(db: Db, args: { machineId: string; machine: Machine; place: string }): PlaceTake[] {
  const { machine, place } = args;
  const isPlace = (id: string) => isPlaceOf(machine, id);
  const own = takesNaming(db, args.machineId, place).flatMap(({ stepId, at, jobId, who, checkId, ...take }): PlaceTake[] => {
    const form = worksheetById(checkId)?.form?.(machine, take.input);
    const answers = form ? answersAt({ form, readings: take.input, place, isPlace }) : [];
    const readings = take.readings.filter((reading) => isReadAt({ path: [reading.place], place, isPlace }));
    return answers.length + readings.length === 0 ? [] : [{ stepId, at, jobId, who, checkId, readings, answers }];
  });
  return own.slice(0, MOST_TAKES);
}
