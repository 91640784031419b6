import type { CauseId, SymptomId } from "@/core/catalogue";
import type { Diagnosis } from "./diagnose";
import { CERTAIN_LOOKS } from "./evidence";
import { EXPLAINED_LEVEL } from "./levels";
import type { Plan } from "./next-checks";

/** What to do about the checking itself. */
export type Advice =
  | { code: "no-symptom" }
  /**
   * Every symptom is explained by a cause above the level that a check speaks for. `once`: those of them that stand on one look; until it is
   * repeated, or another check says the same, they are pointed to and not certain. `taken`: those whose reading is sure and whose name is a
   * guess, since something that is in no table would move it alike; mending it, and its staying so, tells.
   */
  | { code: "found"; causes: CauseId[]; once: CauseId[]; taken: CauseId[] }
  /** Nothing on the list is likely to have shown these, and what could be checked has been. */
  | { code: "nothing-explains"; symptoms: SymptomId[]; isListDone: boolean }
  /** Something is still unexplained and no check is left that would tell. */
  | { code: "nothing-left"; symptoms: SymptomId[] }
  | { code: "go-on" };

export function adviceOn({ causes, symptoms }: Diagnosis, plan: Pick<Plan, "checks">): Advice {
  if (symptoms.length === 0) return { code: "no-symptom" };
  const open = symptoms.filter(({ status }) => status !== "found");
  if (open.length === 0) {
    const found = causes.filter(({ isBackedByCheck, presence }) => isBackedByCheck && presence >= EXPLAINED_LEVEL);
    return {
      code: "found",
      causes: found.map(({ id }) => id),
      once: found.filter(({ looks }) => looks < CERTAIN_LOOKS).map(({ id }) => id),
      taken: found.filter(({ id }) => hasRival(causes, id)).map(({ id }) => id),
    };
  }
  const isListDone = plan.checks.length === 0;
  const unexplained = open.filter(({ status }) => status === "nothing-explains").map(({ id }) => id);
  if (unexplained.length === open.length) return { code: "nothing-explains", symptoms: unexplained, isListDone };
  return isListDone ? { code: "nothing-left", symptoms: open.map(({ id }) => id) } : { code: "go-on" };
}

/** With less a rival is as good as out. Estimate. */
const RIVAL_LEVEL = 0.03;
/** Whether something in no table may as well have moved what speaks for this cause: then it is only the likeliest. */
export const hasRival = (causes: Diagnosis["causes"], cause: CauseId): boolean =>
  causes.some(({ rivalOf, presence }) => rivalOf === cause && presence >= RIVAL_LEVEL);

/** Two leading causes this near each other in odds are called tied. Estimate. */
export const TIE_ODDS = 3;

/** The two likeliest causes, where neither leads clearly and both are at least possible. */
export function tiedLeaders({ causes }: Pick<Diagnosis, "causes">, least: number): readonly [CauseId, CauseId] | undefined {
  const [first, second] = causes;
  if (!first || !second || second.probability < least || first.presence >= EXPLAINED_LEVEL) return undefined;
  const odds = (p: number) => p / (1 - p);
  return odds(first.probability) / odds(second.probability) <= TIE_ODDS ? [first.id, second.id] : undefined;
}
