import { isAhead, type MeterReading, meterAt } from "@/core/events";
import { featuresOf, type KindId, kindById, meetsNeed, type Need } from "@/core/kinds";
import { type DueDay, dueDay, type Pace } from "@/core/lasting";
import { type Machine, spindlesAcross, unitSheetOf, unitsAcross } from "@/core/machine";
import type { LogLine } from "@/core/state";
import { emptyTable } from "@/core/tables";
import type { CheckId, EventId, FixId } from "@/core/trade";

/** A sort of service: what of the record says that it was done, and what raises it whatever the hours say. */
export type TaskRow = {
  id: string;
  label: string;
  on: readonly ("rotary" | "reel")[];
  needs: Need;
  fixes: readonly FixId[];
  checks: readonly CheckId[];
  events: readonly EventId[];
  raisedBy: readonly EventId[];
  /** Done at each of these by itself: one that was done clears no other. */
  by?: "unit" | "cutter" | "air-wheel";
  /** Written down where it is done, part by part and by how much: in a job, and nowhere else. */
  isCounted?: true;
};

// biome-ignore format: a table is read by rows
export const SERVICE_TASKS = [
  { id: "sharpen", label: "Sharpen the blades", on: ["rotary"], needs: [], fixes: ["sharpen-blades", "replace-blades"], checks: [], events: ["blade-changed"], raisedBy: [] },
  { id: "grind", label: "Grind reels and knives", on: ["reel"], needs: [], by: "unit", isCounted: true, fixes: [], checks: [], events: ["unit-ground"], raisedBy: [] },
  { id: "edges", label: "Look at the edges", on: ["rotary", "reel"], needs: [], by: "cutter", fixes: [], checks: ["blade-edge", "reel-edge"], events: [], raisedBy: ["top-dressed"] },
  { id: "wash-deck", label: "Clean the underside", on: ["rotary"], needs: [], fixes: ["clean-deck"], checks: [], events: ["deck-cleaned"], raisedBy: ["mown-wet-or-tall"] },
  { id: "wash-rollers", label: "Clean the rollers", on: ["reel"], needs: [], by: "unit", fixes: [], checks: [], events: ["roller-cleaned"], raisedBy: ["mown-wet-or-tall"] },
  { id: "tyre-check", label: "Read the tyres", on: ["rotary", "reel"], needs: [["air-tyres"]], by: "air-wheel", fixes: [], checks: ["tyre-pressure"], events: [], raisedBy: [] },
  { id: "gearbox-oil", label: "Change the gearbox oil", on: ["rotary"], needs: [["gears"]], fixes: ["reseal-gearbox", "rebuild-gearbox"], checks: [], events: [], raisedBy: [] },
  { id: "bolts", label: "Blade bolts by the wrench", on: ["rotary"], needs: [], by: "cutter", fixes: [], checks: ["blade-fit"], events: [], raisedBy: [] },
] as const satisfies readonly TaskRow[];

export type TaskId = (typeof SERVICE_TASKS)[number]["id"];
export const TASK_IDS = SERVICE_TASKS.map(({ id }) => id) as [TaskId, ...TaskId[]];
const rows: readonly TaskRow[] = SERVICE_TASKS;
export const taskRow = (id: string): TaskRow | undefined => rows.find((row) => row.id === id);

/** How often; both: whichever comes first. `scope`: whose rule it is; `usual` is nobody's but the trade's, `looks` what was seen of edges on an estimate. */
export type ServiceRule = {
  what: TaskId;
  everyHours?: number;
  everyDays?: number;
  isOff?: boolean;
  scope: "usual" | "looks" | "sheet" | "fleet" | "kind" | "machine";
};

/** Common practice and estimates, where nobody has set a rule. */
const USUAL_GRIND_HOURS = 100;
const USUAL_WASH_HOURS = 25;
const TYRE_DAYS = 7;
const GEARBOX_HOURS = 200;

/** Whether a task exists for a machine at all. */
export function hasTask(task: TaskRow, machine: Pick<Machine, "kind" | "features">): boolean {
  return task.on.includes(kindById(machine.kind).cutsWith) && meetsNeed(featuresOf(machine), task.needs);
}

/** What holds where no rule was set: the machine's sheet, what its kind's looks at edges say, or the trade's usual. */
export function usualRule(what: TaskId, machine: Machine, sharpenHours: number): ServiceRule | undefined {
  switch (what) {
    case "sharpen": {
      const own = machine.sheet.blade?.hoursPerEdge;
      return own === undefined ? { what, everyHours: sharpenHours, scope: "looks" } : { what, everyHours: own, scope: "sheet" };
    }
    case "grind": {
      const told = unitsAcross(machine).flatMap(({ id }) => unitSheetOf(machine, id).bedknife?.hoursBetweenGrinds ?? []);
      return told.length > 0
        ? { what, everyHours: Math.min(...told), scope: "sheet" }
        : { what, everyHours: USUAL_GRIND_HOURS, scope: "usual" };
    }
    case "wash-deck":
    case "wash-rollers":
      return { what, everyHours: USUAL_WASH_HOURS, scope: "usual" };
    case "tyre-check":
      return { what, everyDays: TYRE_DAYS, scope: "usual" };
    case "gearbox-oil":
      return { what, everyHours: GEARBOX_HOURS, scope: "usual" };
    default:
      // Raised by what happens, not by hours, unless a rule says so.
      return undefined;
  }
}

export type SetRule = ServiceRule & { scope: "fleet" | "kind" | "machine"; kind?: KindId; machineId?: string };

/** The rule in force for one machine: its own before its kind's before the fleet's before what is usual; one that is off leaves the task undone. */
export function ruleFor(args: {
  what: TaskId;
  machineId: string;
  machine: Machine;
  rules: readonly SetRule[];
  sharpenHours: number;
}): ServiceRule | undefined {
  const { what, machineId, machine, rules } = args;
  const own = rules.filter((rule) => rule.what === what);
  const found =
    own.findLast((rule) => rule.scope === "machine" && rule.machineId === machineId) ??
    own.findLast((rule) => rule.scope === "kind" && rule.kind === machine.kind) ??
    own.findLast((rule) => rule.scope === "fleet");
  if (found?.isOff) return undefined;
  return found ?? usualRule(what, machine, args.sharpenHours);
}

/**
 * When something of the record was last there, by `fix:`, `check:` and `event:` ids; at one place with `@` and the place, where a check read it in full or
 * an event names it.
 */
export type LastSeen = Readonly<Record<string, Seen>>;
type Seen = { at: string; seq: number; who: string; jobId?: number };

const keysOf = (line: LogLine): string[] => {
  switch (line.kind) {
    case "fix":
      return [`fix:${line.fix}`];
    case "take":
      return line.told.map((place) => `check:${line.check}@${place.split("#")[0]}`);
    case "event":
      return line.isTakenBack ? [] : [`event:${line.event}${line.place === undefined ? "" : `@${line.place}`}`];
    default:
      return [];
  }
};

/** The last of each fix, check and event of a machine's log, by its order, whatever the clock says; with what was seen `before` these lines. */
export function lastSeen(log: readonly LogLine[], before: LastSeen = {}): LastSeen {
  const found: Record<string, Seen> = Object.assign(emptyTable<Seen>(), before);
  for (const line of log)
    for (const key of keysOf(line)) {
      const known = found[key];
      if (known && known.seq > line.seq) continue;
      found[key] = { at: line.at, seq: line.seq, who: line.who, ...(line.jobId === undefined ? {} : { jobId: line.jobId }) };
    }
  return found;
}

/** Where a task is done by itself; the whole machine as one where it is not told apart. */
function placesOf(task: TaskRow, machine: Machine): (string | undefined)[] {
  switch (task.by) {
    case "unit":
      return unitsAcross(machine).map(({ id }) => id);
    case "cutter":
      return [...spindlesAcross(machine), ...unitsAcross(machine)].map(({ id }) => id);
    case "air-wheel":
      return machine.wheels.filter(({ isPneumatic }) => isPneumatic).map(({ id }) => id);
    default:
      return [undefined];
  }
}

/** The last time the record shows it at a place; what was done to the whole machine was done there too. */
function lastAt(task: TaskRow, seen: LastSeen, place: string | undefined): Seen | undefined {
  const at = place === undefined ? "" : `@${place}`;
  return lastWritten([
    ...(task.by ? [] : task.fixes.map((id) => seen[`fix:${id}`])),
    ...task.checks.map((id) => seen[`check:${id}${at}`]),
    ...task.events.flatMap((id) => [seen[`event:${id}${at}`], seen[`event:${id}`]]),
  ]);
}

/** Written down as service, outside any job or in a round. */
export type ServiceEntry = {
  what: string;
  kind: "done" | "rechecked" | "postponed";
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
  /** Where it is, of a task that is done place by place: those that stand worst. */
  places?: string[];
  rule?: ServiceRule;
  state: "good" | "soon" | "due" | "overdue" | "never" | "postponed";
  last?: { at: string; who: string; jobId?: number; how: "job" | "service" };
  hoursSince?: number;
  hoursLeft?: number;
  /** With 80 % within, where hours decide. */
  day?: DueDay;
  /** Done under a clock that ran ahead: how long ago cannot be told, and so it is due. */
  isAhead?: true;
  /** Raised by something that happened since it was last done. */
  raisedBy?: { event: EventId; at: string };
  postponed?: { untilDay: string; who: string; words: string };
};

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

type At = {
  what: TaskId;
  rule: ServiceRule | undefined;
  seen: LastSeen;
  entries: readonly ServiceEntry[];
  meter: readonly MeterReading[];
  use: Pace;
  now: string;
  /** The depot's own day, as it is said in what was put off. */
  today: string;
};

/** One task at one of its places: when it was last done and by whose word, and when it is due. */
function standingAt(
  task: TaskRow,
  place: string | undefined,
  { what, rule, seen, entries, meter, use, now, today }: At,
): ServiceStanding | undefined {
  const ofJob = lastAt(task, seen, place);
  const own = entries.filter((entry) => entry.what === what);
  const done = own.filter(({ kind }) => kind !== "postponed").at(-1);
  const last = lastWritten([ofJob, done]);
  const told = last && {
    ...{ at: last.at, who: last.who },
    ...(last === done
      ? { how: "service" as const }
      : { how: "job" as const, ...(ofJob?.jobId === undefined ? {} : { jobId: ofJob.jobId }) }),
  };
  const raised = task.raisedBy
    .flatMap((event) => {
      const seenAt = lastWritten([seen[`event:${event}`], ...(place === undefined ? [] : [seen[`event:${event}@${place}`]])]);
      return seenAt && !(last && last.seq >= seenAt.seq) ? [{ event, at: seenAt.at, seq: seenAt.seq }] : [];
    })
    .at(-1);
  if (!rule && !raised) return undefined;
  const byRule = rule ? stateBy({ rule, last, meter, use, now }) : { state: "good" as const };
  const base: ServiceStanding = {
    what,
    ...(rule ? { rule } : {}),
    ...(told ? { last: told } : {}),
    ...(raised ? { raisedBy: { event: raised.event, at: raised.at } } : {}),
    ...byRule,
    ...(raised && byRule.state !== "overdue" ? { state: "due" as const } : {}),
  };
  const put = own.filter(({ kind }) => kind === "postponed").at(-1);
  // What was raised after it was put off was not known then.
  const isKnown = put !== undefined && (!raised || raised.seq <= put.seq);
  const isPutOff = put?.untilDay !== undefined && isKnown && (!last || put.seq > last.seq) && today < put.untilDay;
  const isOwing = base.state !== "good" && base.state !== "soon";
  return isPutOff && isOwing
    ? { ...base, state: "postponed", postponed: { untilDay: put.untilDay as string, who: put.who, words: put.words } }
    : base;
}

function stateBy(args: {
  rule: ServiceRule;
  last: { at: string } | undefined;
  meter: readonly MeterReading[];
  use: Pace;
  now: string;
}): Pick<ServiceStanding, "state" | "hoursSince" | "hoursLeft" | "day" | "isAhead"> {
  const { rule, last, meter, use, now } = args;
  if (!last) return { state: "never" };
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
  if (shares.length === 0) return { state: "never" };
  const share = Math.max(...shares);
  // How far it had run by then nobody knows: under the rule's hours it may be due all the same, and is looked at.
  if (isLeast && rule.everyHours !== undefined && today !== undefined && share < 1) return { ...answer, state: "due" };
  const state = share >= 1 + OVER_SHARE ? "overdue" : share >= 1 ? "due" : share >= 1 - SOON_SHARE ? "soon" : "good";
  return { ...answer, state };
}

/** One task of a machine: as its worst place stands, with every place that stands so. */
export function serviceStanding(args: At & { machine: Machine }): ServiceStanding | undefined {
  const task = taskRow(args.what);
  if (!task) return undefined;
  const all = placesOf(task, args.machine);
  const at = all.flatMap((place) => {
    const standing = standingAt(task, place, args);
    return standing ? [{ place, standing }] : [];
  });
  const worst = [...at].sort((a, b) => worse(a.standing, b.standing))[0];
  if (!worst) return undefined;
  const places = at.flatMap(({ place, standing }) => (place !== undefined && standing.state === worst.standing.state ? [place] : []));
  return { ...worst.standing, ...(places.length > 0 && places.length < all.length ? { places } : {}) };
}

/** The more pressing first, of two alike the one that was done longer ago. */
const worse = (a: ServiceStanding, b: ServiceStanding): number =>
  ORDER.indexOf(a.state) - ORDER.indexOf(b.state) || (a.last?.at ?? "").localeCompare(b.last?.at ?? "");

/** Every task of a machine that has a rule or was raised, the most pressing first. */
export function serviceStandings(args: {
  machineId: string;
  machine: Machine;
  rules: readonly SetRule[];
  sharpenHours: number;
  seen: LastSeen;
  entries: readonly ServiceEntry[];
  meter: readonly MeterReading[];
  use: Pace;
  now: string;
  today: string;
}): ServiceStanding[] {
  const { machine } = args;
  const standings = SERVICE_TASKS.filter((task) => hasTask(task, machine)).flatMap(({ id }) => {
    const rule = ruleFor({ ...args, what: id });
    return serviceStanding({ ...args, what: id, rule }) ?? [];
  });
  return standings.sort((a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state));
}

const ORDER: readonly ServiceStanding["state"][] = ["overdue", "due", "soon", "postponed", "never", "good"];
