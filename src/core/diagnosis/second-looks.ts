import type { CauseId, CheckId } from "@/core/catalogue";
import type { Case } from "./case";
import { type CaseEvidence, CERTAIN_LOOKS, causesOf, checkOf, standing } from "./evidence";
import type { Knowledge } from "./knowledge";
import type { Offered } from "./order";

/** A second look is at the one thing found, no whole sheet: a third of the check, a minute at least. Estimate. */
const SECOND_LOOK_SHARE = 1 / 3;
export const secondLookMinutes = ({ minutes }: { minutes: number }): number => Math.max(1, minutes * SECOND_LOOK_SHARE);
/** How a second look comes out where the thing is there, and where it is not: 16 to 1 for it, 1 to 50 against. Estimates, from the trial by worksheets. */
export const SECOND_LOOK = { sensitivity: 0.98, specificity: 0.94 } as const;

type Looks = { knowledge: Knowledge; given: Case; isOut: (id: CheckId) => boolean };

/** Of checks already made, what they say on one look alone, as checks to make: a second look costs a third of the check, a minute at least. */
export function secondLooks(args: Looks): Offered[] {
  const { given } = args;
  const once = standing(given.evidence, given.stale).filter(
    (one) =>
      !("likelihoodRatio" in one) &&
      (one.result === "seen" || one.result === "suspect") &&
      // Looks that differed were read a third time already.
      causesOf(one).every((cause) => timesSaid(given, checkOf(one), cause) < CERTAIN_LOOKS),
  );
  return offeredAgain(args, once, SECOND_LOOK);
}

/** What a look that missed finds when it is made again. Estimate, from the trial by worksheets. */
const MISSED_LOOK = { sensitivity: 0.85, specificity: 0.93 } as const;

/** Of checks already made, what they did not find at the first look: once nothing else is left that would tell, it may have been missed. */
export function missedLooks(args: Looks): Offered[] {
  const { given } = args;
  const once = standing(given.evidence, given.stale).filter(
    (one) =>
      !("likelihoodRatio" in one) &&
      one.result === "not-found" &&
      causesOf(one).every((cause) => timesSaid(given, checkOf(one), cause) < CERTAIN_LOOKS),
  );
  return offeredAgain(args, once, MISSED_LOOK);
}

function offeredAgain(args: Looks, once: readonly CaseEvidence[], sureness: { sensitivity: number; specificity: number }): Offered[] {
  return args.knowledge.checks
    .filter(({ id }) => !args.isOut(id))
    .flatMap((check) => {
      const figures = once.filter((one) => checkOf(one) === check.id).map((one) => causesOf(one) as CauseId[]);
      if (figures.length === 0) return [];
      const minutes = secondLookMinutes(check);
      return [{ ...check, ...sureness, minutes, figures, again: [...new Set(figures.flat())] }];
    });
}

const timesSaid = ({ evidence }: Case, check: string | undefined, cause: string): number =>
  evidence.filter((one) => checkOf(one) === check && causesOf(one).includes(cause)).length;
