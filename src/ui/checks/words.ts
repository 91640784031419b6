import type { Figure } from "@/core/basics/findings";
import type { UnitSystem } from "@/core/basics/units";
import type { Action, Assessment, Told as Said } from "@/core/checks";
import type { Machine } from "@/core/machine";
import { figureValue as plainValue, VERDICT_WORDS } from "../words/quantities";
import type { Told, ToldFrom } from "./face";
import { faceOf } from "./faces";
import { lower, placeIn, stateIn, unnamed } from "./shared";

/** The verdict as it is said at the machine. What was only looked at carries no figures, whatever its check. */
export function sayAnswer(assessment: Assessment, told: Told): string {
  return (assessment.ruleVersion > 0 && faceOf(assessment.check).answer(assessment, told)) || VERDICT_WORDS[assessment.verdict];
}

type Sentence<To> = (said: Said, told: To) => string;

function said<To>(sentences: object | undefined, one: Said, told: To): string {
  const say = (sentences as Readonly<Record<string, Sentence<To> | undefined>> | undefined)?.[one.code];
  return say ? say(one, told) : unnamed(one.code);
}

/** What to do. */
export const sayAction = (check: string, action: Action, told: ToldFrom): string => said(faceOf(check).actions, action, told);
export const sayWarning = (check: string, warning: Said, told: Told): string => said(faceOf(check).warnings, warning, told);

/** Of any worksheet: it was written down without measuring. */
const ONLY_LOOKED = "only looked at, not measured";

export function sayProvisional(check: string, reason: Said, told: Told): string {
  return reason.code === "only-looked-at" ? ONLY_LOOKED : said(faceOf(check).provisional, reason, told);
}

/** A problem with readings that the check itself found; `undefined` where it is none of its own. */
export function sayProblem(check: string, problem: Said, system: UnitSystem): string | undefined {
  const sentences = faceOf(check).problems as Readonly<Record<string, Sentence<UnitSystem> | undefined>> | undefined;
  return sentences?.[problem.code]?.(problem, system);
}

/** What a place was found to be. */
export const sayState = (check: string, code: string | undefined): string => stateIn(faceOf(check), code);
export const sayPlace = (check: string, machine: Machine, place: string): string => placeIn(faceOf(check), machine, place);

export function figureName(check: string, figure: Figure, machine: Machine): string {
  const name = faceOf(check).figures?.[figure.id] ?? unnamed(figure.id);
  // A figure that has no name of its own is named by its place.
  if (name === "") return sayPlace(check, machine, figure.place ?? "");
  return figure.place ? `${name}, ${lower(sayPlace(check, machine, figure.place))}` : name;
}

export function figureValue(figure: Figure, system: UnitSystem): string {
  if (figure.dimension === "count") return String(Math.round(figure.value));
  return plainValue(figure, system);
}
