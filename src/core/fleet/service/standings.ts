import type { EventId } from "@/core/catalogue";
import { type DueDay, dueDay, type Pace } from "@/core/fleet/reliability";
import { isAhead, type MeterReading, meterAt } from "@/core/job/staleness";
import type { Machine } from "@/core/machine";
import {
  hasTask,
  type LastSeen,
  placesOf,
  ruleFor,
  SERVICE_TASKS,
  type Seen,
  type ServiceRule,
  type SetRule,
  type TaskId,
  type TaskRow,
  taskRow,
} from "./tasks";

/** How anything stands that is to be done by hours, by the calendar, by what happened or by what is left of a part; the most pressing first. */
export const DUE_STATES = ["overdue", "due", "soon", "postponed", "unknown", "good"] as const;
export type DueState = (typeof DUE_STATES)[number];

/** What is said beforehand, or waits to be done. */
export const presses = (state: DueState): boolean => state !== "good" && state !== "unknown";
/** By how much it presses, for sorting: less is more. */
export const byPressing = (a: { state: DueState }, b: { state: DueState }): number =>
  DUE_STATES.indexOf(a.state) - DUE_STATES.indexOf(b.state);

/** Written down as service, outside any job or in a round. */
export type ServiceEntry = {
  what: string;
  kind: "done" | "rechecked" | "postponed";
  /** Only there; all over the machine where none are named. */
  places?: readonly string[];
  /** Of something owed, which one. */
  owedId?: number;
  /** Where it stands in the one log of steps, events and service. */
  seq: number;
  at: string;
  who: string;
  untilDay?: string;
  words: string;
  id: number;
};

export type ServiceStanding = {
  what: TaskId;
  /** Where it is, of a task that is done place by place and does not stand alike at all of them. */
  places?: string[];
  rule?: ServiceRule;
  state: DueState;
  last?: { at: string; who: string; jobId?: number; how: "job" | "service" };
  hoursSince?: number;
  hoursLeft?: number;
  /** With 80 % within, where hours decide. */
  day?: DueDay;
  /** Done under a clock that ran ahead: how long ago cannot be told, and so it is due. */
  isAhead?: true;
  /** Raised by something that happened since it was last done. */
  raisedBy?: { event: EventId; at: string };
  postponed?: Postponed;
};
export type Postponed = { untilDay: string; who: string; words: string };

/** Of a part that wears: hours until the next is to be there, and whether it is time; by the log, when the one that is on came. */
export type Left = { hoursLeft?: number; isTime: boolean; sinceSeq: number };

const DAY = 86_400_000;
const SOON_SHARE = 0.1;
const OVER_SHARE = 0.1;
/** Days beforehand that are soon, of what goes by the calendar. Estimate. */
const SOON_DAYS = 2;

/** By the log's own order, whatever the clock says. */
const lastWritten = <T extends { seq: number }>(all: readonly (T | undefined)[]): T | undefined =>
  all
    .filter((one): one is T => one !== undefined)
    .sort((a, b) => a.seq - b.seq)
    .at(-1);

/** The last time the record shows it at a place; what was done to the whole machine was done there too. */
function lastAt(task: TaskRow, seen: LastSeen, place: string | undefined): Seen | undefined {
  const at = place === undefined ? "" : `@${place}`;
  return lastWritten([
    ...(task.by ? [] : task.fixes.map((id) => seen[`fix:${id}`])),
    ...task.checks.map((id) => seen[`check:${id}${at}`]),
    ...task.events.flatMap((id) => [seen[`event:${id}${at}`], seen[`event:${id}`]]),
    ...(task.spindles ?? []).map((deed) => seen[`spindle:${deed}${at}`]),
  ]);
}

/** All that a machine's tasks are reckoned from. */
export type DueArgs = {
  machineId: string;
  machine: Machine;
  rules: readonly SetRule[];
  sharpenHours: number;
  /** By its log, with `spindle:` where each spindle stands now. */
  seen: LastSeen;
  entries: readonly ServiceEntry[];
  /** By task and place, of what goes by what is left. */
  left?: Readonly<Record<string, Left>>;
  meter: readonly MeterReading[];
  use: Pace;
  now: string;
  /** The depot's own day, as it is said in what was put off. */
  today: string;
};

export const leftKey = (what: TaskId, place: string): string => `${what}@${place}`;

/** What was put off and until when, if that is still to come and nothing happened since. */
function postponedBy(
  own: readonly ServiceEntry[],
  { today }: Pick<DueArgs, "today">,
  since: { last?: { seq: number } | undefined; raised?: { seq: number } | undefined },
): Postponed | undefined {
  const put = own.filter(({ kind }) => kind === "postponed").at(-1);
  if (put?.untilDay === undefined || today >= put.untilDay) return undefined;
  // What was raised after it was put off was not known then.
  if (since.raised && since.raised.seq > put.seq) return undefined;
  if (since.last && since.last.seq > put.seq) return undefined;
  return { untilDay: put.untilDay, who: put.who, words: put.words };
}

type Done = { at: string; who: string; seq: number; jobId?: number };

/** When a task was last done at a place, and by whose word. */
function doneAt(task: TaskRow, place: string | undefined, own: readonly ServiceEntry[], args: DueArgs) {
  const ofLog: Done | undefined = lastAt(task, args.seen, place);
  // A spindle's grease is in its own log, which goes where the spindle goes.
  const said = task.spindles ? undefined : own.filter(({ kind }) => kind !== "postponed").at(-1);
  const last = lastWritten([ofLog, said]);
  const told: ServiceStanding["last"] = last && {
    ...{ at: last.at, who: last.who },
    ...(last === said || task.spindles
      ? { how: "service" as const }
      : { how: "job" as const, ...(ofLog?.jobId === undefined ? {} : { jobId: ofLog.jobId }) }),
  };
  return { last, told };
}

/** One task at one of its places: when it was last done and by whose word, and when it is due. */
function standingAt(task: TaskRow & { id: TaskId }, place: string | undefined, args: DueArgs): ServiceStanding | undefined {
  const what = task.id;
  const rule = ruleFor({ ...args, what, place });
  const own = args.entries.filter(
    (entry) => entry.what === what && (!entry.places || (place !== undefined && entry.places.includes(place))),
  );
  if (task.goesBy) return byWhatIsLeft({ what, place: place ?? "", rule, own }, args);
  const { last, told } = doneAt(task, place, own, args);
  const raised = task.raisedBy
    .flatMap((event) => {
      const { seen } = args;
      const seenAt = lastWritten([seen[`event:${event}`], ...(place === undefined ? [] : [seen[`event:${event}@${place}`]])]);
      return seenAt && !(last && last.seq >= seenAt.seq) ? [{ event, at: seenAt.at, seq: seenAt.seq }] : [];
    })
    .at(-1);
  if (!rule && !raised) return undefined;
  const byRule = rule ? stateBy(rule, last, args) : { state: "good" as const };
  const base: ServiceStanding = {
    what,
    ...(rule ? { rule } : {}),
    ...(told ? { last: told } : {}),
    ...(raised ? { raisedBy: { event: raised.event, at: raised.at } } : {}),
    ...byRule,
    ...(raised && byRule.state !== "overdue" ? { state: "due" as const } : {}),
  };
  // A spindle that came to stand there since was not the one that was put off.
  const moved = task.spindles && place !== undefined ? args.seen[`spindle:moved@${place}`] : undefined;
  return putOff(base, postponedBy(own, args, { last, raised: lastWritten([raised, moved]) }));
}

/** What is not owing yet is not put off: the word stands for when it is. */
const putOff = (base: ServiceStanding, postponed: Postponed | undefined): ServiceStanding =>
  postponed && base.state !== "good" && base.state !== "soon" ? { ...base, state: "postponed", postponed } : base;

/** A part of which so much is left: ordered once it is time, and done with that until another is on. */
function byWhatIsLeft(
  { what, place, rule, own }: { what: TaskId; place: string; rule: ServiceRule | undefined; own: readonly ServiceEntry[] },
  args: DueArgs,
): ServiceStanding | undefined {
  const left = args.left?.[leftKey(what, place)];
  if (!rule || !left) return undefined;
  const done = own.filter(({ kind, seq }) => kind !== "postponed" && seq > left.sinceSeq).at(-1);
  const { hoursLeft } = left;
  const base: ServiceStanding = {
    what,
    rule,
    ...(done ? { last: { at: done.at, who: done.who, how: "service" as const } } : {}),
    ...(hoursLeft === undefined ? {} : { hoursLeft, day: dueDay(args.use, hoursLeft, args.now) }),
    state: left.isTime && !done ? "due" : "good",
  };
  return putOff(base, postponedBy(own, args, { last: done }));
}

function stateBy(
  rule: ServiceRule,
  last: { at: string } | undefined,
  { meter, use, now }: DueArgs,
): Pick<ServiceStanding, "state" | "hoursSince" | "hoursLeft" | "day" | "isAhead"> {
  if (!last) return { state: "unknown" };
  if (isAhead(last.at, now)) return { state: "due", isAhead: true };
  const shares: number[] = [];
  let answer: Pick<ServiceStanding, "hoursSince" | "hoursLeft" | "day"> = {};
  const today = meter.at(-1)?.meterHours;
  // Before anybody read the meter: it has run at least what it has since it was first read.
  const then = meterAt(meter, last.at) ?? meter.find(({ at }) => at >= last.at)?.meterHours;
  const isLeast = meterAt(meter, last.at) === undefined;
  if (rule.everyHours !== undefined && then !== undefined && today !== undefined) {
    const hoursSince = Math.max(0, today - then);
    const hoursLeft = rule.everyHours - hoursSince;
    shares.push(hoursSince / rule.everyHours);
    answer = { hoursSince, hoursLeft, day: dueDay(use, hoursLeft, now) };
  }
  if (rule.everyDays !== undefined) {
    const days = (Date.parse(now) - Date.parse(last.at)) / DAY;
    shares.push(days >= rule.everyDays - SOON_DAYS && days < rule.everyDays ? 1 - SOON_SHARE : days / rule.everyDays);
    const on = new Date(Date.parse(last.at) + rule.everyDays * DAY).toISOString();
    if (answer.day?.on === undefined || on < answer.day.on) answer = { ...answer, day: { early: on, on, late: on } };
  }
  // Hours are the rule and nobody read the meter then: when it was done is known, how long ago by hours is not.
  if (shares.length === 0) return { state: "unknown" };
  const share = Math.max(...shares);
  // How far it had run by then nobody knows: under the rule's hours it may be due all the same, and is looked at.
  if (isLeast && rule.everyHours !== undefined && today !== undefined && share < 1) return { ...answer, state: "due" };
  const state = share >= 1 + OVER_SHARE ? "overdue" : share >= 1 ? "due" : share >= 1 - SOON_SHARE ? "soon" : "good";
  return { ...answer, state };
}

type AtPlace = { place: string | undefined; standing: ServiceStanding };

/** One task at each of its places, the machine as a whole being one without a name; where it is done with another that is due there, not at all. */
export function taskByPlace(what: TaskId, args: DueArgs): AtPlace[] {
  const task = taskRow(what);
  if (!task || !hasTask(task, args.machine)) return [];
  const before = task.within === undefined ? [] : taskByPlace(task.within as TaskId, args);
  return placesOf(task, args.machine).flatMap((place): AtPlace[] => {
    const wider = before.find((one) => one.place === place)?.standing.state;
    if (wider === "due" || wider === "overdue") return [];
    const standing = standingAt({ ...task, id: what }, place, args);
    return standing ? [{ place, standing }] : [];
  });
}

/** One task of a machine: one standing for each way it stands at its places, the most pressing first, what is good only where nothing else is. */
export function taskStandings(what: TaskId, args: DueArgs): ServiceStanding[] {
  const at = taskByPlace(what, args);
  const all = placesOf(taskRow(what) ?? {}, args.machine).length;
  const states = DUE_STATES.filter((state) => at.some(({ standing }) => standing.state === state));
  const told = states.length > 1 ? states.filter((state) => state !== "good") : states;
  return told.flatMap((state): ServiceStanding[] => {
    const own = at.filter(({ standing }) => standing.state === state);
    const [first] = [...own].sort((a, b) => soonest(a.standing, b.standing));
    const places = own.flatMap(({ place }) => place ?? []);
    return first ? [{ ...first.standing, ...(places.length > 0 && places.length < all ? { places } : {}) }] : [];
  });
}

/** What was done longest ago speaks for those that stand alike. */
const soonest = (a: ServiceStanding, b: ServiceStanding): number => {
  const [one, other] = [a.last?.at ?? "", b.last?.at ?? ""];
  return one < other ? -1 : one > other ? 1 : (a.hoursLeft ?? Number.POSITIVE_INFINITY) - (b.hoursLeft ?? Number.POSITIVE_INFINITY);
};

/** Every task of a machine that has a rule or was raised, the most pressing first. */
export function serviceStandings(args: DueArgs): ServiceStanding[] {
  return SERVICE_TASKS.flatMap(({ id }) => taskStandings(id, args)).sort(byPressing);
}

/**
 * Something owed by a day, said in the same words: soon two days before, due on it, overdue after. `own`: what was written down of it, the oldest first;
 * `undefined` once it is done.
 */
export function owedStanding(args: {
  dueAt: string;
  own: readonly ServiceEntry[];
  now: string;
  today: string;
  /** The day of a time, in the depot's own zone. */
  dayOf: (iso: string) => string;
}): Pick<ServiceStanding, "state" | "day" | "postponed"> | undefined {
  const { dueAt, own, now, today, dayOf } = args;
  if (own.some(({ kind }) => kind === "done")) return undefined;
  const [on, days] = [dayOf(dueAt), (Date.parse(dueAt) - Date.parse(now)) / DAY];
  const state: DueState = on < today ? "overdue" : on === today || days <= 0 ? "due" : days <= SOON_DAYS ? "soon" : "good";
  const day = { early: dueAt, on: dueAt, late: dueAt };
  const postponed = postponedBy(own, args, {});
  return postponed ? { state: "postponed", day, postponed } : { state, day };
}
