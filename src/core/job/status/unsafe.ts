import { type CheckId, causesNow, EVENTS, type EventId, type EventRow, type FixRow, fixRow } from "@/core/catalogue";
import { LOOK_PLACE } from "@/core/checks";
import { finishesRebuild } from "@/core/job/sequences/rebuild";
import type { LogLine, TakenLine } from "./log";

/** Why a machine is not run: read as a stop at a place, found to touch when turned by hand, or held by somebody's word. */
export type Unsafe = {
  /** What it is known by when it is released; the same place stopped again is the same cause. */
  key: string;
  at: string;
  seq: number;
  who: string;
  jobId?: number;
} & (
  | {
      kind: "stop";
      check: CheckId;
      place: string;
      on?: string;
      code: string;
      stepId: number;
      isChangedSince: boolean;
      isReplacedSince?: boolean;
    }
  | { kind: "touches"; place: string; stepId: number }
  | { kind: "by-word"; reason: string }
);

/** Let go by word, not read right since: owed on the machine. */
export type Released = { cause: Unsafe; by: string; at: string; reason: string };

export type Unsafes = { open: Unsafe[]; released: Released[] };

const eventRows: readonly EventRow[] = EVENTS;

const stopKey = ({ check, place, on }: { check: string; place: string; on?: string | undefined }) =>
  `stop:${check}:${place}${on === undefined ? "" : `#${on}`}`;
const placeKey = ({ place, on }: { place: string; on?: string | undefined }) => (on === undefined ? place : `${place}#${on}`);

/** A part that broke: another look that does not find it broken clears nothing, only another part in its place does. */
const BROKEN: readonly string[] = ["crack", "cracked", "broken", "sheared"];
/** Whether it is a part that broke, and only another in its place lets go of it. */
export const isBroken = (cause: Unsafe): boolean => cause.kind === "stop" && BROKEN.includes(cause.code);

/** What cannot leave the machine at speed, and may be let go of by somebody's word. */
const STAYS_PUT: readonly CheckId[] = ["tyre-pressure"];

/** Whether words may let go of a cause: of a word, and of what cannot fly; what was read to be able to is let go by the deed that mends it. */
export const isLetGoByWord = (cause: Unsafe): boolean =>
  cause.kind === "by-word" || (cause.kind === "stop" && STAYS_PUT.includes(cause.check));

type Fixed = { seq: number; row: FixRow };

/**
 * What keeps a machine from running and what was let go by word, from its whole log in order. A stop falls when that place is read by the same
 * check and is no stop any more, or when the part was changed and a check that proves the change read the place; never by time, by another
 * job or by what was not read.
 */
export function foldUnsafe(log: readonly LogLine[]): Unsafes {
  const open = new Map<string, Unsafe>();
  const released = new Map<string, Released>();
  const fixes: Fixed[] = [];
  const rebuilt = new Map<string, number>();
  const drop = (key: string) => {
    open.delete(key);
    released.delete(key);
  };
  const add = (cause: Unsafe) => {
    released.delete(cause.key);
    open.set(cause.key, cause);
  };
  for (const line of log) {
    switch (line.kind) {
      case "take": {
        const known = [...open.values(), ...[...released.values()].map(({ cause }) => cause)];
        for (const cause of known) if (clears(line, cause, fixes) || isRebuiltAndTurned(line, cause, rebuilt)) drop(cause.key);
        for (const stop of stopsOf(line)) add(stop);
        break;
      }
      case "rebuild":
        if (finishesRebuild(line.move)) {
          rebuilt.set(line.move.box, line.seq);
          for (const cause of [...open.values(), ...letGo(released)]) markRebuilt(cause, line.move.box);
        }
        break;
      case "put-back":
        for (const place of line.turned) drop(`touches:${place}`);
        for (const place of line.touching) add({ kind: "touches", key: `touches:${place}`, place, stepId: line.stepId, ...whence(line) });
        break;
      case "fix": {
        const row = fixRow(line);
        if (row) fixes.push({ seq: line.seq, row });
        for (const cause of [...open.values(), ...letGo(released)])
          if (row) markChanged(cause, { event: row.event, isOfWhole: !isByUnit(row.event) });
        break;
      }
      case "event":
        if (line.event === "held-out")
          add({ kind: "by-word", key: `event:${line.seq}`, reason: line.words ?? "held out of service", ...whence(line) });
        for (const cause of [...open.values(), ...letGo(released)])
          if (line.isTakenBack !== true)
            markChanged(cause, {
              event: line.event,
              isOfWhole: line.place === undefined || ("place" in cause && line.place === cause.place),
            });
        break;
      case "hold":
        add({ kind: "by-word", key: `hold:${line.stepId}`, reason: line.reason, ...whence(line) });
        break;
      case "release":
        for (const cause of [...open.values()]) {
          const given = reasonFor(line, cause);
          if (given === undefined) continue;
          open.delete(cause.key);
          // A word lets go of a word; what was read stays owed until it is read right.
          if (cause.kind !== "by-word") released.set(cause.key, { cause, by: line.who, at: line.at, reason: given });
        }
        break;
    }
  }
  return { open: [...open.values()], released: [...released.values()] };
}

/** Before reasons were asked for by cause, a release let go of what its own job held, and of no other's. */
function reasonFor(line: Extract<LogLine, { kind: "release" }>, cause: Unsafe): string | undefined {
  if (line.reasons !== undefined) return line.reasons.find(({ key }) => key === cause.key)?.reason;
  return cause.jobId === undefined || cause.jobId === line.jobId ? line.reason : undefined;
}

const whence = ({ at, seq, who, jobId }: LogLine) => ({ at, seq, who, ...(jobId === undefined ? {} : { jobId }) });

function markRebuilt(cause: Unsafe, box: string): void {
  if (cause.kind === "stop" && cause.check === "gearbox-inspection" && cause.place === box) cause.isReplacedSince = true;
}

const letGo = (released: ReadonlyMap<string, Released>): Unsafe[] => [...released.values()].map(({ cause }) => cause);

/** Something that makes the check stale was done since: only then is it worth reading again. Another part came in where the work changes parts, and not elsewhere. */
function markChanged(cause: Unsafe, { event, isOfWhole }: { event: EventId; isOfWhole: boolean }): void {
  if (cause.kind !== "stop" || !touches(event, cause.check)) return;
  cause.isChangedSince = true;
  if (REPLACES.includes(event) && isOfWhole) cause.isReplacedSince = true;
}

const isByUnit = (event: EventId): boolean => eventRows.find(({ id }) => id === event)?.isByUnit === true;

function stopsOf(line: TakenLine & LogLine): Unsafe[] {
  return line.findings
    .filter(({ verdict }) => verdict === "stop")
    .map(({ place, on, code }) => ({
      kind: "stop" as const,
      key: stopKey({ check: line.check, place, on }),
      check: line.check,
      place,
      ...(on === undefined ? {} : { on }),
      code,
      stepId: line.stepId,
      isChangedSince: false,
      ...whence(line),
    }));
}

function clears(line: TakenLine, cause: Unsafe, fixes: readonly Fixed[]): boolean {
  const stops = line.findings.filter(({ verdict }) => verdict === "stop").map(placeKey);
  if (cause.kind === "touches") return turnsByHand(line) && line.told.includes(cause.place) && !stops.includes(cause.place);
  if (cause.kind !== "stop") return false;
  const { place, on } = cause;
  if (isBroken(cause) && cause.isReplacedSince !== true) return false;
  const keys = on === undefined ? [place] : causesNow(on).map((now) => placeKey({ place, on: now }));
  if (line.check === cause.check) {
    // Of a look one cause at a time is told: a worksheet that clears the cause clears it too.
    const isLook = cause.place === LOOK_PLACE && cause.on !== undefined;
    if (isLook && line.ruleVersion > 0) return isClearedIn(line, cause.on);
    const isSeenAway = (key: string) => line.findings.some((one) => placeKey(one) === key && one.code === "not-found");
    return keys.every((key) => (line.ruleVersion > 0 ? line.told.includes(key) && !stops.includes(key) : isSeenAway(key)));
  }
  if (line.ruleVersion === 0 && !isClearLook(line)) return false;
  const isProof = fixes.some(
    ({ seq, row }) => seq > cause.seq && row.provedBy.includes(line.check) && changesPart(row.event) && touches(row.event, cause.check),
  );
  return (
    isProof && stops.length === 0 && (line.told.includes(cause.place) || (isWhole(cause.place) && line.verdict !== "not-enough-readings"))
  );
}

/** Whether a look found every cause it names not to be there, and names one: one that suspects, could not tell or names none clears nothing. */
export function isClearLook({ ruleVersion, findings }: TakenLine): boolean {
  return ruleVersion === 0 && findings.length > 0 && findings.every(({ on, code }) => on !== undefined && code === "not-found");
}

/**
 * A box whose gears stopped the machine, put together since step by step with all of it asked about, and the blades turned by hand in time
 * after that: nobody need take its cover off a second time. A fix that was only written down is no such round.
 */
function isRebuiltAndTurned(line: TakenLine & { seq: number }, cause: Unsafe, rebuilt: ReadonlyMap<string, number>): boolean {
  if (cause.kind !== "stop" || cause.check !== "gearbox-inspection" || line.check !== "blade-timing" || line.ruleVersion === 0)
    return false;
  const together = rebuilt.get(cause.place) ?? 0;
  return together > cause.seq && line.seq > together && line.verdict === "in-tolerance";
}

const isWhole = (place: string) => place === LOOK_PLACE || place === "set";
const turnsByHand = ({ check }: TakenLine) => check === "blade-track" || check === "blade-timing";
const touches = (event: EventId, check: CheckId) => eventRows.find(({ id }) => id === event)?.makesStale.includes(check) === true;

function isClearedIn({ evidence }: TakenLine, cause: string | undefined): boolean {
  const isAway = (now: string) =>
    evidence.some((one) => "cause" in one && one.cause === now && "result" in one && one.result === "not-found");
  return cause !== undefined && causesNow(cause).every(isAway);
}

/** Work that puts another part where the bad one was; the same part put back is only read again. */
const CHANGES_PART: readonly EventId[] = ["blade-changed", "spindle-apart", "gearbox-off", "tyre-changed", "unit-ground"];
const changesPart = (event: EventId) => CHANGES_PART.includes(event);
const REPLACES: readonly EventId[] = [...CHANGES_PART, "unit-apart"];
