import { format, formatDistanceStrict, isSameDay } from "date-fns";

/** The hour on the same day, the date otherwise; local to whoever looks. */
export function shortTime(iso: string, now: string): string {
  const at = new Date(iso);
  return isSameDay(at, new Date(now)) ? format(at, "HH:mm") : format(at, "d MMM HH:mm");
}

export function dateOnly(iso: string): string {
  return format(new Date(iso), "d MMM yyyy");
}

export function sinceWords(iso: string, now: string): string {
  return formatDistanceStrict(new Date(iso), new Date(now));
}
