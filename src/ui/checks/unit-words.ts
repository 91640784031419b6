import type { Assessment } from "@/core/checks";
import type { Machine } from "@/core/machine";
import type { AnyFace, Told } from "./face";
import { lower, placeIn, sayMarks } from "./shared";

type Named = Pick<AnyFace, "parts" | "states">;

export const noSuchUnit = ({ place }: { place: string }): string => `This machine has no unit called “${place}”.`;

export const unitUnread =
  (face: () => Named) =>
  ({ place }: { place: string }, { machine }: Told): string =>
    `${lower(placeIn(face(), machine, place))} not read in full`;

/** Of a machine with one unit the unit need not be named. */
export function unitIn(face: Named, machine: Machine, place: string, words: string): string {
  return machine.units.length === 1 ? words.charAt(0).toUpperCase() + words.slice(1) : `${placeIn(face, machine, place)}: ${words}`;
}

/** The answer of a check that asks the same of every unit. */
export const sayUnits =
  (face: () => Named & { answer: unknown }, right: string, ask: string) =>
  (found: Pick<Assessment, "marks" | "verdict">, told: Told): string =>
    sayMarks(face(), found, told, found.verdict === "in-tolerance" ? right : ask);
