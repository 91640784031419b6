import { isOffered } from "@/core/checks";
import { CHECKS, type CheckId, type CheckRow, type EventId, FIXES, type FixRow } from "@/core/diagnosis";
import { type LoggedEvent, type StaleReason, staleReasons } from "@/core/events";
import type { Verdict } from "@/core/findings";
import type { Machine } from "@/core/machine";

export type TakeRecord = { id: number; check: CheckId; at: string; verdict: Verdict; isProvisional: boolean };
export type FixRecord = { id: number; fix: string; cause: string; at: string };

export const CUT_LOOKS = ["all-alike", "better", "same", "worse"] as const;
export const CUT_TURFS = ["good", "thin", "other-lawn"] as const;
export type TestCut = { at: string; looks: (typeof CUT_LOOKS)[number]; turf: (typeof CUT_TURFS)[number] };

/** What a test cut proves (common practice): all alike on good turf is proof, thin grass shows only that the blades turn. */
export type CutGrade = "proof" | "looks-right" | "blades-turn" | "not-cured";

export type ProofGap =
  | { code: "nothing-changed" }
  | { code: "not-read-again"; check: CheckId }
  | { code: "still-out"; check: CheckId; verdict: Verdict }
  | { code: "stale"; check: CheckId; reasons: StaleReason[] }
  | { code: "provisional"; check: CheckId }
  | { code: "no-test-cut" }
  | { code: "test-cut-older-than-change" }
  | { code: "test-cut-not-proof"; grade: CutGrade };

export type Proof = {
  isProved: boolean;
  gaps: ProofGap[];
  /** Checks that had to come good, and which changes lie between the bad reading and the good one. */
  required: { check: CheckId; isGood: boolean; changedBetween: number[] }[];
  cut?: CutGrade;
};

const checkRows: readonly CheckRow[] = CHECKS;
const fixRows: readonly FixRow[] = FIXES;

export function gradeCut({ looks, turf }: Pick<TestCut, "looks" | "turf">): CutGrade {
  if (looks === "same" || looks === "worse") return "not-cured";
  if (turf === "thin") return "blades-turn";
  return turf === "good" && looks === "all-alike" ? "proof" : "looks-right";
}

/**
 * Whether a job is proved, worked out from what was read: every check that was out, or that proves a fix made, read again after
 * the last change that touches it, in tolerance, neither stale nor provisional; and a test cut after the last change that is proof.
 */
export function workOutProof(args: {
  machine: Machine;
  takes: readonly TakeRecord[];
  fixes: readonly FixRecord[];
  testCuts: readonly TestCut[];
  events: readonly LoggedEvent[];
}): Proof {
  const needed = requiredChecks(args);
  const required = needed.map((check) => {
    const gap = gapOf({ ...args, check });
    return { check, gap, isGood: gap === undefined, changedBetween: changesBetween({ ...args, check }) };
  });
  const cutGap = cutGapOf(args);
  const nothing: ProofGap[] = args.fixes.length === 0 && needed.length === 0 ? [{ code: "nothing-changed" }] : [];
  const gaps = [...nothing, ...required.flatMap(({ gap }) => (gap ? [gap] : [])), ...(cutGap ? [cutGap] : [])];
  const last = latest(args.testCuts);
  return {
    isProved: gaps.length === 0,
    gaps,
    required: required.map(({ check, isGood, changedBetween }) => ({ check, isGood, changedBetween })),
    ...(last ? { cut: gradeCut(last) } : {}),
  };
}

/** What is owed once a deck was off and is on again, or a gearbox was opened, whatever it was for; of these what the machine can have. */
const OWED_AFTER: Partial<Record<EventId, readonly CheckId[]>> = {
  "deck-off": ["deck-level", "belt-inspection", "blade-timing"],
  "gearbox-off": ["gearbox-inspection", "blade-timing"],
};

function requiredChecks(args: {
  machine: Machine;
  takes: readonly TakeRecord[];
  fixes: readonly FixRecord[];
  events: readonly LoggedEvent[];
}): CheckId[] {
  const wasBad = args.takes.filter(({ verdict }) => verdict === "out" || verdict === "stop").map(({ check }) => check);
  const proving = args.fixes.flatMap(({ fix, cause }) => fixRows.find((row) => row.fix === fix && row.cause === cause)?.provedBy ?? []);
  const owed = args.events.flatMap(({ event }) => OWED_AFTER[event] ?? []);
  const wanted = new Set<string>([...wasBad, ...proving, ...owed]);
  return checkRows.filter((row) => wanted.has(row.id) && isOffered(row, args.machine)).map(({ id }) => id as CheckId);
}

function latest<T extends { at: string }>(records: readonly T[]): T | undefined {
  return [...records].sort((a, b) => b.at.localeCompare(a.at))[0];
}

function gapOf(args: {
  machine: Machine;
  check: CheckId;
  takes: readonly TakeRecord[];
  fixes: readonly FixRecord[];
  events: readonly LoggedEvent[];
}): ProofGap | undefined {
  const { check } = args;
  const take = latest(args.takes.filter((one) => one.check === check));
  const touching = args.fixes.filter(({ fix, cause }) =>
    fixRows.some((row) => row.fix === fix && row.cause === cause && row.provedBy.includes(check)),
  );
  const lastChange = latest(touching);
  if (!take || (lastChange && take.at <= lastChange.at)) return { code: "not-read-again", check };
  if (take.verdict !== "in-tolerance") return { code: "still-out", check, verdict: take.verdict };
  const reasons = staleReasons({ machine: args.machine, check, takenAt: take.at, events: args.events });
  if (reasons.length > 0) return { code: "stale", check, reasons };
  return take.isProvisional ? { code: "provisional", check } : undefined;
}

/** Ids of the fixes made between the last bad reading of a check and the good one after it. */
function changesBetween(args: { check: CheckId; takes: readonly TakeRecord[]; fixes: readonly FixRecord[] }): number[] {
  const takes = args.takes.filter(({ check }) => check === args.check).sort((a, b) => a.at.localeCompare(b.at));
  const lastBad = takes.findLast(({ verdict }) => verdict === "out" || verdict === "stop");
  const good = takes.find(({ verdict, at }) => verdict === "in-tolerance" && (!lastBad || at > lastBad.at));
  if (!lastBad || !good) return [];
  return args.fixes.filter(({ at }) => at > lastBad.at && at < good.at).map(({ id }) => id);
}

/** Events that do not change how the machine cuts. */
const HARMLESS: readonly EventId[] = ["run", "held-out", "released"];

function cutGapOf(args: {
  testCuts: readonly TestCut[];
  fixes: readonly FixRecord[];
  events: readonly LoggedEvent[];
  takes: readonly TakeRecord[];
}): ProofGap | undefined {
  const cut = latest(args.testCuts);
  if (!cut) return { code: "no-test-cut" };
  const changed = [...args.fixes.map(({ at }) => at), ...args.events.filter(({ event }) => !HARMLESS.includes(event)).map(({ at }) => at)];
  if (changed.some((at) => at > cut.at)) return { code: "test-cut-older-than-change" };
  const grade = gradeCut(cut);
  return grade === "proof" ? undefined : { code: "test-cut-not-proof", grade };
}
