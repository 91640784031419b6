import { learntSeason, type MonthsSeen, monthsSeen, type Pace, paceOf, type Season } from "@/core/fleet/reliability";
import { meterReadings } from "@/data/machine/hours";
import { listMachines } from "@/data/machine/machines";
import type { Db } from "@/data/store/db";
import { eachMachine, putTogether } from "@/data/store/reads";

/** The depot's year, from all its meters as they stood when the month began: an hour read today does not move every due day of the fleet. */
export function seasonOf(db: Db, now: string): Season {
  const seen = monthsOf(
    db,
    listMachines(db).map(({ id }) => id),
    now,
  );
  return putTogether(db, "season", seen, () => learntSeason(seen));
}

/** What each machine's meter says of the months before this one. */
export function monthsOf(db: Db, machineIds: readonly string[], now: string): readonly MonthsSeen[] {
  const month = `${now.slice(0, 7)}-01T00:00:00.000Z`;
  return eachMachine(db, "months of", machineIds, (id) => monthsSeen(meterReadings(db, id), month), {
    on: ["hours"],
    made: () => [month],
    isAsBefore: (before, read) => JSON.stringify(before) === JSON.stringify(read),
  });
}

/** How a machine is used, by its own meter and the depot's year: the one forecast of every day on which anything of it falls due. */
export const paceOfMachine = (db: Db, machineId: string, now: string, season: Season = seasonOf(db, now)): Pace =>
  paceOf(meterReadings(db, machineId), now, season);
