import { createEvents, type DateArray, type EventAttributes } from "ics";
import type { Due } from "@/data/due";
import type { Owed } from "@/data/owed";
import { sayOwed } from "@/ui/words/owed";
import { sayDue } from "./due";

type Named = { id: string; fleetNumber: string; places: readonly { id: string; label: string }[] };

const DAY = 86_400_000;

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
export function calendarOf(args: {
  due: readonly Due[];
  owed: readonly Owed[];
  machines: readonly Named[];
  now: string;
  zone: string;
}): string {
  const { due, owed, machines, now, zone } = args;
  const named = (id: string) => machines.find((one) => one.id === id);
  const entry = (uid: string, on: string, title: string): EventAttributes => {
    // Nothing is planned for a day that is gone.
    const day = on < now ? now : on;
    return {
      uid: `${uid}@zygometer`,
      title,
      start: dayOf(day, zone),
      end: dayOf(new Date(Date.parse(day) + DAY).toISOString(), zone),
      created: Date.parse(now),
    };
  };
  const events = [
    ...due.map(({ machineId, what, places, on, state }) => {
      const machine = named(machineId);
      return entry(
        `${machineId}-${what}-${places.join("-")}`,
        state === "due" ? now : (on ?? now),
        `${machine?.fleetNumber ?? machineId}: ${sayDue({ what, places }, machine?.places ?? [])}`,
      );
    }),
    ...owed.map((one) => entry(`owed-${one.id}`, one.dueAt, `${named(one.machineId)?.fleetNumber ?? one.machineId}: ${sayOwed(one)}`)),
  ];
  const { value, error } = createEvents(events, { productId: "-//zygometer//due//EN", calName: "Due by its hours" });
  if (error || typeof value !== "string") throw new Error("no calendar", { cause: error });
  return value;
}
