import { type CheckId, causesNow, EVENTS, type EventId, type EventRow, fixRow } from "@/core/catalogue";
import { featuresOf } from "@/core/catalogue/kinds";
import { worksheetsFor } from "@/core/checks";
import { isLockOut, type SafeState, satisfies } from "@/core/job/safety";
import type { Place } from "@/core/job/sequences/counted";
import { deckState } from "@/core/job/sequences/deck-off";
import { type GuidedMove, guidedState, type Round } from "@/core/job/sequences/guided";
import { type RebuildMove, rebuildState, type Tightened } from "@/core/job/sequences/rebuild";
import { type LoggedEvent, type StruckTake, staleReasons, underSuspicion } from "@/core/job/staleness";
import { cutters, type Machine, type PlaceSort } from "@/core/machine";
import type { LogEntry, LogLine, TakenLine } from "./log";
import { type ToPutBack, turnedOneByOne } from "./put-back";
import { foldUnsafe, isClearLook, type Released, type Unsafe } from "./unsafe";

/** How a machine stands, by whose word and since when. */
export type Stands = { state: SafeState; who: string; at: string; seq: number; jobId?: number };
/** A part on the bench: its own state, whatever the machine's. */
export type OnBench = { parts: string[]; who: string; at: string; seq: number; jobId?: number };
export type Apart = { what: "deck"; where: Place } | { what: "box" | Round; place: string; where: Place };
export type Struck = {
  at: string;
  seq: number;
  who: string;
  place?: string;
  words?: string;
  /** On the site. */
  where?: string;
  droveOn?: boolean;
  /** Still to be looked at. */
  checks: CheckId[];
};

/** What a whole machine is, folded from the log of all its jobs and events. */
export type MachineState = {
  stands?: Stands;
  /** What it stood like before it was run. */
  lapsed?: Stands & { lapsedAt: string };
  /** A firm point was refused, and nothing was confirmed since. */
  stopped?: { who: string; at: string; seq: number };
  /** Lock-outs in force, one a person, the oldest first. */
  locks: Stands[];
  onBench: OnBench[];
  apart: Apart[];
  unsafe: Unsafe[];
  /** Let go by word and not read since: owed. */
  released: Released[];
  /** Worked on and not yet put back. */
  toPutBack?: ToPutBack;
  /** Blades or reels that were fitted or disturbed and not turned by hand since. */
  unturned: string[];
  /** A belt was disturbed and nobody looked at its grooves since. */
  beltUnseated?: { seq: number; at: string };
  /** A belt was disturbed and no run since then saw every blade cut: what closes a job, not what starts a blade. */
  beltUnproved?: { seq: number; at: string };
  /** Geared blades: not turned by hand since they were disturbed, or found too near. */
  timing?: "unseen" | "too-near";
  struck?: Struck;
  /** Set otherwise than built and not set back since, by place; it may run, and whoever reads it next knows. */
  notAsBuilt: Odd[];
};

/** Without a place it is of the whole machine. */
export type Odd = { place?: string; words?: string; who: string; at: string; seq: number };

type Line<K extends LogEntry["kind"]> = Extract<LogLine, { kind: K }>;

const eventRows: readonly EventRow[] = EVENTS;
/** What leaves no tool under a machine and nothing to put back. */
const TOUCHES_NOTHING: readonly EventId[] = [
  "run",
  "struck",
  "deck-dropped",
  "operator-changed",
  "operator-briefed",
  "site-changed",
  "top-dressed",
  "mown-wet-or-tall",
  "not-as-built",
  "as-built",
  "held-out",
  "released",
];
const DISTURBS_BELT: readonly EventId[] = ["deck-off", "belt-disturbed", "spindle-apart"];
const DISTURBS_TIMING = eventRows.filter(({ makesStale }) => makesStale.includes("blade-timing")).map(({ id }) => id as EventId);

/**
 * The state of a machine from its whole log: every job, every step, every event, every version of its specification. Pure; lines in any order.
 * `machine` is the specification in force now. What is open was opened under the specification of its own time and stays as it was opened: a later
 * one changes what is asked from then on.
 */
export function machineState(machine: Machine, lines: readonly LogLine[]): MachineState {
  const log = [...lines].sort((a, b) => a.seq - b.seq);
  const machineAt = specifications(machine, log);
  const events = log.flatMap((line): LoggedEvent[] => (line.kind === "event" && !line.isTakenBack ? [loggedOf(line)] : []));
  const { open, released } = foldUnsafe(log);
  const toPutBack = toPutBackOf(log);
  const timing = timingOf(machineAt, log, events);
  const struck = struckOf(machineAt, log, events);
  return {
    ...standsOf(log),
    onBench: onBenchOf(log),
    apart: apartOf(machine, log),
    unsafe: open,
    released,
    ...(toPutBack ? { toPutBack } : {}),
    unturned: unturnedOf(machineAt, log),
    ...beltOf(machineAt, log),
    ...(timing ? { timing } : {}),
    ...(struck ? { struck } : {}),
    notAsBuilt: notAsBuiltOf(log),
  };
}

/** The specification that was in force at a place in the log; before the first one told, that first one. */
type MachineAt = (seq: number) => Machine;

function specifications(now: Machine, log: readonly LogLine[]): MachineAt {
  const told = log.flatMap((line) => (line.kind === "specification" ? [line] : []));
  return (seq) => told.findLast((line) => line.seq <= seq)?.machine ?? told[0]?.machine ?? now;
}

/** What was set otherwise stays so until it is said of that place that it is as built again; of another place, or of the whole, is not said of it. */
function notAsBuiltOf(log: readonly LogLine[]): Odd[] {
  const odd: Odd[] = [];
  for (const line of log) {
    if (line.kind !== "event" || line.isTakenBack) continue;
    const { place, words, who, at, seq } = line;
    if (line.event === "not-as-built") odd.push({ ...(place ? { place } : {}), ...(words ? { words } : {}), who, at, seq });
    if (line.event === "as-built") odd.splice(0, odd.length, ...odd.filter((one) => one.place !== place));
  }
  return odd;
}

const loggedOf = ({ event, seq, at, who, place }: Line<"event">): LoggedEvent => ({ event, seq, at, who, ...(place ? { place } : {}) });

const whence = ({ who, at, seq, jobId }: LogLine) => ({ who, at, seq, ...(jobId === undefined ? {} : { jobId }) });

/**
 * Safe state and lock-outs. A lock-out goes by its owner's word or by a lift with a reason, never by a run that somebody else tells of, by a refusal, or
 * by what is taken back: a confirmation taken back leaves every lock-out as it was before it.
 */
function standsOf(log: readonly LogLine[]): Pick<MachineState, "stands" | "lapsed" | "stopped" | "locks"> {
  let stands: Stands | undefined;
  let lapsed: MachineState["lapsed"];
  let stopped: MachineState["stopped"];
  const locks = new Map<string, Stands>();
  const lastLock = () => [...locks.values()].sort((a, b) => a.seq - b.seq).at(-1);
  for (const line of log) {
    if (line.kind === "lift") {
      locks.delete(line.owner);
      // The machine then stands as who is still locked on says; with nobody, by nobody's word.
      if (stands?.who === line.owner) stands = lastLock();
    }
    if (line.kind === "event" && line.event === "run") {
      if (stands && stands.state !== "running") {
        lapsed = { ...stands, lapsedAt: line.at };
        stands = undefined;
      }
      // Who says that it was run is not locked on to it; of anybody else that is not said.
      if (!line.isTakenBack) locks.delete(line.who);
    }
    if (line.kind === "close" && stands && stands.jobId === line.jobId && !isLockOut(stands.state)) stands = undefined;
    if (line.kind !== "confirmation" || line.state === "bench") continue;
    if (line.isTakenBack) {
      // A lead that was put back by mistake is not off again by saying so, and one that is off is not on.
      stands = isLockOut(line.state) && line.outcome === "safe" ? lastLock() : undefined;
      continue;
    }
    if (line.outcome === "stopped") {
      stands = undefined;
      stopped = { who: line.who, at: line.at, seq: line.seq };
      continue;
    }
    const one: Stands = { state: line.state, ...whence(line) };
    if (isLockOut(line.state)) locks.set(line.who, one);
    else locks.delete(line.who);
    // Whoever locks on to a machine that already stands fuller does not lower it.
    if (!(stands && isLockOut(line.state) && stands.who !== line.who && satisfies(stands.state, line.state))) stands = one;
    lapsed = undefined;
    stopped = undefined;
  }
  return {
    ...(stands ? { stands } : {}),
    ...(lapsed ? { lapsed } : {}),
    ...(stopped ? { stopped } : {}),
    locks: [...locks.values()].sort((a, b) => a.seq - b.seq),
  };
}

/** Whether a line shows that what was done is done with: put back, or cut with, which nobody may before. */
const isPutBack = (line: LogLine): boolean => (line.kind === "put-back" && line.outcome === "safe") || line.kind === "test-cut";

function since(log: readonly LogLine[], isEnd: (line: LogLine) => boolean): readonly LogLine[] {
  const last = log.findLastIndex(isEnd);
  return log.slice(last + 1);
}

function onBenchOf(log: readonly LogLine[]): OnBench[] {
  return since(log, isPutBack).flatMap((line): OnBench[] =>
    line.kind === "confirmation" && line.state === "bench" && line.outcome === "safe" && !line.isTakenBack
      ? [{ parts: [...line.parts], ...whence(line) }]
      : [],
  );
}

/** What a fix does to a machine, whether or not its event was written with it. */
function eventOf(line: LogLine): EventId | undefined {
  if (line.kind === "event") return line.isTakenBack ? undefined : line.event;
  return line.kind === "fix" ? fixRow(line)?.event : undefined;
}

function toPutBackOf(log: readonly LogLine[]): ToPutBack | undefined {
  const after = since(log, isPutBack);
  const events = after.flatMap((line): EventId[] => {
    if (line.kind === "rebuild") return ["gearbox-off"];
    if (line.kind === "deck") return ["deck-off"];
    if (line.kind === "guided") return [line.move.round === "blade" ? "blade-refitted" : "spindle-apart"];
    const event = eventOf(line);
    return event && !TOUCHES_NOTHING.includes(event) ? [event] : [];
  });
  const locked = after.find((line) => line.kind === "confirmation" && isLockOut(line.state) && line.outcome === "safe");
  const first = after.find((line) => {
    const event = eventOf(line);
    return (
      line.kind === "rebuild" || line.kind === "deck" || line.kind === "guided" || (event !== undefined && !TOUCHES_NOTHING.includes(event))
    );
  });
  const sinceSeq = Math.min(locked?.seq ?? Number.POSITIVE_INFINITY, first?.seq ?? Number.POSITIVE_INFINITY);
  return Number.isFinite(sinceSeq) ? { sinceSeq, events: [...new Set(events)], wasLockedOut: locked !== undefined } : undefined;
}

/** Blades to be turned by hand one by one, less those turned since in putting back, at the track or in timing. */
function unturnedOf(machineAt: MachineAt, log: readonly LogLine[]): string[] {
  const left = new Set<string>();
  for (const line of log) {
    const event = eventOf(line);
    if (event) for (const id of turnedOneByOne(machineAt(line.seq), [event])) left.add(id);
    if (line.kind === "test-cut") left.clear();
    if (line.kind === "put-back") for (const id of line.turned) left.delete(id);
    if (line.kind === "take") for (const id of turnedIn(machineAt(line.seq), line)) left.delete(id);
  }
  return [...left];
}

function turnedIn(machine: Machine, { check, told, findings }: TakenLine): string[] {
  if (check !== "blade-track" && check !== "blade-timing") return [];
  const isClear = (place: string) => told.includes(place) && !findings.some((one) => one.place === place && one.verdict === "stop");
  // A pair told is both its blades.
  return cutters(machine)
    .map(({ id }) => id)
    .filter((id) => isClear(id) || told.some((place) => place.split(":").includes(id) && isClear(place)));
}

/** What a disturbed belt still wants: its grooves looked at before anything runs, and a run that saw every blade cut before it is proved. */
function beltOf(machineAt: MachineAt, log: readonly LogLine[]): Pick<MachineState, "beltUnseated" | "beltUnproved"> {
  let unseated: MachineState["beltUnseated"];
  let unproved: MachineState["beltUnproved"];
  for (const line of log) {
    const machine = machineAt(line.seq);
    const hasAll = (places: readonly string[]) => machine.spindles.every(({ id }) => places.includes(id));
    const event = eventOf(line);
    if (event && DISTURBS_BELT.includes(event) && featuresOf(machine).includes("belt")) {
      unseated = { seq: line.seq, at: line.at };
      unproved = unseated;
    }
    if (line.kind === "put-back" && line.isBeltSeated) unseated = undefined;
    if (line.kind === "test-cut") {
      unseated = undefined;
      if (hasAll(line.seenCutting)) unproved = undefined;
    }
    if (line.kind !== "take" || line.ruleVersion === 0) continue;
    const isBad = line.findings.some(({ place, verdict }) => place.startsWith("belt-") && (verdict === "out" || verdict === "stop"));
    if (line.check === "belt-inspection" && line.told.includes("belt-seat") && !isBad) unseated = undefined;
    const turning =
      line.check === "tip-speed"
        ? line.told.filter((place) => !line.findings.some((one) => one.place === place && one.code === "stands"))
        : [];
    if (hasAll(turning)) unproved = undefined;
  }
  return { ...(unseated ? { beltUnseated: unseated } : {}), ...(unproved ? { beltUnproved: unproved } : {}) };
}

const isTimed = (machine: Machine): boolean => worksheetsFor(machine).some(({ id }) => id === "blade-timing");

function timingOf(machineAt: MachineAt, log: readonly LogLine[], events: readonly LoggedEvent[]): MachineState["timing"] {
  const take = log.findLast((line): line is Line<"take"> => line.kind === "take" && line.check === "blade-timing" && tells(line));
  const since = take === undefined ? [] : staleReasons({ machine: machineAt(take.seq), check: "blade-timing", takenSeq: take.seq, events });
  const isFresh = take !== undefined && since.length === 0;
  if (isFresh && take.verdict === "out") return "too-near";
  const cut = log.findLast(({ kind }) => kind === "test-cut")?.seq ?? 0;
  const wasDisturbed = events.some(({ event, seq }) => seq > cut && DISTURBS_TIMING.includes(event) && isTimed(machineAt(seq)));
  return wasDisturbed && !isFresh ? "unseen" : undefined;
}

/** Whether geared blades were disturbed since they last cut, whatever was read since. */
export function wasTimingDisturbed(machine: Machine, log: readonly LogLine[]): boolean {
  const machineAt = specifications(machine, log);
  const cut = log.findLast(({ kind }) => kind === "test-cut")?.seq ?? 0;
  return log.some(
    (line) =>
      line.kind === "event" && !line.isTakenBack && line.seq > cut && DISTURBS_TIMING.includes(line.event) && isTimed(machineAt(line.seq)),
  );
}

/** Whether a reading says anything: one that is not complete does not, nor a look that suspects or names nothing. */
const tells = (line: TakenLine): boolean => (line.ruleVersion > 0 ? line.verdict !== "not-enough-readings" : isClearLook(line));

/** What a reading or a look says of a strike before it: a look speaks of the causes it names, and of no other. */
export function struckTake({ check, seq, ruleVersion, verdict, findings }: Line<"take">): StruckTake {
  if (ruleVersion > 0) return { check, seq, by: "worksheet", couldTell: verdict !== "not-enough-readings" };
  const named = findings.flatMap(({ on, code }) => (on === undefined ? [] : causesNow(on).map((cause) => ({ cause, code }))));
  const of = (isCleared: boolean) => named.filter(({ code }) => (code === "not-found") === isCleared).map(({ cause }) => cause);
  return { check, seq, by: "look", cleared: of(true), left: of(false) };
}

function struckOf(machineAt: MachineAt, log: readonly LogLine[], events: readonly LoggedEvent[]): Struck | undefined {
  const takes = log.flatMap((line) => (line.kind === "take" ? [struckTake(line)] : []));
  const held = underSuspicion({ machineAt, events, takes });
  const line = held && log.find((one): one is Line<"event"> => one.kind === "event" && one.seq === held.strike.seq);
  if (!held || !line) return undefined;
  const { at, seq, who, place, words, where, droveOn } = line;
  return {
    at,
    seq,
    who,
    ...(place ? { place } : {}),
    ...(words ? { words } : {}),
    ...(where ? { where } : {}),
    ...(droveOn === undefined ? {} : { droveOn }),
    checks: held.checks,
  };
}

/** What is apart, by the moves that were made: whatever the specification says of the place by now. */
function apartOf(machine: Machine, log: readonly LogLine[]): Apart[] {
  const deck = deckState(
    machine,
    log.flatMap((line) => (line.kind === "deck" ? [line.move] : [])),
  );
  const moves = log.flatMap((line): (RebuildMove | Tightened)[] => (line.kind === "rebuild" ? [line.move] : []));
  const guided = log.flatMap((line) => (line.kind === "guided" ? [line.move] : []));
  return [
    ...(deck.where === "on" ? [] : [{ what: "deck" as const, where: deck.where }]),
    ...[...new Set(moves.map(({ box }) => box))].sort().flatMap((id): Apart[] => {
      const { where } = rebuildState(id, moves);
      return where === "on" ? [] : [{ what: "box", place: id, where }];
    }),
    ...roundsIn(guided).flatMap((at): Apart[] => {
      const { where } = guidedState(machine, at, guided);
      return where === "on" ? [] : [{ what: at.round, place: at.place, where }];
    }),
  ];
}

/** Rounds that were ever begun, each place once, in one order whenever they were begun. */
function roundsIn(moves: readonly GuidedMove[]): { round: Round; place: string }[] {
  const begun = new Map(moves.map(({ round, place }) => [`${round} ${place}`, { round, place }]));
  return [...begun.keys()].sort().flatMap((key) => begun.get(key) ?? []);
}

/** Units or blades that nobody put on the bench; a word that named no part is of all of them. */
export function offBench({ onBench }: Pick<MachineState, "onBench">, parts: readonly string[]): string[] {
  if (onBench.some((one) => one.parts.length === 0)) return [];
  return parts.filter((part) => !onBench.some((one) => one.parts.includes(part)));
}

/** Whether the machine, or for bench work a part of it, is in a state that covers what is needed. */
export function isIn(state: Pick<MachineState, "stands" | "onBench">, need: SafeState): boolean {
  return need === "bench" ? state.onBench.length > 0 : satisfies(state.stands?.state, need);
}

/** A place that something is still written down of, and of which sort it is; without a sort it may be any that goes by that name. */
export type OpenPlace = { place: string; sort?: PlaceSort };

/** Places that something is still written down of: unsafe, let go by word, apart, on the bench, not turned by hand, struck, set otherwise than built. */
export function placesOpen(state: MachineState): OpenPlace[] {
  const causes = [...state.unsafe, ...state.released.map(({ cause }) => cause)];
  const cutter = (place: string): OpenPlace => ({ place, sort: "cutter" });
  return [
    ...causes.flatMap((cause) =>
      cause.kind === "by-word" ? [] : [cause.kind === "touches" ? cutter(cause.place) : { place: cause.place }],
    ),
    ...state.apart.flatMap((one): OpenPlace[] => {
      if (one.what === "deck") return [];
      return [one.what === "box" ? { place: one.place, sort: "gearbox" } : cutter(one.place)];
    }),
    ...state.onBench.flatMap(({ parts }) => parts.map(cutter)),
    ...state.unturned.map(cutter),
    ...(state.struck?.place === undefined ? [] : [{ place: state.struck.place }]),
    ...state.notAsBuilt.flatMap(({ place }) => (place === undefined ? [] : [{ place }])),
  ];
}
