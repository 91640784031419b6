import { greasedSpindles, greaseRule } from "@/core/fleet/service/spindles";
import { machineSchema } from "@/core/machine";
import { addPerson } from "@/data/catalogue/people";
import { logHours } from "@/data/machine/hours";
import { addMachine, getMachine } from "@/data/machine/machines";
import { listOwed, settleOwed } from "@/data/service/owed";
import { logSpindles } from "@/data/service/spindle-log";
import type { Db } from "@/data/store/db";
import { FLEET } from "../core/machine/examples/fleet";
import { seedBook, seedProcedures, shopDiary } from "./book";
import { seedHistory } from "./history";

export const DEMO_PEOPLE = ["AK", "JM", "RSO"] as const;
const MONTHS_BACK = 18;
const DAY = 86_400_000;
const MONTH = 30 * DAY;

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
      logHours(db, { who, now: at }, { machineId, meterHours: Math.round(hours * (0.6 + 0.4 * share)), isCorrection: false, isSure: true });
    }
  }
  // A spindle moved is work on the machine: it stands before the jobs that came after it.
  for (const { fleetNumber, hours } of FLEET) seedSpindles(db, { machineId: fleetNumber.toLowerCase(), hours, now });
  seedProcedures(db, { now });
  const writeUntil = shopDiary(db, now);
  const jobs = seedHistory(db, now, writeUntil);
  writeUntil(now);
  settleOldDebts(db, now);
  seedBook(db, now);
  return { machines: FLEET.length, jobs };
}

/** Hours put on the meter in the time the demo looks back on, as a share of what it shows. */
const SHARE_OF_HOURS = 0.4;
/** Greased a little before it was due, purged each fourth time. */
const GREASED_AT = 0.94;
const PURGED_EACH = 4;
/** The one spindle nobody got to the last time. */
const FORGOTTEN = { machineId: "zt-1", place: "right" } as const;
const MOVED_DAYS_AGO = 190;

function seedSpindles(db: Db, { machineId, hours, now }: { machineId: string; hours: number; now: string }): void {
  const { machine } = getMachine(db, machineId);
  const rule = greaseRule(machine);
  const places = greasedSpindles(machine).map(({ id }) => id);
  if (rule.school !== "by-hours" || places.length === 0) return;
  const days = MONTHS_BACK * 30;
  const between = (rule.topUpHours * GREASED_AT * days) / (hours * SHARE_OF_HOURS);
  const ago = (daysAgo: number) => ({ who: DEMO_PEOPLE[1], now: new Date(Date.parse(now) - daysAgo * DAY).toISOString() });
  const rounds = Math.floor((days - 5) / between);
  for (let round = rounds; round >= 0; round--) {
    const isLast = round === 0;
    const greased = isLast && machineId === FORGOTTEN.machineId ? places.filter((place) => place !== FORGOTTEN.place) : places;
    // The last round lies within the last interval.
    const daysAgo = round * between + between * 0.3;
    const kind = (rounds - round) % PURGED_EACH === 0 ? ("purged" as const) : ("topped-up" as const);
    logSpindles(db, ago(daysAgo), { machineId, kind, places: greased });
  }
  if (machine.sheet.spindlePlaces !== "rotated") return;
  const moves = Object.fromEntries(places.map((place, k) => [place, places[(k + 1) % places.length] ?? place]));
  logSpindles(db, ago(MOVED_DAYS_AGO), { machineId, kind: "moved", moves });
}

/** What older jobs owed was done when it was due; the last few weeks' is still open. */
function settleOldDebts(db: Db, now: string): void {
  const recent = new Date(Date.parse(now) - 0.9 * MONTH).toISOString();
  for (const { id, dueAt } of listOwed(db)) if (dueAt < recent) settleOwed(db, { who: DEMO_PEOPLE[0], now: dueAt }, { owedId: id });
}
