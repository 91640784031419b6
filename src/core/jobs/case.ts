import {
  type Case,
  type CaseEvidence,
  knowledgeOf,
  meaningOf,
  type PlaceMeaning,
  placeOdds,
  type SwathPlace,
  type SymptomState,
} from "@/core/diagnosis";
import type { Evidence } from "@/core/findings";
import { featuresOf, kindById } from "@/core/kinds";
import type { Machine } from "@/core/machine";
import type { CheckId, ContextId, SymptomId } from "@/core/trade";
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

export type JobCase = { given: Case; meaning: PlaceMeaning; standing: SymptomStanding; done: CheckId[]; asked: ContextId[] };

/** A job's complaint, answers, log and readings as one case. Takes oldest first; `seq` places of the machine's log. */
export function caseOfJob(args: {
  machine: Machine;
  complaints: readonly SaidLooks[];
  answers: readonly Answers[];
  ticked: readonly ContextId[];
  takes: readonly { check: CheckId; evidence: readonly Evidence[]; isStale: boolean }[];
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
  return {
    given: {
      symptoms: isKnown ? symptomsOf(args) : {},
      context: contextsOf(args),
      evidence: fresh.flatMap(({ check, evidence }) => evidence.map((one): CaseEvidence => ({ check, ...one }))),
      place: placeOdds(knowledge, meaning),
      stale: stale.filter((check) => !fresh.some((take) => take.check === check)),
    },
    meaning,
    standing,
    done: [...new Set(args.takes.map(({ check }) => check))],
    asked: args.answers.flatMap(({ contexts }) => Object.keys(contexts) as ContextId[]),
  };
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
