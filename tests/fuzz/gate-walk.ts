import { seededRandom } from "@/core/basics/random";
import { CAUSES, type CauseRow, CHECKS, type CheckId, causesNow, EVENT_IDS, FIXES, type FixRow } from "@/core/catalogue";
import { type Assessment, worksheetById, worksheetsFor } from "@/core/checks";
import { SHEETS, spoilsOf, with_ } from "@/core/checks/every-answer.fixtures";
import { spoiled } from "@/core/checks/sound";
import { lastSeen } from "@/core/fleet/service/tasks";
import { settingOf } from "@/core/job/bench/set-up";
import { liveSteps, undoable } from "@/core/job/jobs";
import { allYes, isSubstantial, itemsFor, type SafeState, statesOf } from "@/core/job/safety";
import { deckState } from "@/core/job/sequences/deck-off";
import { ROUND_STATE } from "@/core/job/sequences/guided";
import { usualMove } from "@/core/job/sequences/moves.fixtures";
import {
  type HeldReason,
  heldReasons,
  isBroken,
  isIn,
  isLetGoByWord,
  type MachineState,
  machineState,
  mayRun,
  putBackPoints,
  type RunReason,
} from "@/core/job/status";
import { cutters, type Machine, machineSchema, unitSheetOf } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { addPerson, setPreferences } from "@/data/catalogue/people";
import { keepProcedure, listProcedures, withdrawProcedure } from "@/data/catalogue/procedures";
import { recordFinding, recordTake } from "@/data/checks/takes";
import { changeFeedKey } from "@/data/fleet/feed-key";
import { addRound } from "@/data/fleet/rounds";
import { keepBenchSetting } from "@/data/job/bench-setting";
import { complaintsOfJob, joinJobs, splitComplaint, takeComplaint } from "@/data/job/complaints";
import { deckMoves, recordDeckMove, recordPhotograph } from "@/data/job/deck";
import { guidedStates, recordGuidedMove } from "@/data/job/guided";
import {
  closeJob,
  recordAnswer,
  recordFix,
  recordGuess,
  recordHandover,
  recordHold,
  recordJobEvent,
  recordNote,
  recordRelease,
  recordSecondLook,
  recordSkip,
  undoStep,
} from "@/data/job/job-actions";
import { recordOwnList } from "@/data/job/own-list";
import { recordRebuildMove } from "@/data/job/rebuild";
import { boxStates } from "@/data/job/rebuild-moves";
import { recordConfirmation, recordLift, recordPutBack } from "@/data/job/safe-state";
import { importHours, lastMeterSwap, logHours, swapMeter, takeBackMeterSwap } from "@/data/machine/hours";
import { addMachinePhotograph, machinePhotographs, takeBackMachinePhotograph } from "@/data/machine/machine-photographs";
import { addMachine, getMachine, renameMachine, replaceSheet, setStanding } from "@/data/machine/machines";
import { setSchool } from "@/data/machine/schools";
import { addPlace, addSitePicture, listSites, placeBack, placeGone } from "@/data/machine/site-places";
import { DEEDS, type DeedId } from "@/data/projections/deeds";
import { machineLog, stateOfMachine } from "@/data/projections/machine-state";
import { sheetInForce } from "@/data/record/sheets-read";
import { listSteps, stepsOfMachine } from "@/data/record/step-data";
import { getJobRow } from "@/data/record/steps";
import { takesOfJob } from "@/data/record/takes-read";
import { listEvents, logEvent, voidEvent } from "@/data/service/events";
import { listOwed, postponeOwed, settleOwed } from "@/data/service/owed";
import { addPart, addSet, changePart, getPart, logSet, movePart, movesOf, takeBackMove, takeBackSetEntry } from "@/data/service/parts";
import { logService, postponeService, takeBackService } from "@/data/service/service";
import { serviceEntries } from "@/data/service/service-log";
import { addRule } from "@/data/service/service-rules";
import { listSpindleLog, logSpindles, takeBackSpindleEntry } from "@/data/service/spindle-log";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { cutWith, emptyDepot } from "../data/helpers";

/**
 * Three people, three jobs on one machine, and every deed the record knows, in any order: what kept the machine from running goes by the deed that truly
 * clears it, by its owner, or by somebody else with a reason of substance that is kept and stays owed. What explains a reason that went is told here by
 * itself, from what was sent and what stood before; the record's own table of deeds is asked for nothing but their names.
 */

/** A deed as it was sent: what explains a reason that went is read off this. */
type Sent = {
  who: string;
  /** Of a step, an event or a reading that is taken back or put right: whose it was. */
  of?: string;
  reason?: string;
  check?: CheckId;
  /** A correction is no reading. */
  isCorrection?: boolean;
  keys?: readonly string[];
  owner?: string;
  state?: SafeState;
  event?: string;
  /** Points of a putting back answered with yes. */
  yes?: readonly string[];
  /** Cause by cause, of a look. */
  each?: readonly { cause: string; result: string }[];
  /** Of a reading by its worksheet: what came of it. */
  assessment?: Assessment;
};

type Try = (walk: Walk) => { sent?: Partial<Sent>; act: () => unknown } | undefined;

/** Answers still being made. */
type Answers = Record<string, ReturnType<typeof allYes>[string]>;

const PEOPLE = ["AK", "BL", "JM"] as const;
const KINDS_WALKED = ["ZT-1", "BD-1", "GR-1", "WP-1", "RT-1", "FD-1"];
const WHY = "seen again by the two of us";
const THIN = ["", "ok", "done"];
const PICTURE = { mime: "image/jpeg", bytes: Buffer.from([1]) };
const MOST_READINGS = 5;

/** Sound readings of a check, some that stop it, some that are out, and one with most of it unread. */
type Readings = { sound: unknown; bad: unknown[]; partly: unknown };
const readings = new Map<string, Readings>();

function readingsOf(fleetNumber: string, check: string): Readings | undefined {
  const key = `${check} of ${fleetNumber}`;
  const kept = readings.get(key);
  if (kept) return kept;
  const sheet = SHEETS.find(({ name }) => name === key);
  if (!sheet) return undefined;
  const told = spoilsOf(sheet).flatMap((spoil) => {
    const verdict = with_(sheet, spoil)?.verdict;
    return verdict === "stop" || verdict === "out" ? [{ spoil, isStop: verdict === "stop" }] : [];
  });
  const bad = [...told.filter(({ isStop }) => isStop), ...told.filter(({ isStop }) => !isStop)].slice(0, MOST_READINGS);
  const plain = (value: unknown) => JSON.parse(JSON.stringify(value));
  const sound = plain(sheet.sound);
  const halved = (tree: unknown): unknown => {
    if (typeof tree !== "object" || tree === null || Array.isArray(tree)) return tree;
    return Object.fromEntries(Object.entries(tree).flatMap(([name, value], k) => (k % 2 === 1 ? [] : [[name, halved(value)]])));
  };
  const found = { sound, bad: bad.map(({ spoil }) => plain(spoiled(sheet.sound, { [spoil.path]: spoil.value }))), partly: halved(sound) };
  readings.set(key, found);
  return found;
}

const isTouchedBy = (deed: DeedId) => deed !== "preferences-set";

/** Share of deeds after which what is kept is laid beside the whole log. */
const KEPT_TRIED = Number(process.env.GATE_KEPT ?? 0.2);

export type GateTally = {
  deeds: number;
  done: number;
  refused: number;
  gone: number;
  letGo: number;
  /** What is kept laid beside the whole log, and how often it was folded from a place of rest. */
  kept: number;
  rested: number;
  byDeed: Map<DeedId, { done: number; refused: number }>;
};
export const newTally = (): GateTally => ({ deeds: 0, done: 0, refused: 0, gone: 0, letGo: 0, kept: 0, rested: 0, byDeed: new Map() });

/** A depot that many walks share, each on a machine of its own: the record is opened once. */
export class GateDepot {
  readonly db: Db;
  private minutes = 0;
  constructor() {
    this.db = emptyDepot().db;
    addPerson(this.db, { initials: "JM", now: "2026-05-01T00:00:00.000Z" });
  }
  now(hoursSlow = 0): string {
    this.minutes += 1;
    return new Date(Date.UTC(2026, 4, 4, 7, this.minutes) - hoursSlow * 3_600_000).toISOString();
  }
}

export class Walk {
  readonly random: () => number;
  readonly db: Db;
  readonly machineId: string;
  readonly make: string;
  jobs: number[] = [];
  /** The clock of each, hours slow. */
  private readonly slow = new Map<string, number>();
  private readonly log: string[] = [];

  constructor(
    private readonly depot: GateDepot,
    readonly seed: number,
    private readonly tally: GateTally,
  ) {
    this.random = seededRandom(seed);
    this.db = depot.db;
    this.make = KINDS_WALKED[seed % KINDS_WALKED.length] as string;
    const own = FLEET.find(({ fleetNumber }) => fleetNumber === this.make);
    const fleetNumber = `W${seed}`;
    addMachine(this.db, this.doing("AK"), {
      fleetNumber,
      name: "Walked",
      site: own?.site ?? "",
      machine: machineSchema.parse(own?.machine),
    });
    this.machineId = fleetNumber.toLowerCase();
    for (const who of PEOPLE) this.jobs.push(this.openJob(who));
  }

  pick<T>(from: readonly T[]): T {
    return from[Math.floor(this.random() * from.length)] as T;
  }
  chance(share: number): boolean {
    return this.random() < share;
  }
  get machine(): Machine {
    return getMachine(this.db, this.machineId).machine;
  }
  get state(): MachineState {
    return stateOfMachine(this.db, this.machineId);
  }
  doing(who: string): Doing {
    return { who, now: this.depot.now(this.slow.get(who) ?? 0) };
  }
  setBack(who: string): void {
    this.slow.set(who, (this.slow.get(who) ?? 0) + this.pick([1, 30, -40]));
  }
  reason(): string {
    return this.chance(0.5) ? WHY : this.pick(THIN);
  }
  cutter(): string {
    return this.pick(cutters(this.machine)).id;
  }
  get jobId(): number {
    return this.pick(this.jobs);
  }
  get live() {
    return liveSteps(stepsOfMachine(this.db, this.machineId));
  }
  isClosed(jobId: number): boolean {
    return getJobRow(this.db, jobId).state === "closed";
  }
  /** A job that was closed makes room for another, now and then. */
  reopen(who: string): void {
    const closed = this.jobs.find((jobId) => this.isClosed(jobId));
    if (closed !== undefined && this.chance(0.3) && !getMachine(this.db, this.machineId).retired)
      this.jobs = this.jobs.map((one) => (one === closed ? this.openJob(who) : one));
  }
  /** Does what clears what keeps the machine from running, one reason after the other, and cuts with it: else a walk piles up reasons and never runs. */
  mend(): number {
    const who = this.pick(PEOPLE);
    let done = 0;
    for (; done < 40; done++) {
      const [reason] = mayRun(this.state, { to: "make-ready", who }).reasons.filter(({ code }) => code !== "not-put-back");
      if (!reason) break;
      this.isMending = reason;
      const deed = MENDS[reason.clears.do];
      if (!this.perform(deed, who) && reason.clears.do !== "read") break;
    }
    for (const deed of ["put-back", "confirmation", this.chance(0.5) ? "test-cut" : "close"] as const) {
      this.isMending = undefined;
      wanted = deed === "confirmation" ? "running" : undefined;
      this.perform(deed, who);
      wanted = undefined;
    }
    if (this.justClosed !== undefined) this.perform("undo", this.pick(PEOPLE));
    this.justClosed = undefined;
    return done + 4;
  }
  justClosed: number | undefined;
  /** The reason that is being cleared, so that the deed is done right and not at random. */
  isMending: RunReason | undefined;

  openJob(who: string): number {
    const looks = { symptoms: ["vibration" as const], denied: [], contexts: [] };
    return takeComplaint(this.db, this.doing(who), { machineId: this.machineId, words: "it shakes", saidBy: "TV", place: "", looks }).jobId;
  }

  /** Does one deed and holds the record to the invariant. Answers whether it was written. Throws what broke. */
  perform(deed: DeedId, who: string): boolean {
    this.who = who;
    const told = TRIES[deed](this);
    if (!told) return false;
    const before = this.state;
    const row = this.tally.byDeed.get(deed) ?? { done: 0, refused: 0 };
    this.tally.byDeed.set(deed, row);
    this.tally.deeds += 1;
    const sent: Sent = { who, ...told.sent };
    try {
      const answer = told.act() as { assessment?: Assessment } | undefined;
      if (answer?.assessment) sent.assessment = answer.assessment;
    } catch (error) {
      if (!(error instanceof AppError)) throw this.broken(deed, `threw ${error}`, error);
      if (error.code === "reason-stands") throw this.broken(deed, `went against the last guard: ${JSON.stringify(error.issues)}`);
      if (error.status >= 500) throw this.broken(deed, `answered ${error.code}`, error);
      row.refused += 1;
      this.tally.refused += 1;
      this.hold(deed, before, sent, { isRefused: true });
      return false;
    }
    row.done += 1;
    this.tally.done += 1;
    this.log.push(`${deed} by ${who} ${JSON.stringify(told.sent ?? {})}`);
    this.hold(deed, before, sent, { isRefused: false });
    return true;
  }
  who = "AK";

  private broken(deed: DeedId, what: string, cause?: unknown): Error {
    const lately = this.log.slice(-14).join("\n  ");
    return new Error(`seed ${this.seed} (${this.make}), ${deed} by ${this.who}: ${what}\n  ${lately}`, { cause });
  }

  private hold(deed: DeedId, before: MachineState, sent: Sent, { isRefused }: { isRefused: boolean }): void {
    const after = this.state;
    const left = new Set(heldReasons(after).map(({ key }) => key));
    const gone = heldReasons(before).filter(({ key }) => !left.has(key));
    if (isRefused && gone.length > 0) throw this.broken(deed, `was refused, and yet ${gone.map(({ key }) => key).join(", ")} went`);
    for (const reason of gone) {
      this.tally.gone += 1;
      const trouble = this.unexplained(reason, deed, before, sent);
      if (trouble) throw this.broken(deed, `${reason.key} went: ${trouble}`);
    }
    if (isRefused || !isTouchedBy(deed)) return;
    if (TURNS.includes(deed) && (deed !== "confirmation" || sent.state === "running")) {
      const body = heldReasons(before).filter(({ code }) => code !== "not-ready");
      const others = body.filter(({ owner }) => owner !== sent.who);
      const mayBeLetOff = deed === "confirmation" ? others.filter((one) => !isAboutRun(one)) : others;
      if (mayBeLetOff.length > 0) throw this.broken(deed, `was done over ${mayBeLetOff.map(({ key }) => key).join(", ")}`);
    }
    // Kept as it is told anew: what is stored is what the whole log says.
    if (this.chance(KEPT_TRIED)) {
      const log = machineLog(this.db, this.machineId);
      const anew = machineState(sheetInForce(this.db, this.machineId), log);
      if (JSON.stringify(anew) !== JSON.stringify(after)) throw this.broken(deed, "what is kept is not what the log says");
      const row = this.db.prepare("SELECT last_json, rest_json FROM machine_states WHERE machine_id = ?").get(this.machineId) as {
        last_json: string;
        rest_json: string | null;
      };
      const sorted = (seen: object) => JSON.stringify(Object.entries(seen).sort(([a], [b]) => a.localeCompare(b)));
      if (sorted(lastSeen(log)) !== sorted(JSON.parse(row.last_json)))
        throw this.broken(deed, "what was seen last is not what the log shows last");
      this.tally.kept += 1;
      if (row.rest_json !== null) this.tally.rested += 1;
    }
  }

  /** Why a reason that went had no business to go; nothing where it is explained. */
  private unexplained(reason: HeldReason, deed: DeedId, before: MachineState, sent: Sent): string | undefined {
    if (clears(reason, deed, sent, before, this)) return undefined;
    if (deed === "undo" || deed === "event-voided" || deed === "take-corrected" || deed === "spindle-entry-taken-back")
      return this.notLetGo(reason, sent);
    if (reason.code === "locked-by") return this.lockWent(reason, deed, sent);
    return "nothing cleared it";
  }

  private notLetGo(reason: HeldReason, { who, of, reason: words = "" }: Sent): string | undefined {
    const isGrave = reason.code === "unsafe" || reason.code === "struck-not-looked";
    if (reason.code === "not-ready") return "it was made ready by taking something back";
    if (reason.code === "locked-by" && reason.owner !== who) return "another's lock-out was taken back";
    if (who === of && !isGrave) return undefined;
    if (!isSubstantial(words)) return `no reason of substance ("${words}")`;
    if (who === of) return undefined;
    return this.isOwed(reason, who, words) ? undefined : "nothing of it is owed";
  }

  private lockWent({ owner }: HeldReason, deed: DeedId, sent: Sent): string | undefined {
    if (owner === sent.who) {
      const isOwn = deed === "lift" || deed === "confirmation" || ((deed === "event" || deed === "event-logged") && sent.event === "run");
      return isOwn ? undefined : "its owner did something else";
    }
    if (deed !== "lift" || sent.owner !== owner) return "somebody else did something else";
    if (!isSubstantial(sent.reason ?? "")) return "lifted without a reason";
    return this.isOwed({ key: "", code: "locked-by" }, sent.who, sent.reason ?? "") ? undefined : "nothing of it is owed";
  }

  private isOwed(reason: Pick<HeldReason, "key" | "code" | "place">, by: string, words: string): boolean {
    const found = listOwed(this.db, this.machineId).some(
      ({ code, detail }) =>
        code === "let-go" &&
        detail !== undefined &&
        "letGo" in detail &&
        detail.by === by &&
        detail.reason === words &&
        detail.letGo.some((one) => one.code === reason.code && one.place === reason.place),
    );
    if (found) this.tally.letGo += 1;
    return found;
  }
}

/** What clears a reason, as a deed. */
const MENDS: Record<RunReason["clears"]["do"], DeedId> = {
  read: "take",
  replace: "event",
  "put-back": "put-back",
  "make-ready": "confirmation",
  lift: "lift",
  "refit-deck": "deck",
  "refit-box": "rebuild",
  "finish-work": "guided",
  release: "release",
};

const TURNS: readonly DeedId[] = ["test-cut", "confirmation"];
const RUNS: readonly string[] = CHECKS.filter(({ state }) => state === "running").map(({ id }) => id);
/** A run may be let off for a reading that can only be taken running. */
const isAboutRun = ({ key, code, place }: HeldReason): boolean =>
  (code === "struck-not-looked" && RUNS.includes(place ?? "")) || (code === "unsafe" && RUNS.includes(key.split(":")[1] ?? ""));

const isToldAt = (places: readonly string[], place: string): boolean =>
  places.some((one) => one === place || one.split(":").includes(place));

/** Whether a look found what it named not to be there, and named something. */
const isClearLook = (each: Sent["each"] = []): boolean => each.length > 0 && each.every(({ result }) => result === "not-found");

/** Whether what was read or looked at says of this reason that it is no more: never what is not told, incomplete, or suspected. */
function readsAway({ code, key, place = "" }: HeldReason, { check, assessment, each = [] }: Sent): boolean {
  const isRead = assessment !== undefined && assessment.verdict !== "not-enough-readings";
  const hasOneAway = each.some(({ result }) => result === "not-found");
  if (code === "struck-not-looked") return check === place && (isRead || hasOneAway);
  if (code === "timing-unseen" || code === "timing-too-near") return check === "blade-timing" && (isRead || isClearLook(each));
  if (code === "belt-not-seated") return check === "belt-inspection" && assessment?.told.includes("belt-seat") === true;
  if (code === "blades-not-turned" || key.startsWith("touches:"))
    return TURNED_BY.includes(check ?? "") && assessment !== undefined && isToldAt(assessment.told, place);
  if (!key.startsWith("stop:")) return false;
  const [, stopped = "", at = ""] = key.split(":");
  const cause = key.split("#")[1];
  const stands = (assessment?.findings ?? []).some(
    (one) => one.verdict === "stop" && (one.on === undefined ? one.place : `${one.place}#${one.on}`) === `${at}`,
  );
  if (assessment) return !stands && (check !== stopped || isRead || isToldAt(assessment.told, place));
  // A look clears the cause it names, or by a look of another check what was mended since.
  return check === stopped
    ? each.some((one) => one.result === "not-found" && (cause === undefined || causesNow(cause).includes(one.cause as never)))
    : isClearLook(each);
}

/** Readings for which every blade is turned by hand. */
const TURNED_BY: readonly string[] = ["blade-track", "blade-timing"];

/** Whether a deed does away with a reason by being what it is, told from what was sent. */
function clears(reason: HeldReason, deed: DeedId, sent: Sent, before: MachineState, walk: Walk): boolean {
  const { code, key, place = "" } = reason;
  const known = code === "unsafe" ? before.unsafe.find((one) => one.key === key) : undefined;
  // Of a part that broke no reading clears the same part again.
  if (deed === "take" || deed === "finding")
    return !(known?.kind === "stop" && isBroken(known) && known.isReplacedSince !== true) && readsAway(reason, sent);
  const isTurned = deed === "put-back" && sent.yes?.includes(`turned:${place}`) === true;
  switch (code) {
    case "unsafe": {
      if (key.startsWith("touches:") && isTurned) return true;
      if (deed !== "release" || sent.keys?.includes(key) !== true || !isSubstantial(sent.reason ?? "")) return false;
      const cause = before.unsafe.find((one) => one.key === key);
      if (cause && !isLetGoByWord(cause)) return false;
      return cause?.kind !== "by-word" || cause.who === sent.who || isOwedToHolder(walk, sent);
    }
    case "deck-off":
      return deed === "deck";
    case "box-apart":
      return deed === "rebuild";
    case "work-open":
      return deed === "guided";
    case "part-on-bench":
    case "not-put-back":
      return deed === "put-back";
    case "belt-not-seated":
      return deed === "put-back" && sent.yes?.includes("belt-seated") === true;
    case "blades-not-turned":
      return isTurned;
    case "not-ready":
      return deed === "confirmation" && sent.state === "running";
    default:
      return false;
  }
}

const isOwedToHolder = ({ db, machineId }: Walk, { who }: Sent): boolean =>
  listOwed(db, machineId).some(({ detail }) => detail !== undefined && "letGo" in detail && detail.by === who);

const CHECKS_READ: readonly CheckId[] = [
  ...(["blade-edge", "blade-fit", "blade-track", "blade-timing", "spindle-play", "hanger-inspection", "deck-level"] as const),
  ...(["belt-inspection", "gearbox-inspection", "reel-edge", "reel-contact", "arm-play", "roller-square", "tip-speed"] as const),
];
const RESULTS = ["seen", "suspect", "not-found", "unclear", "not-found"] as const;
const fixRows: readonly FixRow[] = FIXES;
const causeRows: readonly CauseRow[] = CAUSES;

/** Confirms a state first, as somebody who wants to do what needs it mostly does. */
function standFirst(walk: Walk, state: SafeState): void {
  if (isIn(walk.state, state) && walk.chance(0.9)) return;
  if ((walk.isMending || walk.chance(0.7)) && statesOf(walk.machine).includes(state)) walk.perform("confirmation", walk.who);
}

let wanted: SafeState | undefined;
/** The deed after the state it needs. */
function within(walk: Walk, state: SafeState, told: () => { sent?: Partial<Sent>; act: () => unknown } | undefined) {
  wanted = state;
  standFirst(walk, state);
  wanted = undefined;
  return told();
}

function takeOf(walk: Walk, isCorrection: boolean): ReturnType<Try> {
  const { db } = walk;
  const offered = worksheetsFor(walk.machine).map(({ id }) => id);
  const open = [
    ...(walk.state.struck?.checks ?? []),
    ...walk.state.unsafe.flatMap((one) => (one.kind === "stop" ? [one.check] : [])),
    ...(walk.state.timing ? (["blade-timing", "blade-timing"] as const) : []),
  ];
  const mending = walk.isMending?.clears;
  const check = mending?.do === "read" ? mending.check : walk.pick([...open, ...open, ...CHECKS_READ].filter((id) => offered.includes(id)));
  const jobId = walk.jobId;
  const told = check && readingsOf(walk.make, check);
  if (!told || !worksheetById(check)) return undefined;
  const isTimed = walk.state.timing !== undefined && check === "blade-timing";
  const given =
    isTimed && !mending && walk.chance(0.5)
      ? told.partly
      : mending || walk.chance(0.45)
        ? told.sound
        : walk.chance(0.7) && told.bad.length > 0
          ? walk.pick(told.bad)
          : told.partly;
  const slip = isCorrection ? takesOfJob(db, jobId).find(({ ruleVersion }) => ruleVersion > 0) : undefined;
  if (isCorrection && !slip) return undefined;
  const reason = walk.reason();
  const { who } = walk;
  const own = slip ? (readingsOf(walk.make, slip.checkId) ?? told) : told;
  const readings = slip ? walk.pick([own.sound, own.sound, ...own.bad]) : given;
  const checkId = slip?.checkId ?? check;
  const state = CHECKS.find(({ id }) => id === checkId)?.state ?? "locked-out";
  return within(walk, state, () => ({
    sent: { check: checkId as CheckId, reason, ...(slip ? { isCorrection: true, of: slip.who } : {}) },
    act: () =>
      recordTake(db, walk.doing(who), {
        ...{ jobId, checkId, readings, asTyped: {}, reason },
        ...(slip ? { correctsStepId: slip.stepId } : {}),
      }),
  }));
}

/** Specifications as somebody might put them: places renamed and gone, another kind, features more or fewer, another stack, another order. */
function otherSheet(walk: Walk): Machine {
  const { machine } = walk;
  const told = JSON.parse(JSON.stringify(machine)) as Machine & { sheet: Record<string, unknown> };
  const own = FLEET.find(({ fleetNumber }) => fleetNumber === walk.make)?.machine;
  const [one] = told.spindles;
  switch (Math.floor(walk.random() * 10)) {
    case 0:
      if (one) one.id = `${one.id}-blade`.slice(0, 40);
      break;
    case 1:
      told.spindles = told.spindles.slice(0, -1);
      break;
    case 2:
      told.kind = walk.pick(["zero-turn", "walk-petrol", "walk-cordless", "geared-rider", "front-deck"]) as never;
      break;
    case 3:
      told.features = walk.pick([[], ["belt"], ["hangers"], ["gears"], ["belt", "hangers", "air-tyres"], ["gears", "hangers"]]) as never;
      break;
    case 4:
      if (told.sheet.blade)
        told.sheet.blade = {
          ...(told.sheet.blade as object),
          stack: walk.pick([
            ["bolt", "blade"],
            ["bolt", "lock-washer", "blade"],
          ]),
        } as never;
      break;
    case 5:
      told.sheet.deckOff = { steps: [{ id: "out", words: "Out it comes", parts: [] }], backFirst: [] } as never;
      break;
    case 6:
      told.sheet.gearboxes = undefined as never;
      break;
    case 7:
      if (told.deck) told.deck.hangers = told.deck.hangers.slice(1);
      break;
    default:
      return machineSchema.parse(own);
  }
  const read = machineSchema.safeParse(told);
  return read.success ? read.data : machine;
}

/** How each deed is tried. A deed of the record's that is not here does not compile. */
const TRIES: Record<DeedId, Try> = {
  confirmation: (walk) => {
    const state = wanted ?? walk.pick(["parked", "locked-out", "raised", "raised", "bench", "running", "running", "running"] as const);
    const { db, who, machine } = walk;
    const jobId = walk.jobId;
    const items = itemsFor(machine, state);
    const answers: Answers = { ...allYes(items) };
    const firm = items.find(({ isFirm }) => isFirm);
    const isStopped = wanted === undefined && walk.chance(0.15) && firm !== undefined;
    if (isStopped && firm) answers[firm.id] = { answer: "refused" };
    const parts = state === "bench" ? [walk.cutter()] : [];
    const act = () => recordConfirmation(db, walk.doing(who), { jobId, state, answers, parts });
    return { sent: isStopped ? {} : { state }, act };
  },
  "put-back": (walk) => {
    const { db, who, machine, state } = walk;
    const answers: Answers = { ...allYes(putBackPoints(machine, state)) };
    for (const id of Object.keys(answers))
      if (id.startsWith("turned:") && !walk.isMending && walk.chance(0.1)) answers[id] = { answer: "refused" };
    const yes = Object.keys(answers).filter((id) => answers[id]?.answer === "yes");
    const jobId = walk.jobId;
    return { sent: { yes }, act: () => recordPutBack(db, walk.doing(who), { jobId, answers }) };
  },
  lift: (walk) => {
    const mending = walk.isMending?.clears;
    const owner =
      mending?.do === "lift" ? mending.owner : walk.pick(walk.state.locks.length > 0 ? walk.state.locks.map(({ who }) => who) : PEOPLE);
    const [reason, jobId, { db, who }] = [mending ? WHY : walk.reason(), walk.jobId, walk];
    return { sent: { owner, reason }, act: () => recordLift(db, walk.doing(who), { jobId, owner, reason }) };
  },
  take: (walk) => takeOf(walk, false),
  "take-corrected": (walk) => takeOf(walk, true),
  finding: (walk) => {
    const { db, who } = walk;
    const open = [...(walk.state.struck?.checks ?? []), ...walk.state.unsafe.flatMap((one) => (one.kind === "stop" ? [one.check] : []))];
    const checkId = walk.pick(open.length > 0 && walk.chance(0.8) ? open : CHECKS_READ);
    const named = walk.chance(0.8)
      ? causeRows.filter(({ checks }) => checks.includes(checkId) && walk.chance(0.8)).map(({ id }) => id)
      : [];
    const each = named.map((cause) => ({ cause, result: walk.pick(RESULTS) }));
    const [jobId, result] = [walk.jobId, walk.pick(RESULTS)];
    const state = CHECKS.find(({ id }) => id === checkId)?.state ?? "locked-out";
    return within(walk, state, () => ({
      sent: { check: checkId, each },
      act: () =>
        recordFinding(db, walk.doing(who), { ...{ jobId, checkId, result, causes: [], note: "" }, ...(each.length > 0 ? { each } : {}) }),
    }));
  },
  fix: (walk) => {
    const { db, who } = walk;
    const row = walk.pick(fixRows);
    const jobId = walk.jobId;
    const units = walk.machine.units.length > 0 && walk.chance(0.5) ? [walk.cutter()] : [];
    return within(walk, row.state, () => ({
      act: () =>
        recordFix(db, walk.doing(who), { ...{ jobId, fix: row.fix, cause: row.cause, words: "" }, ...(units.length > 0 ? { units } : {}) }),
    }));
  },
  "test-cut": (walk) => {
    const { db, who } = walk;
    const jobId = walk.jobId;
    const seenCutting = walk.chance(0.5) ? cutters(walk.machine).map(({ id }) => id) : [];
    return { act: () => cutWith(db, { doing: () => walk.doing(who) } as never, jobId, { seenCutting }) };
  },
  guess: (walk) => ({ act: () => recordGuess(walk.db, walk.doing(walk.who), { jobId: walk.jobId, cause: "blade-bent" }) }),
  answer: (walk) => {
    const contexts = walk.chance(0.4) ? { "struck-object": walk.chance(0.5) } : { "one-machine-only": true };
    return { act: () => recordAnswer(walk.db, walk.doing(walk.who), { jobId: walk.jobId, symptoms: {}, contexts }) };
  },
  skip: (walk) => ({
    act: () =>
      recordSkip(walk.db, walk.doing(walk.who), {
        jobId: walk.jobId,
        checkId: "blade-edge",
        reason: walk.pick(["no-tool", "back"]),
        words: "",
      }),
  }),
  "second-look": (walk) => {
    const jobId = walk.jobId;
    const take = takesOfJob(walk.db, jobId).at(-1);
    return {
      act: () =>
        recordSecondLook(walk.db, walk.doing(walk.who), {
          jobId,
          takeStepId: take?.stepId ?? 0,
          cause: "blade-bent",
          isStillSo: walk.chance(0.5),
        }),
    };
  },
  note: (walk) => ({ act: () => recordNote(walk.db, walk.doing(walk.who), { jobId: walk.jobId, text: "as it is" }) }),
  event: (walk) => {
    // Another part in the place of one that broke, where that is what is to be done.
    const replaced = walk.isMending?.clears.do === "replace" ? (["blade-changed", "gearbox-off", "unit-apart"] as const) : undefined;
    const event = walk.pick(
      replaced ?? ([...EVENT_IDS.filter((id) => id !== "released"), "run", "run", "belt-disturbed", "struck"] as const),
    );
    const words = walk.reason();
    const place = !replaced && walk.chance(0.3) ? walk.cutter() : undefined;
    return {
      sent: { event, reason: words },
      act: () =>
        recordJobEvent(walk.db, walk.doing(walk.who), {
          jobId: walk.jobId,
          event: event as never,
          ...(words ? { words } : {}),
          ...(place ? { place } : {}),
        }),
    };
  },
  hold: (walk) => ({ act: () => recordHold(walk.db, walk.doing(walk.who), { jobId: walk.jobId, reason: "waits for its sheet" }) }),
  release: (walk) => {
    const keys = walk.state.unsafe.map(({ key }) => key).filter(() => walk.isMending !== undefined || walk.chance(0.6));
    const reason = walk.isMending ? WHY : walk.reason();
    const jobId = walk.jobId;
    return {
      sent: { keys, reason },
      act: () => recordRelease(walk.db, walk.doing(walk.who), { jobId, reasons: keys.map((key) => ({ key, reason })) }),
    };
  },
  handover: (walk) => ({
    act: () =>
      recordHandover(walk.db, walk.doing(walk.who), { jobId: walk.jobId, what: "blade", to: "the shop in town", owes: ["a weld"] }),
  }),
  close: (walk) => {
    const jobId = walk.state.stands?.jobId ?? walk.jobId;
    return {
      act: () => {
        closeJob(walk.db, walk.doing(walk.who), { jobId, causes: ["nothing-found"], words: "", unprovedReason: "no time for it" });
        walk.justClosed = jobId;
      },
    };
  },
  undo: (walk) => {
    const { db, who } = walk;
    const jobId = walk.justClosed ?? walk.jobId;
    const last = undoable(listSteps(db, jobId));
    if (!last) return undefined;
    const stepId = last.id;
    const reason = walk.reason();
    return { sent: { of: last.who, reason }, act: () => undoStep(db, walk.doing(who), { jobId, stepId, reason }) };
  },
  deck: (walk) => {
    const jobId = walk.jobId;
    return within(walk, "locked-out", () => {
      const { next } = deckState(walk.machine, deckMoves(walk.live));
      if (!next) return undefined;
      const { step, counts, answers = {} } = usualMove(next.step, next.way);
      return {
        act: () =>
          recordDeckMove(walk.db, walk.doing(walk.who), { jobId, way: next.way, step, counts: { ...counts }, answers: { ...answers } }),
      };
    });
  },
  guided: (walk) => {
    const jobId = walk.jobId;
    const guided = guidedStates(walk.machine, stepsOfMachine(walk.db, walk.machineId));
    const begun = guided.filter(({ where }) => where !== "on");
    const at = walk.pick(begun.length > 0 && (walk.isMending || walk.chance(0.8)) ? begun : guided);
    if (!at?.next) return undefined;
    const { next, round, place } = at;
    return within(walk, ROUND_STATE[round], () => {
      const { step, counts, answers = {}, sizes = {} } = usualMove(next.step, next.way);
      const move = { jobId, round, place, way: next.way, step, counts: { ...counts }, answers: { ...answers }, sizes: { ...sizes } };
      return { act: () => recordGuidedMove(walk.db, walk.doing(walk.who), move) };
    });
  },
  rebuild: (walk) => {
    const jobId = walk.jobId;
    const boxes = boxStates(walk.machine, stepsOfMachine(walk.db, walk.machineId));
    const begun = boxes.filter(({ where }) => where !== "on");
    const box = walk.pick(begun.length > 0 && (walk.isMending || walk.chance(0.8)) ? begun : boxes);
    if (!box?.next) return undefined;
    const { next } = box;
    return within(walk, "locked-out", () => {
      const { step, counts, answers = {}, sizes = {} } = usualMove(next.step, next.way);
      const move = {
        jobId,
        box: box.box,
        way: next.way,
        step,
        counts: { ...counts },
        answers: { ...answers },
        sizes: { ...sizes },
        loose: [],
      };
      return { act: () => recordRebuildMove(walk.db, walk.doing(walk.who), move) };
    });
  },
  "own-list": (walk) => ({
    act: () =>
      recordOwnList(walk.db, walk.doing(walk.who), {
        jobId: walk.jobId,
        round: "blade",
        place: walk.cutter(),
        counts: { bolt: walk.pick([1, 2]) },
      }),
  }),
  photograph: (walk) => ({
    act: () => recordPhotograph(walk.db, walk.doing(walk.who), { jobId: walk.jobId, about: "belt", picture: PICTURE }),
  }),
  "complaint-taken": (walk) => {
    const looks = { symptoms: ["vibration" as const], denied: [], contexts: walk.chance(0.3) ? (["struck-object"] as never) : [] };
    const joinJobId = walk.jobId;
    return {
      act: () =>
        takeComplaint(walk.db, walk.doing(walk.who), {
          machineId: walk.machineId,
          words: "again",
          saidBy: "TV",
          place: "",
          looks,
          joinJobId,
        }),
    };
  },
  "complaint-split": (walk) => {
    const jobId = walk.jobId;
    const [complaint] = complaintsOfJob(walk.db, jobId);
    return { act: () => splitComplaint(walk.db, walk.doing(walk.who), { jobId, complaintId: complaint?.id ?? 0 }) };
  },
  "jobs-joined": (walk) => ({
    act: () =>
      joinJobs(walk.db, walk.doing(walk.who), { jobId: walk.chance(0.5) ? walk.openJob(walk.who) : walk.jobId, intoJobId: walk.jobId }),
  }),
  "event-logged": (walk) => {
    const event = walk.pick([...EVENT_IDS.filter((id) => id !== "released"), "run", "belt-disturbed", "struck", "blade-changed"] as const);
    const words = walk.reason();
    const place = walk.chance(0.3) ? walk.cutter() : undefined;
    return {
      sent: { event, reason: words },
      act: () =>
        logEvent(walk.db, walk.doing(walk.who), { machineId: walk.machineId, event: event as never, words, ...(place ? { place } : {}) }),
    };
  },
  "event-voided": (walk) => {
    const events = listEvents(walk.db, walk.machineId);
    const one = walk.pick(events);
    if (!one) return undefined;
    const reason = walk.reason();
    return {
      sent: { of: one.who, reason },
      act: () => voidEvent(walk.db, walk.doing(walk.who), { machineId: walk.machineId, eventId: one.id, reason }),
    };
  },
  "machine-added": (walk) => ({
    act: () =>
      addMachine(walk.db, walk.doing(walk.who), { fleetNumber: `W${walk.seed}`, name: "Twice", site: "Yard", machine: walk.machine }),
  }),
  "sheet-replaced": (walk) => {
    const { sheetVersion } = getMachine(walk.db, walk.machineId);
    const machine = otherSheet(walk);
    return {
      act: () =>
        replaceSheet(walk.db, walk.doing(walk.who), {
          machineId: walk.machineId,
          basedOnVersion: sheetVersion,
          machine,
          reason: "as it is",
        }),
    };
  },
  "bench-setting-kept": (walk) => {
    const { sheetVersion, machine } = getMachine(walk.db, walk.machineId);
    const [unit] = machine.units;
    const view = unit && unitSheetOf(machine, unit.id).sideView;
    if (!unit || !view) return undefined;
    const { frontZMetres, rearZMetres } = settingOf(view);
    const settings = { [unit.id]: { frontZMetres, rearZMetres: rearZMetres + walk.pick([0.0002, -0.0002]) } };
    return {
      act: () =>
        keepBenchSetting(walk.db, walk.doing(walk.who), {
          machineId: walk.machineId,
          basedOnVersion: sheetVersion,
          settings,
          reason: "a shade",
        }),
    };
  },
  "machine-renamed": (walk) => ({
    act: () =>
      renameMachine(walk.db, walk.doing(walk.who), {
        machineId: walk.machineId,
        name: walk.pick(["Old", "New"]),
        site: walk.pick(["Yard", "Lawn"]),
      }),
  }),
  "machine-standing": (walk) => {
    const kind = getMachine(walk.db, walk.machineId).retired ? ("back" as const) : ("retired" as const);
    return {
      act: () => {
        // A retired machine has no open job: they are closed first, as far as that goes.
        if (kind === "retired" && walk.chance(0.5))
          for (const jobId of walk.jobs)
            if (!walk.isClosed(jobId))
              closeJob(walk.db, walk.doing(walk.who), { jobId, causes: ["nothing-found"], words: "", unprovedReason: "it is sold" });
        setStanding(walk.db, walk.doing(walk.who), { machineId: walk.machineId, kind, reason: "sold on" });
      },
    };
  },
  "hours-logged": (walk) => ({
    act: () =>
      logHours(walk.db, walk.doing(walk.who), {
        ...{
          machineId: walk.machineId,
          meterHours: Math.floor(walk.random() * 300),
          isCorrection: walk.chance(0.3),
          isSure: walk.chance(0.3),
        },
      }),
  }),
  "hours-imported": (walk) => ({
    act: () =>
      importHours(walk.db, walk.doing(walk.who), {
        rows: [{ fleetNumber: `W${walk.seed}`, meterHours: Math.floor(walk.random() * 300) }],
        isSure: true,
      }),
  }),
  "meter-swapped": (walk) => ({
    act: () => swapMeter(walk.db, walk.doing(walk.who), { machineId: walk.machineId, oldHours: 300, newHours: 0, isSure: true }),
  }),
  "meter-swap-taken-back": (walk) => ({
    act: () =>
      takeBackMeterSwap(walk.db, walk.doing(walk.who), {
        machineId: walk.machineId,
        swapId: lastMeterSwap(walk.db, walk.machineId)?.id ?? 0,
      }),
  }),
  "spindles-logged": (walk) => ({
    act: () =>
      logSpindles(walk.db, walk.doing(walk.who), {
        machineId: walk.machineId,
        kind: walk.pick(["purged", "bearings-new"] as const),
        places: [walk.cutter()],
      }),
  }),
  "spindle-entry-taken-back": (walk) => {
    const entry = listSpindleLog(walk.db, walk.machineId).at(-1);
    const reason = walk.reason();
    return {
      sent: { reason, ...(entry ? { of: entry.who } : {}) },
      act: () =>
        takeBackSpindleEntry(walk.db, walk.doing(walk.who), {
          machineId: walk.machineId,
          entryId: entry?.id ?? 0,
          ...(reason ? { reason } : {}),
        }),
    };
  },
  "machine-photographed": (walk) => ({
    act: () => addMachinePhotograph(walk.db, walk.doing(walk.who), { machineId: walk.machineId, about: "damage", picture: PICTURE }),
  }),
  "machine-photograph-taken-back": (walk) => ({
    act: () =>
      takeBackMachinePhotograph(walk.db, walk.doing(walk.who), {
        ...{ machineId: walk.machineId, photographId: machinePhotographs(walk.db, walk.machineId)[0]?.id ?? 0 },
      }),
  }),
  "owed-done": (walk) => ({
    act: () => settleOwed(walk.db, walk.doing(walk.who), { owedId: listOwed(walk.db, walk.machineId)[0]?.id ?? 0 }),
  }),
  "owed-postponed": (walk) => ({
    act: () =>
      postponeOwed(walk.db, walk.doing(walk.who), {
        owedId: listOwed(walk.db, walk.machineId)[0]?.id ?? 0,
        untilDay: "2027-06-12",
        words: "waits for a dry lawn",
      }),
  }),
  "service-rule": (walk) => ({
    act: () =>
      addRule(walk.db, walk.doing(walk.who), {
        what: "sharpen",
        scope: "machine",
        machineId: walk.machineId,
        isOff: false,
        everyHours: 9,
        reason: "sand",
      }),
  }),
  "service-done": (walk) => ({
    act: () =>
      logService(walk.db, walk.doing(walk.who), {
        machineId: walk.machineId,
        what: walk.pick(["sharpen", "grind", "edges"]),
        kind: "done",
        words: "",
      }),
  }),
  "service-postponed": (walk) => ({
    act: () =>
      postponeService(walk.db, walk.doing(walk.who), {
        machineId: walk.machineId,
        what: "edges",
        untilDay: "2027-06-12",
        words: "no time",
      }),
  }),
  "service-taken-back": (walk) => ({
    act: () =>
      takeBackService(walk.db, walk.doing(walk.who), {
        machineId: walk.machineId,
        entryId: serviceEntries(walk.db, walk.machineId).at(-1)?.id ?? 0,
      }),
  }),
  "round-added": (walk) => ({
    act: () => addRound(walk.db, walk.doing(walk.who), { what: "edges", title: "Edges", byDay: "2099-06-12", machines: [walk.machineId] }),
  }),
  "procedure-kept": (walk) => {
    const slug = "walked";
    const last = listProcedures(walk.db).findLast((one) => one.slug === slug);
    const procedure = { title: "Walked", body: "As it is.", checks: ["blade-edge" as const] };
    return {
      act: () => keepProcedure(walk.db, walk.doing(walk.who), { slug, basedOnVersion: last?.version ?? 0, procedure, reason: "again" }),
    };
  },
  "procedure-withdrawn": (walk) => ({
    act: () =>
      withdrawProcedure(walk.db, walk.doing(walk.who), {
        slug: "walked",
        version: listProcedures(walk.db).at(-1)?.version ?? 1,
        reason: "wrong",
      }),
  }),
  "school-set": (walk) => ({
    act: () =>
      setSchool(walk.db, walk.doing(walk.who), { school: "spindle-places", choice: walk.pick(["own", "rotated"]), reason: "the manual" }),
  }),
  "preferences-set": (walk) => ({
    act: () => setPreferences(walk.db, walk.doing(walk.who), { initials: walk.who, preferences: { theme: walk.pick(["light", "dark"]) } }),
  }),
  "feed-key-changed": (walk) => ({ act: () => changeFeedKey(walk.db, walk.doing(walk.who)) }),
  "site-place-added": (walk) => ({
    act: () => addPlace(walk.db, walk.doing(walk.who), { site: listSites(walk.db)[0] ?? "", name: "Weir gate", words: "" }),
  }),
  "site-place-gone": (walk) => ({
    act: () => placeGone(walk.db, walk.doing(walk.who), { placeId: walk.pick([1, 2, 3]), reason: "flush" }),
  }),
  "site-place-back": (walk) => ({ act: () => placeBack(walk.db, walk.doing(walk.who), walk.pick([1, 2, 3])) }),
  "site-picture": (walk) => ({
    act: () => addSitePicture(walk.db, walk.doing(walk.who), { site: listSites(walk.db)[0] ?? "", picture: PICTURE }),
  }),
  "part-added": (walk) => ({ act: () => addPart(walk.db, walk.doing(walk.who), { part: A_BLADE }) }),
  "part-changed": (walk) => {
    const basedOnVersion = tried(() => getPart(walk.db, 1).version) ?? 1;
    return {
      act: () => changePart(walk.db, walk.doing(walk.who), { partId: 1, basedOnVersion, part: { ...A_BLADE, price: walk.random() * 20 } }),
    };
  },
  "part-moved": (walk) => {
    const move = walk.pick([
      { why: "bought" as const, count: 6, lot: "L1" },
      { why: "fitted" as const, count: 1, lot: "L1", machineId: walk.machineId },
    ]);
    return { act: () => movePart(walk.db, walk.doing(walk.who), { partId: 1, move }) };
  },
  "part-move-taken-back": (walk) => ({
    act: () => takeBackMove(walk.db, walk.doing(walk.who), { partId: 1, moveId: movesOf(walk.db, 1).at(-1)?.id ?? 0 }),
  }),
  "set-added": (walk) => ({ act: () => addSet(walk.db, walk.doing(walk.who), { partId: 1, mark: `S${walk.pick([1, 2, 3])}`, lot: "" }) }),
  "set-fitted": (walk) => setEntry(walk, { kind: "fitted", machineId: walk.machineId, place: walk.cutter(), work: "rough" }),
  "set-came-off": (walk) => setEntry(walk, { kind: "came-off", why: "changed" }),
  "set-sharpened": (walk) => setEntry(walk, { kind: "sharpened" }),
  "set-looked": (walk) => setEntry(walk, { kind: "looked", isDull: walk.chance(0.5) }),
  "set-finished": (walk) => (walk.chance(0.1) ? setEntry(walk, { kind: "finished", why: "worn" }) : undefined),
  "set-put": (walk) => setEntry(walk, { kind: "put", where: "the rack" }),
  "set-entry-taken-back": (walk) => ({
    act: () => takeBackSetEntry(walk.db, walk.doing(walk.who), { setId: walk.pick([1, 2, 3]), entryId: Math.floor(walk.random() * 20) }),
  }),
};

const A_BLADE = {
  kind: "blade",
  label: "Blade",
  lengthMetres: 0.43,
  hole: "round",
  holeMetres: 0.0159,
  lowMark: 2,
  currency: "£",
} as never as Parameters<typeof addPart>[2]["part"];

const setEntry = (walk: Walk, entry: Parameters<typeof logSet>[2]["entry"]): ReturnType<Try> => ({
  act: () => logSet(walk.db, walk.doing(walk.who), { setId: walk.pick([1, 2, 3]), entry }),
});

function tried<T>(read: () => T): T | undefined {
  try {
    return read();
  } catch (error) {
    if (error instanceof AppError) return undefined;
    throw error;
  }
}

export const DEED_IDS = Object.keys(DEEDS) as DeedId[];

/** Deeds that raise and clear reasons come more often than the shop's. */
const OFTEN: readonly DeedId[] = [
  ...([
    "confirmation",
    "confirmation",
    "confirmation",
    "confirmation",
    "put-back",
    "put-back",
    "put-back",
    "take",
    "take",
    "take",
    "take",
  ] as const),
  ...([
    "finding",
    "finding",
    "fix",
    "fix",
    "undo",
    "undo",
    "undo",
    "undo",
    "event",
    "event-logged",
    "event-voided",
    "event-voided",
  ] as const),
  ...([
    "sheet-replaced",
    "sheet-replaced",
    "guided",
    "guided",
    "guided",
    "deck",
    "rebuild",
    "lift",
    "release",
    "hold",
    "test-cut",
  ] as const),
  ...(["take-corrected", "close", "answer"] as const),
];

/** One walk of so many deeds on a machine of its own. Throws at the first reason that went unexplained. */
export function walkGate(
  depot: GateDepot,
  args: { seed: number; deeds: number; tally: GateTally; after?: (walk: Walk, deed: number) => void },
): void {
  const walk = new Walk(depot, args.seed, args.tally);
  for (let k = 0; k < args.deeds; k++) {
    const who = walk.pick(PEOPLE);
    if (walk.chance(0.02)) walk.setBack(who);
    walk.reopen(who);
    if (walk.chance(0.04)) k += walk.mend();
    walk.perform(walk.chance(0.85) ? walk.pick(OFTEN) : walk.pick(DEED_IDS), who);
    // A job is often closed by one and opened again by another.
    if (walk.justClosed !== undefined && walk.chance(0.6)) walk.perform("undo", walk.pick(PEOPLE));
    walk.justClosed = undefined;
    args.after?.(walk, k);
  }
}
