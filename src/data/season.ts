import { learntSeason, monthsSeen, type Pace, paceOf, type Season } from "@/core/lasting";
import type { Db } from "./connection";
import { meterReadings } from "./hours";
import { listMachines } from "./machines";
import { ofMachine, whileUnchanged } from "./reads";

/** The depot's year, from all its meters as they stood when the month began: an hour read today does not move every due day of the fleet. */
export function seasonOf(db: Db, now: string): Season {
  const month = `${now.slice(0, 7)}-01T00:00:00.000Z`;
  const seenOf = (id: string) =>
    whileUnchanged(db, `months of ${id} ${month}`, () => monthsSeen(meterReadings(db, id), month), { on: ofMachine(id, "hours") });
  return whileUnchanged(db, `season of ${month}`, () => learntSeason(listMachines(db).map(({ id }) => seenOf(id))), {
    on: ["every:hours", "every:sheet", "fleet"],
  });
}

/** How a machine is used, by its own meter and the depot's year: the one forecast of every day on which anything of it falls due. */
export const paceOfMachine = (db: Db, machineId: string, now: string, season: Season = seasonOf(db, now)): Pace =>
  paceOf(meterReadings(db, machineId), now, season);
