import { learntSeason, monthsSeen, type Pace, paceOf, type Season } from "@/core/lasting";
import type { Db } from "./connection";
import { meterReadings } from "./hours";
import { listMachines } from "./machines";
import { eachMachine, putTogether } from "./reads";

/** The depot's year, from all its meters as they stood when the month began: an hour read today does not move every due day of the fleet. */
export function seasonOf(db: Db, now: string): Season {
  const month = `${now.slice(0, 7)}-01T00:00:00.000Z`;
  const ids = listMachines(db).map(({ id }) => id);
  const seen = eachMachine(db, `months to ${month}`, ids, (id) => monthsSeen(meterReadings(db, id), month), {
    on: ["hours"],
    isAsBefore: (before, now) => JSON.stringify(before) === JSON.stringify(now),
  });
  return putTogether(db, `season of ${month}`, seen, () => learntSeason(seen));
}

/** How a machine is used, by its own meter and the depot's year: the one forecast of every day on which anything of it falls due. */
export const paceOfMachine = (db: Db, machineId: string, now: string, season: Season = seasonOf(db, now)): Pace =>
  paceOf(meterReadings(db, machineId), now, season);
