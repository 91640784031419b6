import type { ContextId, EventId } from "@/core/catalogue";
import type { CutsWith } from "@/core/catalogue/kinds";
import type { LoggedEvent } from "./stale";

/** Of a list in the order it was read in: a clock set back changes nothing of that. */
export type MeterReading = { at: string; meterHours: number };

/** A rotary edge lasts 8 to 25 hours of commercial mowing, by site (estimate): past the longest it is overdue anywhere. */
export const LONGEST_EDGE_HOURS = 25;

const NEW_EDGE: readonly EventId[] = ["blade-changed", "blade-refitted"];

/**
 * What the hour meter says is overdue, with the event it is counted from. Only rotary edges: nothing on the log tells when a machine was
 * greased, and how long a reel's edge lasts is the shop's own affair. Silent where the meter was not read on both sides of the event.
 */
export function overdueContexts(args: {
  cutsWith: CutsWith;
  events: readonly LoggedEvent[];
  meter: readonly MeterReading[];
}): { context: ContextId; because: LoggedEvent; hours: number }[] {
  const because = args.events.filter(({ event }) => NEW_EDGE.includes(event)).at(-1);
  const now = args.meter.at(-1);
  if (args.cutsWith !== "rotary" || !because || !now) return [];
  const then = meterAt(args.meter, because.at);
  if (then === undefined) return [];
  const hours = now.meterHours - then;
  return hours > LONGEST_EDGE_HOURS ? [{ context: "edge-overdue", because, hours }] : [];
}

const DAY = 86_400_000;

/**
 * Whether something was written under a clock that ran ahead of this one, by more than a day: how long ago it was cannot be told, and it is not
 * taken for just now until that day comes.
 */
export const isAhead = (at: string, now: string): boolean => Date.parse(at) - Date.parse(now) > DAY;

/** Readings in the order of their hours, for `meterIn`. Times are ISO 8601 UTC of one length: their letters sort as they do. */
export function inOrderOfTime(meter: readonly MeterReading[]): readonly MeterReading[] {
  return [...meter].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}

/** The meter at a moment, straight between the readings on either side; `undefined` before the first. */
export function meterAt(meter: readonly MeterReading[], at: string): number | undefined {
  return meterIn(inOrderOfTime(meter), at);
}

/** The same of readings that are in the order of their hours already. */
export function meterIn(meter: readonly MeterReading[], at: string): number | undefined {
  const next = meter.findIndex((reading) => reading.at > at);
  const [before, after] = next < 0 ? [meter.at(-1), undefined] : [meter[next - 1], meter[next]];
  if (!before) return undefined;
  if (!after) return before.meterHours;
  const share = (Date.parse(at) - Date.parse(before.at)) / (Date.parse(after.at) - Date.parse(before.at));
  return before.meterHours + share * (after.meterHours - before.meterHours);
}
