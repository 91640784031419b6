import type { Verdict } from "@/core/basics/findings";
import { CHECKS, type CheckId, type CheckRow, type EventId, fixRow, type SymptomId } from "@/core/catalogue";
import { isOffered } from "@/core/checks";
import { type LoggedEvent, type StaleReason, staleReasons, staleReasonsAt } from "@/core/job/staleness";
import { type MachineState, mayRun, type RunReason, type Unsafe } from "@/core/job/status";
import type { Machine } from "@/core/machine";
import { askedForItself, type CutDoubt, type CutGrade, type CutWanted, doubtsOf, gradeCut, isSeenInGrass, type TestCut } from "./test-cut";

/** `seq`: where it stands in the machine's log; a correction stands where what it corrects stood. */
export type TakeRecord = {
  id: number;
  check: CheckId;
  seq: number;
  verdict: Verdict;
  isProvisional: boolean;
  /** Figures it has, by id. */
  figures?: readonly string[];
  /** Where something was out or a stop. */
  badPlaces?: readonly string[];
  /** Read in full and found right. */
  soundPlaces?: readonly string[];
  /** Places it is provisional at; `undefined` among them: as a whole. */
  doubtfulPlaces?: readonly (string | undefined)[];
};
/** `units`: of a reel machine, those it was done on; all of them where none is named. */
export type FixRecord = { id: number; fix: string; cause: string; seq: number; units?: readonly string[] | undefined };

export type ProofGap =
  | { code: "nothing-changed" }
  | { code: "not-read-again"; check: CheckId }
  /** A reading of the cut that was made before anything was cut since the fix. */
  | { code: "read-before-cut"; check: CheckId }
  | { code: "still-out"; check: CheckId; verdict: Verdict }
  | { code: "stale"; check: CheckId; reasons: StaleReason[] }
  | { code: "provisional"; check: CheckId }
  | { code: "no-test-cut" }
  | { code: "test-cut-older-than-change" }
  | { code: "test-cut-not-proof"; grade: CutGrade; doubts: CutDoubt[] }
  /** Complained of, not seen in grass, and nobody asked since the last change whether it is gone; or it is not. */
  | { code: "symptom-not-asked" | "symptom-still-there"; symptom: SymptomId }
  | { code: "blades-not-seen-cutting" }
  | { code: "open-on-machine"; reason: RunReason }
  /** Let go by word only. */
  | { code: "released-unread"; cause: Unsafe };

/** What exactly is owed where its code alone does not say: a gap of the proof, what a part was handed over with, or what was let go of by word. */
export type OwedDetail =
  | { gap: ProofGap }
  | { what: string; to: string; owes: string }
  /** Reasons that kept a machine from running, written down by one and let go of by another's word. */
  | { letGo: { code: string; place?: string }[]; of: string; by: string; reason: string };

export type Proof = {
  isProved: boolean;
  gaps: ProofGap[];
  /** Checks that had to come good, and which changes lie between the bad reading and the good one. */
  required: { check: CheckId; isGood: boolean; changedBetween: number[] }[];
  /** What a cut has to be to count here. */
  wanted: CutWanted;
  cut?: CutGrade;
  /** Complained of and asked for itself at the cut. */
  asks: SymptomId[];
};

const checkRows: readonly CheckRow[] = CHECKS;

export type ProofArgs = {
  machine: Machine;
  state: MachineState;
  /** What is complained of, from every complaint and answer. */
  complained: readonly SymptomId[];
  /** Whether a complaint names the place it was seen. */
  hasPlace: boolean;
  takes: readonly TakeRecord[];
  fixes: readonly FixRecord[];
  testCuts: readonly TestCut[];
  /** Of the machine since the job began. */
  events: readonly LoggedEvent[];
  /** Gearboxes put together step by step; a line in the log that one was off is no such round. */
  rebuilt?: readonly { box: string; seq: number }[];
};

/**
 * Whether a job is proved, worked out from what was read: every check that was out, or that proves a fix made, read again after the last change
 * that touches it, in tolerance, neither stale nor provisional; a test cut after the last change that is proof of what was seen in grass; what
 * was heard, felt or caught asked for itself; and nothing on the machine that keeps it from running.
 */
export function workOutProof(args: ProofArgs): Proof {
  const needed = requiredChecks(args);
  const required = needed.map((check) => {
    const gap = gapOf({ ...args, check });
    return { check, gap, isGood: gap === undefined, changedBetween: changesBetween({ ...args, check }) };
  });
  const wanted = wantedOf(args);
  const cutGap = cutGapOf(args, wanted);
  const nothing: ProofGap[] = args.fixes.length === 0 && needed.length === 0 ? [{ code: "nothing-changed" }] : [];
  const found = [
    ...nothing,
    ...required.flatMap(({ gap }) => (gap ? [gap] : [])),
    ...(cutGap ? [cutGap] : []),
    ...symptomGaps(args),
    ...machineGaps(args.state),
  ];
  const gaps = found.length > 0 ? found : handsOn(args.state);
  const last = latest(args.testCuts);
  return {
    isProved: gaps.length === 0,
    gaps,
    required: required.map(({ check, isGood, changedBetween }) => ({ check, isGood, changedBetween })),
    wanted,
    asks: askedForItself(args.complained),
    ...(last ? { cut: gradeCut(last, wanted) } : {}),
  };
}

/** What is owed once a deck was off and is on again, or a gearbox was opened, whatever it was for; of these what the machine can have. */
const OWED_AFTER: Partial<Record<EventId, readonly CheckId[]>> = {
  "deck-off": ["deck-level", "belt-inspection", "blade-timing"],
  "gearbox-off": ["blade-timing"],
};

function requiredChecks(args: Pick<ProofArgs, "machine" | "takes" | "fixes" | "events" | "rebuilt">): CheckId[] {
  // Each part of a box that was taken apart step by step was in a hand, and asked about, on the way together: its cover stays on.
  const isRebuilt = (box: string, since: number) => (args.rebuilt ?? []).some((one) => one.box === box && one.seq > since);
  const wasBad = args.takes
    .filter(({ verdict }) => verdict === "out" || verdict === "stop")
    .filter(
      ({ check, seq, badPlaces = [] }) =>
        check !== "gearbox-inspection" || badPlaces.length === 0 || !badPlaces.every((box) => isRebuilt(box, seq)),
    )
    .map(({ check }) => check);
  const proving = args.fixes.flatMap(({ fix, cause }) => fixRow({ fix, cause })?.provedBy ?? []);
  const owed = args.events.flatMap(({ event }) => OWED_AFTER[event] ?? []);
  const wanted = new Set<string>([...wasBad, ...proving, ...owed]);
  return checkRows.filter((row) => wanted.has(row.id) && isOffered(row, args.machine)).map(({ id }) => id as CheckId);
}

function latest<T extends { seq: number }>(records: readonly T[]): T | undefined {
  return [...records].sort((a, b) => b.seq - a.seq)[0];
}

function gapOf(args: ProofArgs & { check: CheckId }): ProofGap | undefined {
  const { check } = args;
  const take = latest(args.takes.filter((one) => one.check === check));
  const touching = args.fixes.filter(({ fix, cause }) => fixRow({ fix, cause })?.provedBy.includes(check));
  const lastChange = latest(touching);
  if (!take || (lastChange && take.seq <= lastChange.seq)) return { code: "not-read-again", check };
  const places = namedPlaces(args, touching);
  const isGoodThere = places !== undefined && isGoodAt(take, places);
  if (take.verdict !== "in-tolerance" && !isGoodThere) return { code: "still-out", check, verdict: take.verdict };
  const since = { machine: args.machine, check, takenSeq: take.seq, events: args.events };
  const reasons = isGoodThere ? places.flatMap((place) => staleReasonsAt({ ...since, place })) : staleReasons(since);
  if (reasons.length > 0) return { code: "stale", check, reasons };
  if (READ_OF_THE_CUT.includes(check) && lastChange && !wasCutBetween(args, lastChange.seq, take.seq))
    return { code: "read-before-cut", check };
  return take.isProvisional && !isGoodThere ? { code: "provisional", check } : undefined;
}

/** What is read off the turf: after a fix it says nothing before something was cut. */
export const READ_OF_THE_CUT: readonly CheckId[] = ["cutting-height"];

/** A test cut, not any run: driven to the shed nothing was cut. */
const wasCutBetween = ({ testCuts }: Pick<ProofArgs, "testCuts">, from: number, to: number): boolean =>
  testCuts.some(({ seq }) => seq > from && seq < to);

/**
 * Places that the bad readings of a check and the fixes it proves name: its sisters stand. `undefined` where one of them names none, since then it
 * was a matter of the whole machine.
 */
function namedPlaces(args: Pick<ProofArgs, "takes"> & { check: CheckId }, touching: readonly FixRecord[]): string[] | undefined {
  const bad = args.takes.filter(({ check, verdict }) => check === args.check && (verdict === "out" || verdict === "stop"));
  const named = [...touching.map(({ units }) => units), ...bad.map(({ badPlaces }) => badPlaces)];
  if (named.length === 0 || named.some((places) => places === undefined || places.length === 0)) return undefined;
  return [...new Set(named.flatMap((places) => places ?? []))];
}

/** Read in full and right at all of these, nothing bad anywhere, and no doubt about any of them or about the whole. */
function isGoodAt({ soundPlaces = [], badPlaces = [], doubtfulPlaces = [] }: TakeRecord, places: readonly string[]): boolean {
  const isDoubtful = doubtfulPlaces.some((place) => place === undefined || places.includes(place));
  return badPlaces.length === 0 && !isDoubtful && places.every((place) => soundPlaces.includes(place));
}

/** Ids of the fixes made between the last bad reading of a check and the good one after it. */
function changesBetween(args: Pick<ProofArgs, "takes" | "fixes"> & { check: CheckId }): number[] {
  const takes = args.takes.filter(({ check }) => check === args.check).sort((a, b) => a.seq - b.seq);
  const lastBad = takes.findLast(({ verdict }) => verdict === "out" || verdict === "stop");
  const good = takes.find(({ verdict, seq }) => verdict === "in-tolerance" && (!lastBad || seq > lastBad.seq));
  if (!lastBad || !good) return [];
  return args.fixes.filter(({ seq }) => seq > lastBad.seq && seq < good.seq).map(({ id }) => id);
}

function wantedOf({ complained, hasPlace, fixes }: Pick<ProofArgs, "complained" | "hasPlace" | "fixes">): CutWanted {
  return {
    samePatch: hasPlace && isSeenInGrass(complained),
    sameDriver: fixes.some(({ fix, cause }) => fixRow({ fix, cause })?.event === "operator-briefed"),
  };
}

/** Events that do not change how the machine cuts. */
const HARMLESS: readonly EventId[] = ["run", "held-out", "released"];

/** Where in the log the machine was last changed; 0 where it was not. */
function lastChangeSeq({ fixes, events }: Pick<ProofArgs, "fixes" | "events">): number {
  const changes = events.filter(({ event }) => !HARMLESS.includes(event)).map(({ seq }) => seq);
  return Math.max(0, ...fixes.map(({ seq }) => seq), ...changes);
}

function cutGapOf(args: ProofArgs, wanted: CutWanted): ProofGap | undefined {
  const cut = latest(args.testCuts);
  if (!cut) return { code: "no-test-cut" };
  if (lastChangeSeq(args) > cut.seq) return { code: "test-cut-older-than-change" };
  const grade = gradeCut(cut, wanted);
  if (grade === "proof" || (grade !== "not-cured" && !isSeenInGrass(args.complained))) return undefined;
  return { code: "test-cut-not-proof", grade, doubts: doubtsOf(cut, wanted) };
}

/** Checks whose good reading says by a figure what was complained of; `figure`: only where it has that one. */
const PROVES_SYMPTOM: Partial<Record<SymptomId, { check: CheckId; figure?: string }>> = {
  vibration: { check: "vibration-reading" },
  "hot-hub": { check: "spindle-play", figure: "hub-heat" },
  "blade-stopped": { check: "tip-speed" },
};

function symptomGaps(args: ProofArgs): ProofGap[] {
  const changed = lastChangeSeq(args);
  const cut = latest(args.testCuts.filter(({ seq }) => seq > changed));
  return askedForItself(args.complained).flatMap((symptom): ProofGap[] => {
    const said = cut?.symptoms?.[symptom];
    if (said === "still-there") return [{ code: "symptom-still-there", symptom }];
    const by = PROVES_SYMPTOM[symptom];
    const take = by && latest(args.takes.filter(({ check }) => check === by.check));
    const isRead =
      take !== undefined &&
      take.seq > changed &&
      take.verdict === "in-tolerance" &&
      !take.isProvisional &&
      (by?.figure === undefined || take.figures?.includes(by.figure) === true);
    return said === "gone" || isRead ? [] : [{ code: "symptom-not-asked", symptom }];
  });
}

/** Cut and all, and yet not put back, or somebody locked on to it: hands went back in after the cut, and it is no proved machine that stands so. */
function handsOn(state: MachineState): ProofGap[] {
  return mayRun(state, { to: "cut" }).reasons.flatMap((reason): ProofGap[] =>
    reason.code === "not-put-back" || reason.code === "locked-by" ? [{ code: "open-on-machine", reason }] : [],
  );
}

function machineGaps(state: MachineState): ProofGap[] {
  return [
    ...(state.beltUnproved ? [{ code: "blades-not-seen-cutting" as const }] : []),
    ...mayRun(state, { to: "prove" }).reasons.map((reason) => ({ code: "open-on-machine" as const, reason })),
    ...state.released.map(({ cause }) => ({ code: "released-unread" as const, cause })),
  ];
}
