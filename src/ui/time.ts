/** Where the depot's clock hangs: the server's own zone, so that server and every browser write the same hour. */
export type Zone = string | undefined;

const formats = new Map<string, Intl.DateTimeFormat>();

/** Making one takes longer than a thousand uses of it: they are kept. */
function formatFor(zone: Zone, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${zone} ${JSON.stringify(options)}`;
  const kept = formats.get(key) ?? new Intl.DateTimeFormat("en-GB", { ...options, ...(zone ? { timeZone: zone } : {}) });
  formats.set(key, kept);
  return kept;
}

const formatted = (iso: string, zone: Zone, options: Intl.DateTimeFormatOptions) =>
  formatFor(zone, options).format(new Date(iso)).replace(",", "");

export function dateOnly(iso: string, zone?: Zone): string {
  return formatted(iso, zone, { day: "numeric", month: "short", year: "numeric" });
}

/** The hour on the same day, the date and hour otherwise. */
export function shortTime(iso: string, now: string, zone?: Zone): string {
  const hour: Intl.DateTimeFormatOptions = { hour: "2-digit", minute: "2-digit", hourCycle: "h23" };
  if (dateOnly(iso, zone) === dateOnly(now, zone)) return formatted(iso, zone, hour);
  return formatted(iso, zone, { day: "numeric", month: "short", ...hour });
}

const STEPS = [
  ["year", 365 * 86_400],
  ["month", 30 * 86_400],
  ["day", 86_400],
  ["hour", 3600],
  ["minute", 60],
] as const;

/** How long from one time to another, in the largest unit that fits: "3 days". */
export function sinceWords(iso: string, now: string): string {
  const seconds = Math.max(0, (Date.parse(now) - Date.parse(iso)) / 1000);
  const [unit, size] = STEPS.find(([, one]) => seconds >= one) ?? (["second", 1] as const);
  return new Intl.NumberFormat("en", { style: "unit", unit, unitDisplay: "long" }).format(Math.round(seconds / size));
}

/** Date and hour, whatever day it is. */
export function dateAndTime(iso: string, zone?: Zone): string {
  return formatted(iso, zone, { day: "numeric", month: "short", year: "numeric", hour: "2-digit", minute: "2-digit", hourCycle: "h23" });
}

/** The day so many days from now, as a date field has it, where the reader is. */
export function dayIn(days: number, from = new Date()): string {
  const date = new Date(from.getFullYear(), from.getMonth(), from.getDate() + days);
  return [date.getFullYear(), date.getMonth() + 1, date.getDate()].map((part) => String(part).padStart(2, "0")).join("-");
}
