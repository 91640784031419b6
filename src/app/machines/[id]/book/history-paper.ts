import type { HistoryPaper } from "@/app/paper/history-pdf";
import type { UnitSystem } from "@/core/basics/units";
import { bookOf } from "@/data/fleet/book";
import { getMachine } from "@/data/machine/machines";
import { stateOfMachine } from "@/data/projections/machine-state";
import { listOwed } from "@/data/service/owed";
import type { Db } from "@/data/store/db";
import { dateAndTime, dateOnly, type Zone } from "@/ui/time";
import { sayOwed } from "@/ui/words/owed";
import { sayUnsafe } from "@/ui/words/state";
import { toldOf } from "./book-told";
import { bookLines, bookTitle, KIND_WORDS } from "./book-words";

/** As many lines as a few sheets of paper hold. */
const MOST_LINES = 250;

/** A machine's book as it goes on paper: what holds it and what is owed first. Throws `machine-not-found`. */
export function historyPaper(db: Db, machineId: string, args: { system: UnitSystem; zone: Zone; now: string }): HistoryPaper {
  const { system, zone, now } = args;
  const record = getMachine(db, machineId);
  const { machine } = record;
  const state = stateOfMachine(db, machineId);
  const all = bookOf(db, machineId).filter((line) => line.kind !== "event" || line.of !== "step");
  const shown = all.slice(0, MOST_LINES);
  const told = toldOf(db, { machineId, machine, system, all, shown, now });
  const hours = record.totalHours ?? record.meterHours;
  return {
    fleetNumber: record.fleetNumber,
    machine: record.name,
    site: record.site,
    hours: hours === undefined ? "hour meter never read" : `${hours} h`,
    printed: dateAndTime(now, zone),
    warnings: [
      ...state.unsafe.map((cause) => `HELD: ${sayUnsafe(cause, machine)}`),
      ...(record.retired ? [`Retired ${dateOnly(record.retired.at, zone)}: ${record.retired.reason}.`] : []),
      ...listOwed(db, machineId).map((one) => `Owed by ${dateOnly(one.dueAt, zone)}: ${sayOwed(one)}.`),
    ],
    lines: shown.map((line) => ({
      when: dateOnly(line.at, zone),
      who: line.who,
      what: KIND_WORDS[line.kind].toLowerCase(),
      words: bookTitle(line, machine),
      lines: bookLines(line, told),
    })),
    left: all.length - shown.length,
  };
}
