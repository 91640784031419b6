import type { TaskId } from "@/core/service/tasks";
import { localDay } from "./clock";
import type { Db } from "./connection";
import { byLetters } from "./grouped";
import { knifeLivesOf } from "./knives";
import { listMachines, type MachineRecord } from "./machines";
import { atOnce, ofMachine, whileUnchanged } from "./reads";
import { serviceDue } from "./service";
import { spindlesOfRecord } from "./spindle-log";

/** Something that is to be done to a machine by its hours: at which of its places, and by when at the hours of the last weeks. */
export type Due = {
  machineId: string;
  fleetNumber: string;
  name: string;
  what: "top-up" | "purge" | "order-knife" | TaskId;
  places: string[];
  state: "due" | "soon";
  /** Past its time by more than a tenth, as service counts it: only that is called overdue. */
  isOver?: true;
  on?: string;
  /** With 80 % within, where hours decide. */
  range?: { early: string; late: string };
};

const WEEK = 7 * 86_400_000;

/** How much of it is due by now or within a week: the one count that every page says. */
export function dueThisWeek(due: readonly Due[], now: string): number {
  const soon = new Date(Date.parse(now) + WEEK).toISOString();
  return due.filter(({ state, on }) => state === "due" || (on !== undefined && on <= soon)).length;
}

type Item = Omit<Due, "places"> & { place: string };

/** Lines of one machine about one thing in one state are one line with all its places, and the soonest of their days. */
function gathered(items: readonly Item[]): Due[] {
  const kinds = [...new Set(items.map(({ what, state }) => `${what} ${state}`))];
  return kinds.flatMap((kind): Due[] => {
    const own = items.filter(({ what, state }) => `${what} ${state}` === kind);
    const [first] = own;
    if (!first) return [];
    const [on] = own.flatMap((one) => one.on ?? []).sort();
    const { place: _, on: __, ...shared } = first;
    return [{ ...shared, places: own.map(({ place }) => place), ...(on === undefined ? {} : { on }) }];
  });
}

/** Service that is due or soon, as lines beside the others; what was put off waits for its day. */
const serviceLines = (db: Db, now: string): Due[] =>
  serviceDue(db, now).flatMap(({ machineId, fleetNumber, name, what, places = [], state, day }): Due[] => {
    if (state === "postponed") return [];
    const range = day?.early && day.late && day.early !== day.late ? { range: { early: day.early, late: day.late } } : {};
    const isDue = state !== "soon";
    return [
      {
        machineId,
        fleetNumber,
        name,
        what,
        places,
        state: isDue ? "due" : "soon",
        ...(state === "overdue" ? { isOver: true } : {}),
        ...(day?.on ? { on: day.on } : {}),
        ...range,
      },
    ];
  });

/**
 * What falls due over the whole fleet, overdue first, then by its day: spindles to be greased or purged, bedknives to be ordered, and service by the shop's
 * rules.
 */
export function dueNow(db: Db, now: string): Due[] {
  // Hours move by the day: within one, nothing falls due without a word in the record.
  return atOnce(db, () =>
    whileUnchanged(db, `due on ${localDay(now)}`, () =>
      listMachines(db)
        .flatMap((record) => greaseAndKnives(db, record, now))
        .concat(serviceLines(db, now))
        .sort((a, b) => Number(b.state === "due") - Number(a.state === "due") || byLetters(a.on ?? "", b.on ?? "")),
    ),
  );
}

/** What one machine's spindles and bedknives want by its hours. */
function greaseAndKnives(db: Db, record: MachineRecord, now: string): Due[] {
  const { id, fleetNumber, name } = record;
  const read = () => {
    const own = { machineId: id, fleetNumber, name };
    const greased = spindlesOfRecord(db, record, now).flatMap(({ place, state, next }): Item[] =>
      (state === "due" || state === "soon") && next ? [{ ...own, what: next.what, place, state, ...(next.on ? { on: next.on } : {}) }] : [],
    );
    const knives = knifeLivesOf(db, record, now).flatMap(({ unit, life, orderAt }): Item[] =>
      life.isToOrder ? [{ ...own, what: "order-knife", place: unit, state: "due", ...(orderAt ? { on: orderAt } : {}) }] : [],
    );
    return gathered([...greased, ...knives]);
  };
  return whileUnchanged(db, `grease and knives of ${id} ${localDay(now)}`, read, {
    on: ofMachine(id, "log", "sheet", "hours", "spindles"),
  });
}
