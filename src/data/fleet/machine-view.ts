import type { Verdict } from "@/core/basics/findings";
import { type CheckId, EVENTS, type EventRow } from "@/core/catalogue";
import { type Check, checkRow, isOffered, worksheetsFor } from "@/core/checks";
import { BENCH_ORDER, type BenchUnit, benchOf } from "@/core/job/bench";
import { staleReasons } from "@/core/job/staleness";
import type { MachineState } from "@/core/job/status";
import type { Machine } from "@/core/machine";
import { type MachinePhotograph, machinePhotographs } from "@/data/machine/machine-photographs";
import { getMachine, type MachineRecord } from "@/data/machine/machines";
import { stateOfMachine } from "@/data/projections/machine-state";
import { type EventRecord, listEvents } from "@/data/record/events-read";
import { type LastDone, lastDone } from "@/data/record/last-done";
import { type Take, takesOfCheck, takesOfMachine } from "@/data/record/takes-read";
import { spindlesOf } from "@/data/service/due";
import { canTakeBack, HOLDING_EVENTS } from "@/data/service/events";
import { knivesOf, type UnitKnife } from "@/data/service/knives";
import { listSpindleLog, type SpindleRecord } from "@/data/service/spindle-log";
import type { Db } from "@/data/store/db";

/** How a worksheet of a machine stands: never read, or when and how it came out and whether something changed since. */
export type SheetStanding = { check: CheckId; last?: { verdict: Verdict; at: string; isStale: boolean } };

/** What a check follows over time: departures from what is right, oldest first. */
export type Followed = {
  check: CheckId;
  dimension: "length" | "pressure";
  toleranceSi: number;
  lines: { id: string; label?: string }[];
  points: { at: string; jobId: number; values: Record<string, number>; group?: string }[];
  /** From then on it is another run of figures: what happened, and to which place. */
  breaks: { at: string; event: string; place?: string }[];
};

export type LogEntry = EventRecord & { canTakeBack: boolean; isHolding: boolean };

export type MachineView = {
  record: MachineRecord;
  state: MachineState;
  sheets: SheetStanding[];
  /** Of a reel machine: every unit through the bench. */
  bench: BenchUnit[];
  knives: UnitKnife[];
  /** Each kind of fix by the last time it was made, newest first. */
  lastDone: LastDone[];
  followed: Followed[];
  /** Newest first. */
  log: LogEntry[];
  /** What can be logged of this machine. */
  canLog: string[];
  spindles: ReturnType<typeof spindlesOf>;
  spindleLog: SpindleRecord[];
  pictures: MachinePhotograph[];
};

/** Lines of the log shown. */
const LOG_SHOWN = 60;

/** Logged of any machine. */
const ALWAYS = ["run", "struck", "operator-changed", "site-changed", "held-out"];
/** A hold is let go by a release with its reasons, in a job. */
const NEVER = ["released"];
const eventRows: readonly EventRow[] = EVENTS;

/** Events that say something about this machine: those that make one of its checks stale, or that anybody logs. */
function loggable(machine: Machine): string[] {
  return eventRows
    .filter(({ id, makesStale }) => {
      const concerns = makesStale.some((check) => {
        const row = checkRow(check);
        return row && isOffered(row, machine);
      });
      return !NEVER.includes(id) && (ALWAYS.includes(id) || concerns);
    })
    .map(({ id }) => id);
}

function standingOf(check: Check, args: { machine: Machine; takes: readonly Take[]; events: readonly EventRecord[] }): SheetStanding {
  const take = args.takes.find(({ checkId }) => checkId === check.id);
  if (!take) return { check: check.id };
  const isStale = staleReasons({ machine: args.machine, check: check.id, takenSeq: take.seq, events: args.events }).length > 0;
  return { check: check.id, last: { verdict: take.verdict, at: take.at, isStale } };
}

function followedBy(check: Check, machine: Machine, takes: readonly Take[], events: readonly EventRecord[]): Followed[] {
  const { trend } = check;
  if (!trend) return [];
  const points = takes.flatMap((take) => {
    const values = take.checkId === check.id && take.result.ruleVersion > 0 ? trend.values(take.result) : undefined;
    const group = values && trend.group?.(take.result);
    return values ? [{ at: take.at, jobId: take.jobId, values, ...(group ? { group } : {}) }] : [];
  });
  if (points.length === 0) return [];
  const lines = trend.lines(machine).map((line) => ({ ...line }));
  const breaks = events
    .filter(({ event }) => trend.startsAnew?.includes(event))
    .map(({ at, event, place }) => ({ at, event, ...(place ? { place } : {}) }));
  return [
    { check: check.id, dimension: trend.dimension, toleranceSi: trend.toleranceSi(machine), lines, points: points.reverse(), breaks },
  ];
}

/** What was read of the bench, step by step: a busy machine's last two hundred takes reach back a year at the most. */
function benchTakes(db: Db, { id, machine }: MachineRecord): Take[] {
  return machine.units.length === 0 ? [] : BENCH_ORDER.flatMap((check) => takesOfCheck(db, id, check));
}

/** Everything the machine's page shows, read in one go. Throws `machine-not-found`. */
export function getMachineView(db: Db, machineId: string, args: { now: string }): MachineView {
  const record = getMachine(db, machineId);
  const { machine } = record;
  const takes = takesOfMachine(db, machineId);
  const events = listEvents(db, machineId);
  const sheets = worksheetsFor(machine);
  return {
    record,
    state: stateOfMachine(db, machineId),
    sheets: sheets.map((check) => standingOf(check, { machine, takes, events })),
    knives: knivesOf(db, machineId, args.now),
    lastDone: lastDone(db, machineId),
    bench: benchOf({ machine, takes: benchTakes(db, record), events, offered: sheets.map(({ id }) => id) }),
    followed: sheets.flatMap((check) => followedBy(check, machine, takes, events)),
    log: [...events]
      .reverse()
      .slice(0, LOG_SHOWN)
      .map((event) => ({ ...event, canTakeBack: canTakeBack(db, event), isHolding: HOLDING_EVENTS.includes(event.event) })),
    canLog: loggable(machine),
    spindles: spindlesOf(db, machineId, args.now),
    spindleLog: listSpindleLog(db, machineId),
    pictures: machinePhotographs(db, machineId),
  };
}
