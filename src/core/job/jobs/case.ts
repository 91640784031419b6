import { type Evidence, type Finding, onePlaceOf } from "@/core/basics/findings";
import { type CheckId, type ContextId, causesNow, type SymptomId } from "@/core/catalogue";
import { featuresOf, kindById } from "@/core/catalogue/kinds";
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
import { MENDED } from "@/core/diagnosis/levels";
import { cuttersOf, type Machine } from "@/core/machine";
import type { TestCut } from "./test-cut";

export type SaidLooks = {
  symptoms: readonly SymptomId[];
  denied: readonly SymptomId[];
  swath?: SwathPlace | undefined;
  contexts: readonly ContextId[];
};

/**
 * Asked and answered after the complaint, oldest first; a later answer replaces an earlier one. `seq`: its place in the machine's log. Told after a
 * mend it is a look taken again, and takes nothing out of the complaint.
 */
export type Answers = {
  symptoms: Partial<Record<SymptomId, SymptomState | "unknown">>;
  contexts: Partial<Record<ContextId, boolean>>;
  seq?: number | undefined;
};

/**
 * What the symptoms stand on now. After a fix nobody knows until the test cut, but for what was looked at again and is still so; a cut that is all
 * alike, with nothing else still there, has none of them left, any other brings them back.
 */
export type SymptomStanding = "as-complained" | "unknown-until-cut" | "still-so" | "gone" | "back-after-cut";

/** A cause that something was done about. */
export type Mend = { seq: number; cause: string };
/** Of ten mends nine hold (estimate): what is still so has another cause the sooner. */
const MENDED_RATIO = 0.1;

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
    seq?: number | undefined;
    /** Places it read in full and found right. */
    soundPlaces?: readonly string[];
    /** What it found and where, and the places it read in full. */
    findings?: readonly Finding[];
    told?: readonly string[];
    /** What was looked at once more after it, oldest first. */
    seconds?: readonly SecondLook[];
  }[];
  mends: readonly Mend[];
  testCuts: readonly CutTold[];
}): JobCase {
  const { cutsWith } = kindById(args.machine.kind);
  const knowledge = knowledgeOf({ cutsWith, features: featuresOf(args.machine) });
  const { standing, symptoms } = symptomsNow(args);
  const swath = args.complaints.findLast((looks) => looks.swath)?.swath;
  const meaning = meaningOf(args.machine, swath);
  const stale = [...new Set(args.takes.filter(({ isStale }) => isStale).map(({ check }) => check))];
  const fresh = args.takes.filter(({ isStale }) => !isStale);
  const cutters = cuttersOf(args.machine);
  return {
    given: {
      symptoms,
      context: contextsOf(args),
      deniedContext: deniedContexts(args),
      evidence: [
        ...fresh.flatMap((take) =>
          [...evidenceOf(take, cutters), ...clearedWhereComplained(take, meaning)].filter(isOfNow(take, args.mends)),
        ),
        ...mendedEvidence(fresh, args.mends),
      ],
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

/** Whether what a reading says of one cause is of the machine as it is: not where something was done about that cause since. */
function isOfNow({ seq }: Parameters<typeof caseOfJob>[0]["takes"][number], mends: readonly Mend[]) {
  return (one: CaseEvidence): boolean =>
    "causes" in one || seq === undefined || !mends.some(({ cause, seq: mended }) => cause === one.cause && mended > seq);
}

/** That something was done about a cause speaks against it, until a check made since says how it stands. */
function mendedEvidence(takes: Parameters<typeof caseOfJob>[0]["takes"], mends: readonly Mend[]): CaseEvidence[] {
  const isReadSince = ({ cause, seq: mended }: Mend) =>
    takes.some(({ seq = 0, evidence }) => seq > mended && evidence.some((one) => causesIn(one).includes(cause)));
  const last = [...new Map(mends.map((mend) => [mend.cause, mend])).values()];
  return last.filter((mend) => !isReadSince(mend)).map(({ cause }) => ({ check: MENDED, cause, likelihoodRatio: MENDED_RATIO }));
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

type CutTold = Pick<TestCut, "seq" | "looks" | "symptoms">;
type Told = Pick<Parameters<typeof caseOfJob>[0], "complaints" | "answers" | "mends" | "testCuts">;

/** What shows now, and where that is known from. */
function symptomsNow(args: Told): { standing: SymptomStanding; symptoms: Case["symptoms"] } {
  const mended = Math.max(0, ...args.mends.map(({ seq }) => seq));
  const cut = [...args.testCuts].sort((a, b) => a.seq - b.seq).at(-1);
  if (mended > 0 && (!cut || cut.seq < mended)) {
    const symptoms = symptomsOf({ complaints: [], answers: args.answers.filter(isAfter(mended)) });
    return { standing: Object.values(symptoms).includes("present") ? "still-so" : "unknown-until-cut", symptoms };
  }
  if (!cut) return { standing: "as-complained", symptoms: symptomsOf(args) };
  const symptoms = { ...afterCut(args, cut), ...symptomsOf({ complaints: [], answers: args.answers.filter(isAfter(cut.seq)) }) };
  return Object.values(symptoms).includes("present") ? { standing: "back-after-cut", symptoms } : { standing: "gone", symptoms: {} };
}

const isAfter =
  (than: number) =>
  ({ seq = 0 }: { seq?: number | undefined }): boolean =>
    seq > than;

/** What was complained of, as the cut left it: what was asked for itself as it was answered, the grass as it looked. */
function afterCut(args: Told, cut: CutTold): Case["symptoms"] {
  const before = args.answers.filter((one) => !isAfter(cut.seq)(one));
  const complained = complainedOf({ ...args, answers: before });
  const isAlike = cut.looks === "all-alike";
  const now = (id: SymptomId): SymptomState => {
    const told = cut.symptoms?.[id];
    if (told) return told === "gone" ? "denied" : "present";
    return isAlike ? "denied" : "present";
  };
  return { ...symptomsOf({ ...args, answers: before }), ...Object.fromEntries(complained.map((id) => [id, now(id)])) };
}

/**
 * What is complained of, from every complaint and answer. What is answered after the first mend adds to it and takes nothing out of it: it is gone
 * because of the mend, if it is, and is proved gone like the rest.
 */
export function complainedOf(args: {
  complaints: readonly SaidLooks[];
  answers: readonly Answers[];
  mends: readonly Pick<Mend, "seq">[];
}): SymptomId[] {
  const first = Math.min(...args.mends.map(({ seq }) => seq));
  const present = (states: Case["symptoms"]) =>
    Object.entries(states).flatMap(([id, state]) => (state === "present" ? [id as SymptomId] : []));
  const [after, before] = [args.answers.filter(isAfter(first)), args.answers.filter((one) => !isAfter(first)(one))];
  const since = after.flatMap(({ symptoms }) => present(symptoms as Case["symptoms"]));
  return [...new Set([...present(symptomsOf({ ...args, answers: before })), ...since])];
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
