import { createEvents, type DateArray, type EventAttributes } from "ics";
import type { DueLine } from "@/data/service/due";
import { sayDue } from "./due";

type Named = { id: string; fleetNumber: string; places: readonly { id: string; label: string }[] };

/** The day after, by the calendar and not by the clock: one of the two days a clock is changed has not 24 hours. */
function dayAfter([year, month, day]: readonly number[]): DateArray {
  const next = new Date(Date.UTC(year ?? 0, (month ?? 1) - 1, (day ?? 1) + 1));
  return [next.getUTCFullYear(), next.getUTCMonth() + 1, next.getUTCDate()];
}

/** A text that is one line of a calendar, whatever an older record holds: line ends and letters that turn a line about become spaces. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: those are what is looked for
const oneLine = (text: string): string => text.replace(/[\u0000-\u001f\u007f\u2028\u2029\u202a-\u202e\u2066-\u2069]+/g, " ").trim();

const MOST_OCTETS = 75;
const octets = new TextEncoder();

/** Lines of a calendar file folded as RFC 5545, 3.1 has it: 75 octets at the most, the space of what goes on counted, no letter cut in two. */
function folded(file: string): string {
  return file
    .replace(/\r\n[ \t]/g, "")
    .split("\r\n")
    .map((line) => {
      let [out, used] = ["", 0];
      for (const letter of line) {
        const { length } = octets.encode(letter);
        if (used + length > MOST_OCTETS) [out, used] = [`${out}\r\n `, 1];
        out += letter;
        used += length;
      }
      return out;
    })
    .join("\r\n");
}

/** A day in the shop's own zone, as calendars write whole days. */
function dayOf(iso: string, zone: string): DateArray {
  const parts = new Intl.DateTimeFormat("en-CA", { timeZone: zone, year: "numeric", month: "2-digit", day: "2-digit" }).format(
    new Date(iso),
  );
  return parts.split("-").map(Number) as DateArray;
}

/**
 * What falls due and what is owed as whole days of a calendar (iCalendar, RFC 5545), each under an id that stays the same while its places do, so that a
 * second file moves what the first brought. What is overdue stands on the day it is asked for. Throws where the library refuses an entry.
 */
export function calendarOf(args: { due: readonly DueLine[]; machines: readonly Named[]; now: string; zone: string }): string {
  const { due, machines, now, zone } = args;
  const named = (id: string) => machines.find((one) => one.id === id);
  const entry = (uid: string, on: string, title: string): EventAttributes => {
    // Nothing is planned for a day that is gone.
    const day = on < now ? now : on;
    return {
      uid: `${uid}@zygometer`,
      title: oneLine(title),
      start: dayOf(day, zone),
      end: dayAfter(dayOf(day, zone) as number[]),
      created: Date.parse(now),
    };
  };
  const events = due.map((line) => {
    const { machineId, what, places = [], owed, day, state, postponed } = line;
    const machine = named(machineId);
    const isNow = state === "due" || state === "overdue";
    return entry(
      owed ? `owed-${owed.id}` : `${machineId}-${what}-${places.join("-")}`,
      postponed ? `${postponed.untilDay}T12:00:00.000Z` : isNow && !owed ? now : (day?.on ?? now),
      `${machine?.fleetNumber ?? machineId}: ${sayDue(line, machine?.places ?? [])}`,
    );
  });
  const { value, error } = createEvents(events, { productId: "-//zygometer//due//EN", calName: "Due by its hours" });
  if (error || typeof value !== "string") throw new Error("no calendar", { cause: error });
  return folded(value);
}
