import { machineSchema } from "@/core/machine";
import type { Db } from "@/data/connection";
import { addMachine, logHours } from "@/data/machines";
import { listOwed, settleOwed } from "@/data/owed";
import { addPerson } from "@/data/people";
import { FLEET } from "./fleet";
import { seedHistory } from "./history";

export const DEMO_PEOPLE = ["AK", "JM", "RSO"] as const;
const MONTHS_BACK = 18;
const MONTH = 30 * 86_400_000;

/** The demo depot, dated back from `now`: the same each time it is loaded on the same day. */
export function seedDepot(db: Db, now: string): { machines: number; jobs: number } {
  const start = new Date(Date.parse(now) - MONTHS_BACK * MONTH).toISOString();
  for (const initials of DEMO_PEOPLE) addPerson(db, { initials, now: start });
  const [who] = DEMO_PEOPLE;
  for (const { fleetNumber, name, site, hours, machine } of FLEET) {
    const { machineId } = addMachine(db, { who, now: start }, { fleetNumber, name, site, machine: machineSchema.parse(machine) });
    for (let month = 0; month <= MONTHS_BACK; month++) {
      const at = new Date(Date.parse(start) + month * MONTH).toISOString();
      const share = month / MONTHS_BACK;
      logHours(db, { who, now: at }, { machineId, meterHours: Math.round(hours * (0.6 + 0.4 * share)), isCorrection: false });
    }
  }
  const jobs = seedHistory(db, now);
  settleOldDebts(db, now);
  return { machines: FLEET.length, jobs };
}

/** What older jobs owed was done when it was due; the last few weeks' is still open. */
function settleOldDebts(db: Db, now: string): void {
  const recent = new Date(Date.parse(now) - 0.9 * MONTH).toISOString();
  for (const { id, dueAt } of listOwed(db)) if (dueAt < recent) settleOwed(db, { who: DEMO_PEOPLE[0], now: dueAt }, { owedId: id });
}
