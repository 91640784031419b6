import type { Finding, Verdict } from "@/core/basics/findings";
import type { CheckId } from "@/core/catalogue";
import { type LoggedEvent, type StaleReason, staleReasonsAt } from "@/core/job/staleness";
import { type Machine, unitsAcross } from "@/core/machine";

/** A unit on the bench, in working order (common practice: bearings and rollers, clean, square, contact, height, groomer, then the turf). */
export const BENCH_ORDER = [
  "unit-match",
  "arm-play",
  "roller-clean",
  "roller-bearing",
  "reel-bearing",
  "reel-edge",
  "reel-cone",
  "roller-square",
  "roller-position",
  "reel-contact",
  "bedknife-attitude",
  "cutting-height",
  "groomer-depth",
  "reel-speed",
] as const satisfies readonly CheckId[];

/** A reading that counts, in any order: order is by `seq`. */
export type BenchTake = { checkId: string; seq: number; at: string; result: { told: readonly string[]; findings: readonly Finding[] } };

export type BenchStatus =
  | { kind: "unread" }
  | { kind: "read"; verdict: Verdict; at: string; codes: string[] }
  /** Read, and something happened to this unit since. */
  | { kind: "again"; because: StaleReason };

export type BenchCell = { check: CheckId; status: BenchStatus };
export type BenchUnit = { unit: string; cells: BenchCell[]; next?: CheckId };

const GRAVITY: readonly Verdict[] = ["stop", "out", "not-enough-readings", "watch", "in-tolerance"];

/** Where a check has no units of its own, it is read of the machine as a whole. */
const WHOLE = "machine";

type Of = { machine: Machine; unit: string; check: CheckId; events: readonly LoggedEvent[] };

/**
 * From the takes of a check that say anything of this unit, newest first: what was read of it in full last, and whatever was found there in part or only
 * looked at since, which hides nothing of it.
 */
function statusOf({ machine, unit, check, events }: Of, takes: readonly BenchTake[]): BenchStatus {
  const own = (place: string) => place === unit || place === WHOLE;
  const about = takes.filter(({ result }) => result.told.some(own) || result.findings.some(({ place }) => own(place)));
  const [newest] = about;
  if (!newest) return { kind: "unread" };
  const reasons = (take: BenchTake) => staleReasonsAt({ machine, check, takenSeq: take.seq, events, place: unit });
  const [because] = reasons(newest);
  if (because) return { kind: "again", because };
  const full = about.findIndex(({ result }) => result.told.some(own));
  const standing = about.slice(0, full < 0 ? about.length : full + 1).filter((take) => take === newest || reasons(take).length === 0);
  const found = standing.flatMap(({ result }) => result.findings.filter(({ place }) => own(place)));
  const isTold = standing.some(({ result }) => result.told.some(own));
  const worst = GRAVITY.find((verdict) => found.some((one) => one.verdict === verdict));
  // A unit read in part is no better than what was read of it.
  const verdict = worst === undefined || (!isTold && worst !== "out" && worst !== "stop") ? "not-enough-readings" : worst;
  const codes = found.filter((one) => one.verdict !== "in-tolerance").map(({ code }) => code);
  return { kind: "read", verdict, at: newest.at, codes: [...new Set(codes)] };
}

const isDone = ({ status }: BenchCell): boolean =>
  status.kind === "read" && (status.verdict === "in-tolerance" || status.verdict === "watch");

/**
 * All units of a machine through the bench: how each step stands by unit, from the readings and what happened to that unit since, and which step is
 * next: the first in working order that is not right. An event at another unit leaves this one's readings standing. `offered`: checks the machine has.
 */
export function benchOf(args: {
  machine: Machine;
  takes: readonly BenchTake[];
  events: readonly LoggedEvent[];
  offered: readonly string[];
}): BenchUnit[] {
  const { machine, takes, events, offered } = args;
  const steps = BENCH_ORDER.filter((check) => offered.includes(check));
  const newestFirst = [...takes].sort((a, b) => b.seq - a.seq);
  const byCheck = new Map(steps.map((check) => [check, newestFirst.filter(({ checkId }) => checkId === check)]));
  return unitsAcross(machine).map(({ id: unit }) => {
    const cells = steps.map(
      (check): BenchCell => ({ check, status: statusOf({ machine, unit, check, events }, byCheck.get(check) ?? []) }),
    );
    const next = cells.find((cell) => !isDone(cell));
    return { unit, cells, ...(next ? { next: next.check } : {}) };
  });
}
