import { emptyTable } from "@/core/basics/tables";
import type { CheckId, EventId, FixId } from "@/core/catalogue";
import { featuresOf, type KindId, kindById, meetsNeed, type Need } from "@/core/catalogue/kinds";
import type { LogLine } from "@/core/job/status";
import { type Machine, spindlesAcross, unitSheetOf, unitsAcross } from "@/core/machine";
import { greasedSpindles, greaseRule, type SpindleDeed } from "./spindles";

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
  by?: "unit" | "cutter" | "air-wheel" | "spindle";
  /** What of the log of spindles is its being done: it goes with the spindle when that is moved to another place. */
  spindles?: readonly SpindleDeed[];
  /** Done with this one too: where that is due, it says nothing of its own. */
  within?: string;
  /** Due by what is left of a part, and not by hours since it was done. */
  goesBy?: "what-is-left";
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
  { id: "purge", label: "Purge the spindles' grease", on: ["rotary"], needs: [], by: "spindle", spindles: ["purged", "bearings-new"], fixes: [], checks: [], events: [], raisedBy: [] },
  { id: "top-up", label: "Grease the spindles", on: ["rotary"], needs: [], by: "spindle", spindles: ["topped-up", "purged", "bearings-new"], within: "purge", fixes: [], checks: [], events: [], raisedBy: [] },
  { id: "order-knife", label: "Order the next bedknife", on: ["reel"], needs: [], by: "unit", goesBy: "what-is-left", fixes: [], checks: [], events: [], raisedBy: [] },
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
  scope: "usual" | "looks" | "sheet" | "fleet" | "kind" | "machine" | "place";
};

/** Common practice and estimates, where nobody has set a rule. */
const USUAL_GRIND_HOURS = 100;
const USUAL_WASH_HOURS = 25;
const TYRE_DAYS = 7;
const GEARBOX_HOURS = 200;

/** Whether a task exists for a machine at all: sealed bearings that are left alone are not greased, and a blade on the engine's own shaft has none. */
export function hasTask(task: TaskRow, machine: Machine): boolean {
  if (!task.on.includes(kindById(machine.kind).cutsWith) || !meetsNeed(featuresOf(machine), task.needs)) return false;
  return task.by !== "spindle" || (greaseRule(machine).school === "by-hours" && greasedSpindles(machine).length > 0);
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
    case "top-up":
    case "purge": {
      const rule = greaseRule(machine);
      if (rule.school === "leave-sealed") return undefined;
      const own = what === "purge" ? machine.sheet.grease?.purgeHours : machine.sheet.grease?.topUpHours;
      return { what, everyHours: what === "purge" ? rule.purgeHours : rule.topUpHours, scope: own === undefined ? "usual" : "sheet" };
    }
    case "order-knife":
      return { what, scope: "usual" };
    default:
      // Raised by what happens, not by hours, unless a rule says so.
      return undefined;
  }
}

export type SetRule = ServiceRule & { scope: "fleet" | "kind" | "machine" | "place"; kind?: KindId; machineId?: string; place?: string };

/** The rule in force at a place: its own before its machine's before its kind's before the fleet's before what is usual; one that is off leaves the task undone. */
export function ruleFor(args: {
  what: TaskId;
  machineId: string;
  machine: Machine;
  rules: readonly SetRule[];
  sharpenHours: number;
  place?: string | undefined;
}): ServiceRule | undefined {
  const { what, machineId, machine, rules, place } = args;
  const own = rules.filter((rule) => rule.what === what);
  const found =
    own.findLast((rule) => rule.scope === "place" && rule.machineId === machineId && rule.place === place) ??
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
export type Seen = { at: string; seq: number; who: string; jobId?: number };

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
export function placesOf(task: Pick<TaskRow, "by">, machine: Machine): (string | undefined)[] {
  switch (task.by) {
    case "unit":
      return unitsAcross(machine).map(({ id }) => id);
    case "cutter":
      return [...spindlesAcross(machine), ...unitsAcross(machine)].map(({ id }) => id);
    case "spindle":
      return greasedSpindles(machine).map(({ id }) => id);
    case "air-wheel":
      return machine.wheels.filter(({ isPneumatic }) => isPneumatic).map(({ id }) => id);
    default:
      return [undefined];
  }
}
