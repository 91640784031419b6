import { type CauseId, CONTEXTS, type ContextId, type SymptomId } from "@/core/catalogue";
import { type Case, logWeightOf, presenceOf } from "./case";
import { rateOf } from "./context";
import { boundToComplaint, entropy } from "./gains";
import type { Knowledge } from "./knowledge";
import { MOST_FINDINGS } from "./network";

/** What can be asked over the telephone. */
export type Question =
  | { kind: "symptom"; id: SymptomId; bits: number; yes: number }
  | { kind: "context"; id: ContextId; bits: number; yes: number };

/** Answers a driver cannot give from the seat. */
const NOT_BY_TELEPHONE: readonly string[] = ["hot-hub", "oil-at-drive", "edge-overdue", "grease-overdue"];

/**
 * The few questions that tell most before anyone drives out: expected fall, in bits, of the summed entropy of the causes that can show a
 * present symptom, and the chance that the answer is yes. Contexts in `answered` have been asked, or come from the log.
 */
export function telephoneRound(args: {
  knowledge: Knowledge;
  given: Case;
  answered: readonly ContextId[];
  most: number;
  /** Looks that cannot have shown yet, as browning the day after. */
  tooSoon?: readonly SymptomId[];
}): Question[] {
  const { knowledge, given } = args;
  const open = knowledge.symptoms.filter((symptom) => given.symptoms[symptom] === "present");
  const bound = boundToComplaint(knowledge, open);
  // As many looks as can be told apart are there already: one more could not be reckoned.
  const isFull = open.length + given.evidence.filter((one) => "causes" in one).length >= MOST_FINDINGS;
  const symptoms = isFull
    ? []
    : knowledge.symptoms.filter(
        (symptom) => given.symptoms[symptom] === undefined && !NOT_BY_TELEPHONE.includes(symptom) && !args.tooSoon?.includes(symptom),
      );
  const asking = { knowledge, given, bound };
  const asked: Question[] = [
    ...symptoms.map((id): Question => ({ kind: "symptom", id, ...symptomAnswer(asking, id) })),
    ...openContexts(args).map((id): Question => ({ kind: "context", id, ...contextAnswer(asking, id) })),
  ];
  return asked.sort((a, b) => b.bits - a.bits).slice(0, args.most);
}

function openContexts({ knowledge, given, answered }: { knowledge: Knowledge; given: Case; answered: readonly ContextId[] }): ContextId[] {
  const settled: readonly string[] = [...given.context, ...answered, ...NOT_BY_TELEPHONE];
  const oneOrAll: readonly string[] = ["one-machine-only", "all-machines"];
  const isSettled = (id: string) => settled.includes(id) || (oneOrAll.includes(id) && oneOrAll.some((one) => settled.includes(one)));
  const isHere = ({ symptom, hardlyWhen }: { symptom: SymptomId; hardlyWhen?: ContextId }, id: ContextId) =>
    hardlyWhen === id && given.symptoms[symptom] === "present";
  const bears = (id: ContextId) =>
    oneOrAll.includes(id) ||
    knowledge.causes.some(({ oddsWhen, links }) => oddsWhen[id] !== undefined || links.some((link) => isHere(link, id)));
  return CONTEXTS.map(({ id }) => id).filter((id) => !isSettled(id) && bears(id));
}

type Asking = { knowledge: Knowledge; given: Case; bound: readonly CauseId[] };
type Answer = { bits: number; yes: number };

function symptomAnswer({ knowledge, given, bound }: Asking, id: SymptomId): Answer {
  const denied = { ...given, symptoms: { ...given.symptoms, [id]: "denied" as const } };
  const present = { ...given, symptoms: { ...given.symptoms, [id]: "present" as const } };
  const no = (1 - knowledge.leak) * Math.exp(logWeightOf(knowledge, denied) - logWeightOf(knowledge, given));
  return answer({ knowledge, bound, yes: 1 - no, ifYes: present, ifNo: denied });
}

function contextAnswer({ knowledge, given, bound }: Asking, id: ContextId): Answer {
  const ticked = { ...given, context: [...given.context, id] };
  const odds = (rateOf(id) / (1 - rateOf(id))) * Math.exp(logWeightOf(knowledge, ticked) - logWeightOf(knowledge, given));
  return answer({
    knowledge,
    bound,
    yes: odds / (1 + odds),
    ifYes: ticked,
    ifNo: { ...given, deniedContext: [...(given.deniedContext ?? []), id] },
  });
}

/** Information of the answer about each bound cause, summed: entropy of the mixture less the mixed entropies, never negative. */
function answer(args: { knowledge: Knowledge; bound: readonly CauseId[]; yes: number; ifYes: Case; ifNo: Case }): Answer {
  const yes = Math.min(1, Math.max(0, args.yes));
  const withIt = presenceOf(args.knowledge, args.ifYes);
  const without = presenceOf(args.knowledge, args.ifNo);
  const bits = args.bound.reduce((sum, cause) => {
    const p = withIt.get(cause) ?? 0;
    const q = without.get(cause) ?? 0;
    return sum + entropy(yes * p + (1 - yes) * q) - yes * entropy(p) - (1 - yes) * entropy(q);
  }, 0);
  return { bits: Math.max(0, bits), yes };
}
