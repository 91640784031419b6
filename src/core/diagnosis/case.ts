import type { CauseId, CheckId, ContextId, SymptomId } from "@/core/trade";
import { contextFactor } from "./context";
import { type CaseEvidence, causesOf, isShared, looksBehind, ratioOf, standing } from "./evidence";
import type { Knowledge, KnownCause } from "./knowledge";
import { logEvidence, type Network, type NetworkCause, presences } from "./network";

export type SymptomState = "present" | "denied";

/** One complaint and what is known about it; a symptom that is not named is unknown, and says nothing. */
export type Case = {
  symptoms: Partial<Record<SymptomId, SymptomState>>;
  context: readonly ContextId[];
  /** Asked, and not so. */
  deniedContext?: readonly ContextId[];
  evidence: readonly CaseEvidence[];
  /** Odds by the place in the swath, where the machine's geometry says something. */
  place?: Partial<Record<CauseId, number>>;
  /** Checks whose reading no longer holds: their evidence does not count. */
  stale?: readonly CheckId[];
};

/** A case as a network. Causes that can show none of the findings stand apart: nothing found bears on them but their own odds. */
export type Assembled = {
  network: Network;
  /** The causes in the network's order. */
  linked: readonly KnownCause[];
  /** Of the causes that stand apart: probability of being there. */
  apart: ReadonlyMap<CauseId, number>;
  /** Present symptoms, as the first findings of the network. */
  present: readonly SymptomId[];
  /** Natural logarithm of what the network leaves out of the probability of the case: priors, and the causes that stand apart. */
  logAside: number;
};

export function assemble(knowledge: Knowledge, given: Case): Assembled {
  const present = knowledge.symptoms.filter((symptom) => given.symptoms[symptom] === "present");
  const evidence = standing(given.evidence, given.stale);
  const shared = evidence.filter(isShared).filter(({ causes }) => knowledge.causes.some(({ id }) => causes.includes(id)));
  const entries = knowledge.causes.map((cause) => {
    const priorOdds = (cause.prior / (1 - cause.prior)) * contextFactor(cause, given.context, given.deniedContext);
    return { cause, priorOdds, entry: entryOf({ knowledge, given, evidence, shared, present, cause, priorOdds }) };
  });
  const linked = entries.filter(({ entry }) => entry.links.length > 0);
  const apart = entries.filter(({ entry }) => entry.links.length === 0);
  return {
    network: {
      findings: [
        ...present.map(() => ({ leak: knowledge.leak, isSymptom: true })),
        ...shared.map((one) => ({ leak: (1 - specificityOf(knowledge, one.check)) ** looksAt(given, one), isSymptom: false })),
      ],
      causes: linked.map(({ entry }) => entry),
    },
    linked: linked.map(({ cause }) => cause),
    apart: new Map(apart.map(({ cause, entry }) => [cause.id, (entry.odds * entry.silence) / (1 + entry.odds * entry.silence)])),
    present,
    logAside:
      entries.reduce((sum, { priorOdds }) => sum - Math.log1p(priorOdds), 0) +
      apart.reduce((sum, { entry }) => sum + Math.log1p(entry.odds * entry.silence), 0),
  };
}

const looksAt = (given: Case, one: CaseEvidence): number => looksBehind(given.evidence, one, given.stale);

/** A finding of a check this machine does not have: no better than a guess. */
const UNKNOWN_CHECK = { sensitivity: 0.5, specificity: 0.5 };

/** Where geometry all but rules it out. Physics, kept from nought by what nobody thought of. */
const HARDLY = 0.03;

/**
 * What a cause shows in this case. Of symptoms it shows only one of, half its strength is each one's, and what is seen of one says nothing
 * against it by the others that are not.
 */
function linksIn(given: Case, { links, oneOf }: KnownCause): { symptom: SymptomId; probability: number }[] {
  const seen = oneOf.filter((symptom) => given.symptoms[symptom] === "present");
  return links.flatMap(({ symptom, probability, hardlyWhen }) => {
    const here = hardlyWhen && given.context.includes(hardlyWhen) ? Math.min(HARDLY, probability) : probability;
    if (!oneOf.includes(symptom)) return [{ symptom, probability: here }];
    if (seen.length === 1 && seen[0] === symptom) return [{ symptom, probability: here }];
    // Too high and too low at once is two things, or said of two places.
    if (seen.length === 1) return given.symptoms[symptom] === "denied" ? [] : [{ symptom, probability: here }];
    return [{ symptom, probability: here / oneOf.length }];
  });
}

function specificityOf(knowledge: Knowledge, check: string): number {
  return (knowledge.checks.find(({ id }) => id === check) ?? UNKNOWN_CHECK).specificity;
}

function sensitivityOf(knowledge: Knowledge, check: string): number {
  return (knowledge.checks.find(({ id }) => id === check) ?? UNKNOWN_CHECK).sensitivity;
}

function entryOf(args: {
  knowledge: Knowledge;
  given: Case;
  evidence: readonly CaseEvidence[];
  shared: readonly { check: string; causes: readonly string[] }[];
  present: readonly SymptomId[];
  cause: KnownCause;
  priorOdds: number;
}): NetworkCause {
  const { knowledge, given, evidence, shared, present, cause } = args;
  const own = evidence.filter((one) => !isShared(one) && causesOf(one).includes(cause.id));
  const ratio = own.reduce((product, one) => product * ratioOf(knowledge, one, looksAt(given, one)), 1);
  const links = linksIn(given, cause);
  const denied = links.filter(({ symptom }) => given.symptoms[symptom] === "denied");
  const symptoms = links.flatMap(({ symptom, probability }) => {
    const finding = present.indexOf(symptom);
    return finding < 0 ? [] : [{ finding, probability }];
  });
  const figures = shared.flatMap(({ check, causes }, at) =>
    causes.includes(cause.id) ? [{ finding: present.length + at, probability: sensitivityOf(knowledge, check) }] : [],
  );
  return {
    odds: args.priorOdds * (given.place?.[cause.id] ?? 1) * ratio,
    silence: denied.reduce((silence, { probability }) => silence * (1 - probability), 1),
    links: [...symptoms, ...figures],
  };
}

/** Natural logarithm of the probability of all that is given, up to a factor that evidence and denials alone decide. */
export function logWeightOf(knowledge: Knowledge, given: Case): number {
  const { network, logAside } = assemble(knowledge, given);
  return logEvidence(network) + logAside;
}

/** That each cause is there, by id. */
export function presenceOf(knowledge: Knowledge, given: Case): Map<CauseId, number> {
  const { network, linked, apart } = assemble(knowledge, given);
  const found = presences(network);
  return new Map([...apart, ...linked.map(({ id }, index): [CauseId, number] => [id, found[index] ?? 0])]);
}
