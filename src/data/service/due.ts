import { emptyTable } from "@/core/basics/tables";
import type { KindId } from "@/core/catalogue/kinds";
import { paceOf, type Season, sharpenAfterHours } from "@/core/fleet/reliability";
import { type SpindleStanding, spindleStandings } from "@/core/fleet/service/spindle-standings";
import { greasedSpindles, type SpindleEntry, spindlesSeen } from "@/core/fleet/service/spindles";
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
} from "@/core/fleet/service/standings";
import type { LastSeen, TaskId } from "@/core/fleet/service/tasks";
import { meterReadings } from "@/data/machine/hours";
import { getMachine, listMachines, type MachineRecord, machinesAt } from "@/data/machine/machines";
import { lastSeenOf } from "@/data/projections/machine-state";
import { unlessSpoilt } from "@/data/record/sheets-read";
import { localDay } from "@/data/store/clock";
import type { Db } from "@/data/store/db";
import { byLetters } from "@/data/store/grouped";
import { atOnce, eachMachine, ofMachine, putTogether, whileUnchanged } from "@/data/store/reads";
import { edgeLooks } from "./edge-looks";
import { knifeLivesOf } from "./knives";
import { listOwed, type Owed } from "./owed";
import { sharpBySets } from "./parts";
import { paceOfMachine, seasonOf } from "./season";
import { entriesOfOwed, lastEntries } from "./service-log";
import { listRules } from "./service-rules";
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

const alike = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What happened last to the turf of a site, by whichever machine that mows there it was told of. */
function turfOf(db: Db, site: string): LastSeen {
  const told = eachMachine(
    db,
    "turf told of",
    machinesAt(db, site),
    (id) => OF_THE_TURF.map((key) => [key, unlessSpoilt(() => seenHere(db, id))?.[key]] as const),
    { on: ["log"], isAsBefore: alike },
  );
  return putTogether(db, `turf of ${site}`, told, () => {
    const merged: Record<string, LastSeen[string]> = emptyTable();
    for (const [key, seen] of told.flat()) if (seen && seen.seq > (merged[key]?.seq ?? 0)) merged[key] = seen;
    return merged;
  });
}

/** What is the same for every machine of the fleet, worked out once for all of them. */
type Shared = {
  today: string;
  season: Season;
  rules: ReturnType<typeof listRules>;
  turf: (site: string) => LastSeen;
  sharpenHours: (kind: KindId) => number;
};

function sharedOf(db: Db, now: string): Shared {
  const turfs = new Map<string, LastSeen>();
  const hours = new Map<KindId, number>();
  return {
    today: localDay(now),
    season: seasonOf(db, now),
    rules: whileUnchanged(db, "service rules", () => listRules(db), { on: ["rules"] }),
    turf: (site) => {
      const turf = turfs.get(site) ?? turfOf(db, site);
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

/** What is written of one machine that its lines are reckoned from, and of the shop. */
const OF_ITSELF = ["log", "sheet", "hours", "service", "spindles", "sets", "owed"] as const;
const OF_THE_SHOP = ["parts", "rules", "fleet"] as const;

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
    rules: shared.rules,
    sharpenHours: shared.sharpenHours(machine.kind),
    seen: Object.assign(emptyTable<LastSeen[string]>(), seenHere(db, id), shared.turf(site), spindlesSeen(machine, spindles)),
    entries: [...lastEntries(db, id), ...bySets(db, id)].sort((a, b) => a.seq - b.seq),
    left: leftOf(db, record, now),
    meter: meterReadings(db, id),
    use: paceOfMachine(db, id, now, shared.season),
    now,
    today: shared.today,
  };
}

/** One answer of each of these machines, kept by the day: within one, nothing falls due without a word in the record. */
function byDay<T>(
  db: Db,
  key: string,
  records: readonly MachineRecord[],
  shared: Shared,
  read: (record: MachineRecord) => T,
): readonly T[] {
  const own = new Map(records.map((record) => [record.id, record]));
  const recordOf = (id: string) => own.get(id) as MachineRecord;
  return eachMachine(
    db,
    key,
    records.map(({ id }) => id),
    (id) => read(recordOf(id)),
    {
      on: OF_ITSELF,
      of: OF_THE_SHOP,
      made: (id) => {
        const { machine, site } = recordOf(id);
        return [shared.today, shared.season, shared.rules, shared.turf(site), shared.sharpenHours(machine.kind)];
      },
    },
  );
}

/** Every task of one machine, the most pressing first. */
export function serviceOf(db: Db, record: MachineRecord, now: string): ServiceStanding[] {
  return dueOfMachine(db, record, now).flatMap((line) => {
    if (line.what === "owed") return [];
    const { machineId: _, fleetNumber: __, name: ___, site: ____, owed: _____, ...standing } = line;
    return [standing];
  });
}

/** What is owed on one machine, with how it stands by today. */
function owedOf(db: Db, machineId: string, now: string): { owed: Owed; standing: NonNullable<ReturnType<typeof owedStanding>> }[] {
  const said = entriesOfOwed(db, machineId);
  return listOwed(db, machineId).flatMap((owed) => {
    const standing = owedStanding({ dueAt: owed.dueAt, own: said.get(owed.id) ?? [], now, today: localDay(now), dayOf: localDay });
    return standing ? [{ owed, standing }] : [];
  });
}

/** Everything that is to be done to one machine, whatever it is, the most pressing first; what is good or never was written down too. */
export function dueOfMachine(db: Db, record: MachineRecord, now: string): readonly DueLine[] {
  return atOnce(db, () => linesOf(db, [record], now, sharedOf(db, now))[0] ?? []);
}

function linesOf(db: Db, records: readonly MachineRecord[], now: string, shared: Shared): readonly (readonly DueLine[])[] {
  return byDay(db, "due on", records, shared, (record): DueLine[] => {
    const { id: machineId, fleetNumber, name, site } = record;
    const own = { machineId, fleetNumber, name, site };
    return [
      ...serviceStandings(argsOf(db, record, now, shared)).map((standing): DueLine => ({ ...own, ...standing })),
      ...owedOf(db, machineId, now).map(({ owed, standing }): DueLine => ({ ...own, what: "owed", owed, ...standing })),
    ].sort(byPressing);
  });
}

/** When edges of this kind of machine are to be sharpened, by what was seen of them. */
export function sharpenHoursOf(db: Db, kind: KindId): number {
  const looks = edgeLooks(db, kind);
  return putTogether(db, `sharpened after, ${kind}`, [looks], () => sharpenAfterHours(looks));
}

/**
 * Over the fleet what presses, the most pressing first and of those the soonest: overdue, due, soon and put off; with everything owed, however far off its day
 * is.
 */
export function dueNow(db: Db, now: string): readonly DueLine[] {
  return atOnce(db, () => {
    const lines = linesOf(db, listMachines(db), now, sharedOf(db, now));
    return putTogether(db, "due over the fleet", lines, () =>
      lines
        .flatMap((own) => own.filter(({ state, what }) => presses(state) || what === "owed"))
        .sort((a, b) => byPressing(a, b) || byLetters(a.day?.on ?? "", b.day?.on ?? "")),
    );
  });
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
    return [...(byDay(db, "spindles of", [record], shared, (one) => spindleStandings(argsOf(db, one, now, shared)))[0] ?? [])];
  });
}

/**
 * Grease that was due at a time, by spindle: how many hours it was over. Asked of days long gone too, and so reckoned from the spindles' own log and meter alone:
 * whatever else the fleet shares is of today. Put off, it is as old as it was: a word to the shop greases nothing.
 */
export function greaseDue(db: Db, machineId: string, now: string): { place: string; what: "top-up" | "purge"; overHours: number }[] {
  const { machine } = getMachine(db, machineId);
  if (greasedSpindles(machine).length === 0) return [];
  const read = () => {
    const [spindles, meter] = [listSpindleLog(db, machineId), meterReadings(db, machineId)];
    return spindleStandings({
      ...{ machineId, machine, spindles, meter, now, today: localDay(now), sharpenHours: 0 },
      rules: listRules(db),
      seen: spindlesSeen(machine, spindles),
      entries: [],
      use: paceOf(meter, now),
    });
  };
  const standings = whileUnchanged(db, `grease of ${machineId} ${now.slice(0, 13)}`, read, {
    on: [...ofMachine(machineId, "hours", "sheet", "spindles"), "rules"],
  });
  return standings.flatMap(({ place, state, next }) =>
    (state === "due" || state === "overdue") && next ? [{ place, what: next.what, overHours: Math.max(0, -next.inHours) }] : [],
  );
}
