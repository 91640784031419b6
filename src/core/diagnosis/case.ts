import { type CauseId, type CheckId, type ContextId, moversOf, rivalsMoving, type SymptomId } from "@/core/catalogue";
import { contextFactor } from "./context";
import { type CaseEvidence, causesOf, checkOf, isShared, looksBehind, ratioOf, standing } from "./evidence";
import type { Knowledge, KnownCause } from "./knowledge";
import { logEvidence, presences } from "./network";
import type { Network, NetworkCause } from "./network-shape";

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
  const shared = figuresOf({ knowledge, given, evidence, most: MOST_FIGURES - present.length });
  const cleared = clearedBeside(knowledge, evidence);
  const entries = knowledge.causes.map((cause) => {
    const priorOdds = (cause.prior / (1 - cause.prior)) * contextFactor(cause, given.context, given.deniedContext);
    return {
      cause,
      priorOdds,
      entry: entryOf({ knowledge, given, evidence, shared, present, cause, odds: priorOdds * (cleared.get(cause.id) ?? 1) }),
    };
  });
  const linked = entries.filter(({ entry }) => entry.links.length > 0);
  const apart = entries.filter(({ entry }) => entry.links.length === 0);
  return {
    network: {
      findings: [
        ...present.map(() => ({ leak: knowledge.leak, isSymptom: true })),
        ...shared.map(({ leak }) => ({ leak, isSymptom: false })),
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

/** A positive reading that more than one cause would have brought about: one finding, with how often each does, and how often it comes of nothing. */
type SharedFigure = { one: CaseEvidence; leak: number; shares: ReadonlyMap<string, number> };

/** More findings of readings than this cost more time than they tell: the last of them speak to their own cause alone. */
const MOST_FIGURES = 12;
/** How often a reading that is moved by several says so where its own cause is there. Estimate. */
const OWN_SHARE = 0.95;

const about = (one: CaseEvidence) => ({ check: checkOf(one) ?? "", causes: causesOf(one) });

/** How often a reading says so where its own cause is there: a suspicion as often as its check finds, anything plainer by the estimate. */
function shareOf(knowledge: Knowledge, one: CaseEvidence): number {
  const isSuspected = "result" in one && one.result === "suspect";
  return (isSuspected ? knowledge.checks.find(({ id }) => id === checkOf(one))?.sensitivity : undefined) ?? OWN_SHARE;
}

function figuresOf(args: { knowledge: Knowledge; given: Case; evidence: readonly CaseEvidence[]; most: number }): SharedFigure[] {
  const { knowledge, given, evidence } = args;
  const isKnown = (cause: string) => knowledge.causes.some(({ id }) => id === cause);
  const named = evidence.filter(isShared).filter(({ causes }) => causes.some(isKnown));
  const figures = named.map((one): SharedFigure => {
    const { sensitivity, specificity } = knowledge.checks.find(({ id }) => id === one.check) ?? UNKNOWN_CHECK;
    const own = new Map(one.causes.map((cause) => [cause, sensitivity]));
    return {
      one,
      leak: (1 - specificity ** (one.onePlaceOf ?? 1)) * (1 - specificity) ** (looksAt(given, one) - 1),
      shares: new Map([...moved({ ...about(one), share: sensitivity, isKnown }), ...own]),
    };
  });
  const moving = evidence.flatMap((one): SharedFigure[] => {
    if (isShared(one)) return [];
    const ratio = ratioOf(knowledge, one, looksAt(given, one));
    const share = shareOf(knowledge, one);
    const movers = ratio > 1 ? moved({ ...about(one), share, isKnown }) : new Map<string, number>();
    return movers.size === 0 ? [] : [{ one, leak: share / ratio, shares: new Map([...movers, [causesOf(one)[0] ?? "", share]]) }];
  });
  return [...figures, ...moving.slice(0, Math.max(0, args.most - figures.length))];
}

/** What else would have brought a reading about, listed or not, and how often. */
export function moved(args: {
  check: string;
  causes: readonly string[];
  share: number;
  isKnown: (cause: string) => boolean;
}): Map<string, number> {
  const rivals = rivalsMoving(args.check, args.causes).map(({ id }): [string, number] => [id, args.share]);
  return new Map([...moversOf(args.check, args.causes), ...rivals].filter(([cause]) => args.isKnown(cause)));
}

function entryOf(args: {
  knowledge: Knowledge;
  given: Case;
  evidence: readonly CaseEvidence[];
  shared: readonly SharedFigure[];
  present: readonly SymptomId[];
  cause: KnownCause;
  /** Of its being there, before what is seen and read of it. */
  odds: number;
}): NetworkCause {
  const { knowledge, given, evidence, shared, present, cause } = args;
  const own = evidence.filter((one) => !shared.some((figure) => figure.one === one) && !isShared(one) && causesOf(one).includes(cause.id));
  const ratio = own.reduce((product, one) => product * ratioOf(knowledge, one, looksAt(given, one)), 1);
  const links = linksIn(given, cause);
  const denied = links.filter(({ symptom }) => given.symptoms[symptom] === "denied");
  const symptoms = links.flatMap(({ symptom, probability }) => {
    const finding = present.indexOf(symptom);
    return finding < 0 ? [] : [{ finding, probability }];
  });
  const figures = shared.flatMap(({ shares }, at) => {
    const probability = shares.get(cause.id);
    return probability === undefined ? [] : [{ finding: present.length + at, probability }];
  });
  return {
    odds: args.odds * (given.place?.[cause.id] ?? 1) * ratio,
    silence: denied.reduce((silence, { probability }) => silence * (1 - probability), 1),
    links: [...symptoms, ...figures],
  };
}

/**
 * By cause, what readings that are right leave of the odds of those that would have moved them: each leaves a reading right the seldomer, the plainer
 * it is right.
 */
function clearedBeside(knowledge: Knowledge, evidence: readonly CaseEvidence[]): Map<string, number> {
  const cleared = new Map<string, number>();
  for (const one of evidence) {
    const ratio = isShared(one) ? 1 : ratioOf(knowledge, one);
    if (ratio >= 1) continue;
    for (const [cause, share] of moved({ ...about(one), share: OWN_SHARE, isKnown: () => true })) {
      cleared.set(cause, (cleared.get(cause) ?? 1) * (1 - share * (1 - ratio)));
    }
  }
  return cleared;
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
