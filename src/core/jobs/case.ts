import {
  type Case,
  type CaseEvidence,
  causesOfOne,
  knowledgeOf,
  meaningOf,
  type PlaceMeaning,
  placeOdds,
  type SwathPlace,
  type SymptomState,
} from "@/core/diagnosis";
import { type Evidence, type Finding, onePlaceOf } from "@/core/findings";
import { featuresOf, kindById } from "@/core/kinds";
import { cuttersOf, type Machine } from "@/core/machine";
import { type CheckId, type ContextId, causesNow, type SymptomId } from "@/core/trade";
import type { TestCut } from "./test-cut";

export type SaidLooks = {
  symptoms: readonly SymptomId[];
  denied: readonly SymptomId[];
  swath?: SwathPlace | undefined;
  contexts: readonly ContextId[];
};

/** Asked and answered after the complaint; a later answer replaces an earlier one. */
export type Answers = { symptoms: Partial<Record<SymptomId, SymptomState | "unknown">>; contexts: Partial<Record<ContextId, boolean>> };

/**
 * What the symptoms stand on now. After a fix nobody knows until the test cut; a cut that is all alike has none of them left, any other
 * brings them back as complained of.
 */
export type SymptomStanding = "as-complained" | "unknown-until-cut" | "gone" | "back-after-cut";

/** The same place looked at, or the same figure read, once more: still so, or not. */
export type SecondLook = { cause: string; isStillSo: boolean };

export type JobCase = { given: Case; meaning: PlaceMeaning; standing: SymptomStanding; done: CheckId[]; asked: ContextId[] };

/** A job's complaint, answers, log and readings as one case. Takes oldest first; `seq` places of the machine's log. */
export function caseOfJob(args: {
  machine: Machine;
  complaints: readonly SaidLooks[];
  answers: readonly Answers[];
  ticked: readonly ContextId[];
  takes: readonly {
    check: CheckId;
    evidence: readonly Evidence[];
    isStale: boolean;
    /** Places it read in full and found right. */
    soundPlaces?: readonly string[];
    /** What it found and where, and the places it read in full. */
    findings?: readonly Finding[];
    told?: readonly string[];
    /** What was looked at once more after it, oldest first. */
    seconds?: readonly SecondLook[];
  }[];
  fixedSeqs: readonly number[];
  testCuts: readonly Pick<TestCut, "seq" | "looks">[];
}): JobCase {
  const { cutsWith } = kindById(args.machine.kind);
  const knowledge = knowledgeOf({ cutsWith, features: featuresOf(args.machine) });
  const standing = standingOf(args);
  const isKnown = standing === "as-complained" || standing === "back-after-cut";
  const swath = args.complaints.findLast((looks) => looks.swath)?.swath;
  const meaning = meaningOf(args.machine, swath);
  const stale = [...new Set(args.takes.filter(({ isStale }) => isStale).map(({ check }) => check))];
  const fresh = args.takes.filter(({ isStale }) => !isStale);
  const cutters = cuttersOf(args.machine);
  return {
    given: {
      symptoms: isKnown ? symptomsOf(args) : {},
      context: contextsOf(args),
      deniedContext: deniedContexts(args),
      evidence: fresh.flatMap((take) => [...evidenceOf(take, cutters), ...clearedWhereComplained(take, meaning)]),
      place: placeOdds(knowledge, meaning),
      stale: stale.filter((check) => !fresh.some((take) => take.check === check)),
    },
    meaning,
    standing,
    done: [...new Set(args.takes.map(({ check }) => check))],
    asked: args.answers.flatMap(({ contexts }) => Object.keys(contexts) as ContextId[]),
  };
}

/**
 * Where one blade or unit is complained of, a sound reading of that one speaks against what could be the matter with it alone, whether its sisters were
 * read or not; what the check found anywhere it does not take back.
 */
function clearedWhereComplained(
  { check, evidence, soundPlaces = [] }: { check: CheckId; evidence: readonly Evidence[]; soundPlaces?: readonly string[] },
  meaning: PlaceMeaning,
): CaseEvidence[] {
  if (meaning.kind !== "on-one" || !soundPlaces.includes(meaning.cutter)) return [];
  const told = evidence.flatMap(causesIn);
  return causesOfOne(check)
    .filter((cause) => !told.includes(cause))
    .map((cause): CaseEvidence => ({ check, cause, result: "not-found" }));
}

/** A look a second time agrees, and then says the same once more; or differs, and then neither tells. */
function evidenceOf(take: Parameters<typeof caseOfJob>[0]["takes"][number], cutters: readonly string[]): CaseEvidence[] {
  const { check, evidence, findings = [], told = [], seconds = [] } = take;
  const own = evidence.flatMap(asListedNow).map((one): CaseEvidence => {
    const places = onePlaceOf({ cutters, findings, told, causes: causesIn(one) });
    return { check, ...one, ...(places ? { onePlaceOf: places } : {}) };
  });
  const about = (cause: string) => own.filter((one) => causesIn(one).includes(cause));
  return [
    ...own,
    ...seconds.flatMap(({ cause, isStillSo }): CaseEvidence[] => (isStillSo ? about(cause) : [{ check, cause, result: "unclear" }])),
  ];
}

/** Of a cause that is several now, an earlier reading says that one of them is there, or that none is. */
function asListedNow(one: Evidence): Evidence[] {
  if ("causes" in one) return [one];
  const causes = causesNow(one.cause);
  if (causes.length === 1 || "likelihoodRatio" in one || one.result === "unclear" || one.result === "not-found")
    return causes.map((cause) => ({ ...one, cause }));
  return [{ check: one.check, causes: [...causes], result: "suspect" }];
}

const causesIn = (one: Evidence | CaseEvidence): readonly string[] => ("causes" in one ? one.causes : [one.cause]);

/** Every cause that what a check says is for, in its order; one it names twice stands twice. */
export function spokenFor(evidence: readonly (Evidence | CaseEvidence)[]): string[] {
  return evidence.flatMap((one) => {
    const isFor = "likelihoodRatio" in one ? one.likelihoodRatio > 1 : one.result === "seen" || one.result === "suspect";
    return isFor ? causesIn(one) : [];
  });
}

function standingOf({
  fixedSeqs,
  testCuts,
}: {
  fixedSeqs: readonly number[];
  testCuts: readonly Pick<TestCut, "seq" | "looks">[];
}): SymptomStanding {
  const lastFix = Math.max(0, ...fixedSeqs);
  const lastCut = [...testCuts].sort((a, b) => a.seq - b.seq).at(-1);
  if (lastFix > 0 && (!lastCut || lastCut.seq < lastFix)) return "unknown-until-cut";
  if (!lastCut) return "as-complained";
  return lastCut.looks === "all-alike" ? "gone" : "back-after-cut";
}

/** What is complained of now, from every complaint and answer. */
export function complainedOf(args: { complaints: readonly SaidLooks[]; answers: readonly Answers[] }): SymptomId[] {
  return (Object.entries(symptomsOf(args)) as [SymptomId, SymptomState][]).flatMap(([id, state]) => (state === "present" ? [id] : []));
}

/** What any complaint shows is there; what one denies and no other shows is not; later answers go before both. */
function symptomsOf({ complaints, answers }: { complaints: readonly SaidLooks[]; answers: readonly Answers[] }): Case["symptoms"] {
  const states = new Map<SymptomId, SymptomState>();
  for (const { denied } of complaints) for (const id of denied) states.set(id, "denied");
  for (const { symptoms } of complaints) for (const id of symptoms) states.set(id, "present");
  for (const answer of answers) {
    for (const [id, state] of Object.entries(answer.symptoms) as [SymptomId, SymptomState | "unknown"][]) {
      if (state === "unknown") states.delete(id);
      else states.set(id, state);
    }
  }
  return Object.fromEntries(states);
}

/** Answered no last, and neither said nor logged otherwise. */
function deniedContexts(args: Parameters<typeof contextsOf>[0]): ContextId[] {
  const there = contextsOf(args);
  const last = new Map(args.answers.flatMap(({ contexts }) => Object.entries(contexts) as [ContextId, boolean][]));
  return [...last].flatMap(([id, isSo]) => (isSo || there.includes(id) ? [] : [id]));
}

/** Said, logged or answered yes; an answer of no takes one away again. Of the two that cannot both be true the later said counts. */
function contextsOf(args: { complaints: readonly SaidLooks[]; answers: readonly Answers[]; ticked: readonly ContextId[] }): ContextId[] {
  const there = new Set<ContextId>([...args.ticked]);
  const add = (id: ContextId) => {
    if (id === "one-machine-only") there.delete("all-machines");
    if (id === "all-machines") there.delete("one-machine-only");
    there.add(id);
  };
  for (const { contexts } of args.complaints) for (const id of contexts) add(id);
  for (const { contexts } of args.answers) {
    for (const [id, isSo] of Object.entries(contexts) as [ContextId, boolean][]) {
      if (isSo) add(id);
      else there.delete(id);
    }
  }
  return [...there];
}
