import * as z from "zod";
import { CAUSES, type CauseId, CHECKS, type CheckId, CONTEXTS, type ContextId, SYMPTOMS, type SymptomId } from "@/core/catalogue";
import { FEATURE_IDS } from "@/core/catalogue/kinds";
import { type Advice, adviceOn, tiedLeaders } from "./advice";
import type { Case } from "./case";
import { type Diagnosis, diagnose } from "./diagnose";
import { Prospect } from "./gains";
import { knowledgeOf } from "./knowledge";
import { type CheckOrder, type NextCheck, type Plan, planChecks, tellApart } from "./next-checks";
import { type Question, telephoneRound } from "./questions";
import { evidenceSchema } from "./request";
import { LIKELIHOOD_FROM } from "./words";

const symptom = z.enum(SYMPTOMS.map(({ id }) => id) as [SymptomId, ...SymptomId[]]);
const context = z.enum(CONTEXTS.map(({ id }) => id) as [ContextId, ...ContextId[]]);
const check = z.enum(CHECKS.map(({ id }) => id) as [CheckId, ...CheckId[]]);
const cause = z.enum(CAUSES.map(({ id }) => id) as [CauseId, ...CauseId[]]);

/** One job as the diagnosis takes it, whether on the server or in a worker. */
export const workUpInputSchema = z.object({
  cutsWith: z.enum(["rotary", "reel"]),
  features: z.array(z.enum(FEATURE_IDS)),
  given: z.object({
    symptoms: z.partialRecord(symptom, z.enum(["present", "denied"])),
    context: z.array(context),
    deniedContext: z.array(context).optional(),
    evidence: z.array(evidenceSchema),
    place: z.partialRecord(cause, z.number().positive()).optional(),
    stale: z.array(check).optional(),
  }),
  state: z.enum(["running", "parked", "locked-out", "raised", "bench"]),
  done: z.array(check),
  /** Left out by the mechanic, with a reason kept elsewhere. */
  skipped: z.array(check),
  /** What the machine must not be run for as it stands: not suggested. */
  barred: z.array(check).optional(),
  order: z.enum(["information", "walk-round"]),
  minutesLeft: z.number().min(0).max(600).optional(),
  /** Cannot have shown yet: not asked about. */
  tooSoon: z.array(symptom).optional(),
});

export type WorkUpInput = z.infer<typeof workUpInputSchema>;

export type WorkUp = {
  diagnosis: Diagnosis;
  plan: Plan;
  /** What the other school's list is expected to take, to compare. */
  other: { order: CheckOrder; expectedMinutes: number; minutes: number };
  advice: Advice;
  /** The leading two where neither leads clearly, and the check that would tell them apart. */
  tie?: { pair: readonly [CauseId, CauseId]; check?: CheckId };
  /** The two causes the first check would settle, the likelier first; one where it speaks to no other. */
  settles: CauseId[];
};

/** Everything the job's left-hand side shows: causes with reasons, what to check next and why, when to stop. Reasons are most of the time it takes. */
export function workUp(input: WorkUpInput, { withReasons } = { withReasons: true }): WorkUp {
  const knowledge = knowledgeOf(input);
  const given = input.given as Case;
  const diagnosis = diagnose(knowledge, given, { withReasons });
  const { state, order, done } = input;
  const skipped = [...input.skipped, ...(input.barred ?? [])];
  const common = { knowledge, given, diagnosis, state, done, skipped, prospect: new Prospect(knowledge, given) };
  const whole = planChecks({ ...common, order });
  // What does not fit into the minutes there are is still left to do.
  const plan = input.minutesLeft === undefined ? whole : planChecks({ ...common, order, minutesLeft: input.minutesLeft });
  const otherOrder: CheckOrder = order === "information" ? "walk-round" : "information";
  const other = planChecks({ ...common, order: otherOrder });
  const pair = tiedLeaders(diagnosis, LIKELIHOOD_FROM.possible);
  const telling = pair && tellApart({ ...common, pair });
  return {
    diagnosis,
    plan,
    other: { order: otherOrder, expectedMinutes: other.expectedMinutes, minutes: other.minutes },
    // What it may only not be run for now is still left to look at.
    advice: adviceOn(
      diagnosis,
      whole.checks.length > 0 || !input.barred?.length ? whole : planChecks({ ...common, skipped: input.skipped, order }),
    ),
    ...(pair ? { tie: { pair, ...(telling ? { check: telling.id } : {}) } } : {}),
    settles: settledBy(plan.checks[0], diagnosis),
  };
}

const NAMED = 2;

function settledBy(next: NextCheck | undefined, { causes }: Diagnosis): CauseId[] {
  return causes
    .filter(({ id }) => next?.tells.includes(id))
    .slice(0, NAMED)
    .map(({ id }) => id);
}

/** The questions that tell most for this job; contexts from the log are in its case already. */
export function questionsFor(input: WorkUpInput, answered: readonly ContextId[], most: number): Question[] {
  return telephoneRound({ knowledge: knowledgeOf(input), given: input.given as Case, answered, most, tooSoon: input.tooSoon ?? [] });
}
