import type { KindId } from "@/core/kinds";
import { type Season, sharpenAfterHours } from "@/core/lasting";
import { type SpindleStanding, spindleStandings } from "@/core/service/spindle-standings";
import { greasedSpindles, type SpindleEntry, spindlesSeen } from "@/core/service/spindles";
import {
  byPressing,
  type DueArgs,
  type Left,
  leftKey,
  owedStanding,
  presses,
  type ServiceEntry,
  type ServiceStanding,
  serviceStandings,
} from "@/core/service/standings";
import type { LastSeen, TaskId } from "@/core/service/tasks";
import { emptyTable } from "@/core/tables";
import { localDay } from "./clock";
import type { Db } from "./connection";
import { edgeLooks } from "./edge-looks";
import { byLetters } from "./grouped";
import { meterReadings } from "./hours";
import { knifeLivesOf } from "./knives";
import { lastSeenOf } from "./machine-state";
import { getMachine, listMachines, type MachineRecord, machinesAt } from "./machines";
import { listOwed, type Owed } from "./owed";
import { sharpBySets } from "./parts";
import { atOnce, ofMachine, type Subject, whileUnchanged } from "./reads";
import { paceOfMachine, seasonOf } from "./season";
import { entriesOfOwed, lastEntries } from "./service";
import { listRules } from "./service-rules";
import { unlessSpoilt } from "./sheets-read";
import { listSpindleLog } from "./spindle-log";

/** A marked set that made a machine's edges sharp all over, as service that was done; its undo is on the set's own page. */
function bySets(db: Db, machineId: string): ServiceEntry[] {
  return sharpBySets(db, machineId).map(({ seq, at, who }) => ({
    ...{ id: 0, kind: "done" as const, what: "sharpen", words: "", who, at, seq },
  }));
}

/** What happens to the turf of a site raises its tasks on every machine that mows there. */
const OF_THE_TURF = ["event:top-dressed"] as const;

const seenHere = (db: Db, id: string): LastSeen =>
  whileUnchanged(db, `last seen of ${id}`, () => lastSeenOf(db, id), { on: ofMachine(id, "log"), size: "middling" });

/** What happened last to the turf of a site, by whichever machine that mows there it was told of. */
function turfOf(db: Db, site: string): LastSeen {
  const merged: Record<string, LastSeen[string]> = emptyTable();
  for (const id of machinesAt(db, site)) {
    const told = whileUnchanged(
      db,
      `turf told of ${id}`,
      () => OF_THE_TURF.map((key) => [key, unlessSpoilt(() => seenHere(db, id))?.[key]] as const),
      {
        on: ofMachine(id, "log"),
      },
    );
    for (const [key, seen] of told) if (seen && seen.seq > (merged[key]?.seq ?? 0)) merged[key] = seen;
  }
  return merged;
}

/** What is the same for every machine of the fleet, worked out once for all of them. */
type Shared = { season: Season; turf: (site: string) => Turf; sharpenHours: (kind: KindId) => number; key: string };
/** With all of it as a text, which changes when it does. */
type Turf = { seen: LastSeen; key: string };

function sharedOf(db: Db, now: string): Shared {
  const season = seasonOf(db, now);
  const turfs = new Map<string, Turf>();
  const hours = new Map<KindId, number>();
  return {
    season,
    key: season.join(" "),
    turf: (site) => {
      const before = turfs.get(site);
      if (before) return before;
      const seen = turfOf(db, site);
      const turf = { seen, key: JSON.stringify(seen) };
      turfs.set(site, turf);
      return turf;
    },
    sharpenHours: (kind) => {
      const after = hours.get(kind) ?? sharpenHoursOf(db, kind);
      hours.set(kind, after);
      return after;
    },
  };
}

/**
 * Something that is to be done to a machine: a task by its hours, the calendar or what happened, or something owed. One vocabulary of states, one forecast of the
 * meter, whatever it is.
 */
export type DueLine = { machineId: string; fleetNumber: string; name: string; site: string } & Omit<ServiceStanding, "what"> &
  ({ what: TaskId; owed?: undefined } | { what: "owed"; owed: Owed });

/** What one machine's tasks are reckoned from, beside what the fleet shares. */
export const dueReads = (machineId: string): Subject[] => [
  ...ofMachine(machineId, "log", "sheet", "hours", "service", "spindles", "sets"),
  "parts",
  "rules",
];

/** Bedknives by what is left of them. */
const leftOf = (db: Db, record: MachineRecord, now: string): Record<string, Left> =>
  Object.fromEntries(
    knifeLivesOf(db, record, now).map(({ unit, life, fittedSeq }): [string, Left] => [
      leftKey("order-knife", unit),
      {
        isTime: life.isToOrder,
        sinceSeq: fittedSeq,
        ...(life.left ? { hoursLeft: life.left.orderInHours } : {}),
      },
    ]),
  );

/** All that the tasks of one machine are reckoned from, read. Days are reckoned by the day: within one, nothing falls due without a word in the record. */
function argsOf(db: Db, record: MachineRecord, now: string, shared: Shared): DueArgs & { spindles: SpindleEntry[] } {
  const { id, machine, site } = record;
  const spindles = greasedSpindles(machine).length === 0 ? [] : listSpindleLog(db, id);
  return {
    machineId: id,
    machine,
    spindles,
    rules: whileUnchanged(db, "service rules", () => listRules(db), { on: ["rules"] }),
    sharpenHours: shared.sharpenHours(machine.kind),
    seen: Object.assign(emptyTable<LastSeen[string]>(), seenHere(db, id), shared.turf(site).seen, spindlesSeen(machine, spindles)),
    entries: [...lastEntries(db, id), ...bySets(db, id)].sort((a, b) => a.seq - b.seq),
    left: leftOf(db, record, now),
    meter: meterReadings(db, id),
    use: paceOfMachine(db, id, now, shared.season),
    now,
    today: localDay(now),
  };
}

/** What the answers of one machine go by, beside the stamps of what they are read from. */
const keyOf = ({ id, machine, site }: MachineRecord, now: string, shared: Shared): string =>
  `${id} ${localDay(now)} ${shared.sharpenHours(machine.kind)} ${shared.key} ${shared.turf(site).key}`;

/** Every task of one machine, the most pressing first. */
export function serviceOf(db: Db, record: MachineRecord, now: string): ServiceStanding[] {
  return atOnce(db, () => standingsOf(db, record, now, sharedOf(db, now)));
}

function standingsOf(db: Db, record: MachineRecord, now: string, shared: Shared): ServiceStanding[] {
  const read = () => serviceStandings(argsOf(db, record, now, shared));
  return whileUnchanged(db, `service of ${keyOf(record, now, shared)}`, read, { on: dueReads(record.id) });
}

/** What is owed on one machine, with how it stands by today. */
function owedOf(db: Db, machineId: string, now: string): { owed: Owed; standing: NonNullable<ReturnType<typeof owedStanding>> }[] {
  const read = () => {
    const said = entriesOfOwed(db, machineId);
    return listOwed(db, machineId).flatMap((owed) => {
      const standing = owedStanding({ dueAt: owed.dueAt, own: said.get(owed.id) ?? [], now, today: localDay(now), dayOf: localDay });
      return standing ? [{ owed, standing }] : [];
    });
  };
  return whileUnchanged(db, `owed on ${machineId} ${localDay(now)}`, read, {
    on: [...ofMachine(machineId, "owed", "service", "log"), "fleet"],
  });
}

/** Everything that is to be done to one machine, whatever it is, the most pressing first; what is good or never was written down too. */
export function dueOfMachine(db: Db, record: MachineRecord, now: string): DueLine[] {
  return atOnce(db, () => linesOf(db, record, now, sharedOf(db, now)));
}

function linesOf(db: Db, record: MachineRecord, now: string, shared: Shared): DueLine[] {
  const { id: machineId, fleetNumber, name, site } = record;
  const own = { machineId, fleetNumber, name, site };
  return [
    ...standingsOf(db, record, now, shared).map((standing): DueLine => ({ ...own, ...standing })),
    ...owedOf(db, machineId, now).map(({ owed, standing }): DueLine => ({ ...own, what: "owed", owed, ...standing })),
  ].sort(byPressing);
}

/** When edges of this kind of machine are to be sharpened, by what was seen of them. */
export function sharpenHoursOf(db: Db, kind: KindId): number {
  const looks = edgeLooks(db, kind);
  // The same looks come to the same hours, whatever else was written.
  const key = looks.map(({ hours, isDull }) => `${hours}${isDull ? "d" : "s"}`).join(" ");
  return whileUnchanged(db, `sharpened after, by ${key}`, () => sharpenAfterHours(looks), { on: [] });
}

/**
 * Over the fleet what presses, the most pressing first and of those the soonest: overdue, due, soon and put off; with everything owed, however far off its day
 * is.
 */
export function dueNow(db: Db, now: string): DueLine[] {
  return atOnce(db, () =>
    whileUnchanged(db, `due on ${localDay(now)}`, () => {
      const shared = sharedOf(db, now);
      return listMachines(db)
        .flatMap((record) => linesOf(db, record, now, shared).filter(({ state, what }) => presses(state) || what === "owed"))
        .sort((a, b) => byPressing(a, b) || byLetters(a.day?.on ?? "", b.day?.on ?? ""));
    }),
  );
}

const WEEK = 7 * 86_400_000;

/** How much of it is due by now or within a week: the one count that every page says. What was put off waits for its day. */
export function dueThisWeek(lines: readonly Pick<DueLine, "state" | "day">[], now: string): number {
  const soon = new Date(Date.parse(now) + WEEK).toISOString();
  return lines.filter(
    ({ state, day }) => state === "due" || state === "overdue" || (state !== "postponed" && day?.on !== undefined && day.on <= soon),
  ).length;
}

/** Every greased spindle of a machine, by the hour meter. Throws `machine-not-found`. */
export function spindlesOf(db: Db, machineId: string, now: string): SpindleStanding[] {
  const record = getMachine(db, machineId);
  if (greasedSpindles(record.machine).length === 0) return [];
  return atOnce(db, () => {
    const shared = sharedOf(db, now);
    const read = () => spindleStandings(argsOf(db, record, now, shared));
    return whileUnchanged(db, `spindles of ${keyOf(record, now, shared)}`, read, { on: dueReads(machineId) });
  });
}

/** Grease that is due, by spindle: how many hours it is over. */
export function greaseDue(db: Db, machineId: string, now: string): { place: string; what: "top-up" | "purge"; overHours: number }[] {
  return spindlesOf(db, machineId, now).flatMap(({ place, state, next }) =>
    (state === "due" || state === "overdue") && next ? [{ place, what: next.what, overHours: Math.max(0, -next.inHours) }] : [],
  );
}
