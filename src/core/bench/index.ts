import { type LoggedEvent, type StaleReason, staleReasons } from "@/core/events";
import type { Finding, Verdict } from "@/core/findings";
import { type Machine, unitsAcross } from "@/core/machine";
import type { CheckId } from "@/core/trade";

/** A unit on the bench, in working order (trade handbook: bearings and rollers, clean, square, contact, height, groomer, then the turf). */
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

/** A reading that stands, newest of its check last or first: order is by `seq`. */
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

function statusOf(args: {
  machine: Machine;
  unit: string;
  check: CheckId;
  takes: readonly BenchTake[];
  events: readonly LoggedEvent[];
}): BenchStatus {
  const { machine, unit, check, takes, events } = args;
  const own = (place: string) => place === unit || place === WHOLE;
  const take = takes
    .filter(({ checkId, result }) => checkId === check && (result.told.some(own) || result.findings.some(({ place }) => own(place))))
    .sort((a, b) => b.seq - a.seq)[0];
  if (!take) return { kind: "unread" };
  const [because] = staleReasons({ machine, check, takenSeq: take.seq, events }).filter(
    ({ place }) => place === undefined || place === unit,
  );
  if (because) return { kind: "again", because };
  const found = take.result.findings.filter(({ place }) => own(place));
  const isTold = take.result.told.some(own);
  const worst = GRAVITY.find((verdict) => found.some((one) => one.verdict === verdict));
  // A unit read in part is no better than what was read of it.
  const verdict = worst === undefined || (!isTold && worst !== "out" && worst !== "stop") ? "not-enough-readings" : worst;
  return { kind: "read", verdict, at: take.at, codes: found.filter((one) => one.verdict !== "in-tolerance").map(({ code }) => code) };
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
  return unitsAcross(machine).map(({ id: unit }) => {
    const cells = steps.map((check): BenchCell => ({ check, status: statusOf({ machine, unit, check, takes, events }) }));
    const next = cells.find((cell) => !isDone(cell));
    return { unit, cells, ...(next ? { next: next.check } : {}) };
  });
}
