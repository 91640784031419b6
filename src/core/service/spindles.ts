import { isAhead, type MeterReading, meterAt } from "@/core/events";
import { featuresOf, kindById } from "@/core/kinds";
import { type Machine, spindlesAcross } from "@/core/machine";

/** Look and top up. Estimate; per machine. */
export const TOP_UP_HOURS = 50;
/** Purge old grease with new until it runs clean, or change the bearings. Estimate; per machine. */
export const PURGE_HOURS = 200;
/** Coming up within this share of its hours is said beforehand. Estimate. */
const SOON_SHARE = 0.1;

/** Something done to one spindle, or a turning round of all of them. `at` ISO 8601 UTC. */
export type SpindleEntry =
  | { kind: "topped-up" | "purged" | "bearings-new"; place: string; at: string }
  /** By place: where the spindle that stood there went. */
  | { kind: "moved"; moves: Readonly<Record<string, string>>; at: string };

/** By hours over the old grease; or sealed bearings left alone until they are changed. */
export type GreaseRule = { school: "by-hours"; topUpHours: number; purgeHours: number } | { school: "leave-sealed" };

export type SpindleStanding = {
  place: string;
  /** The place it had when its log began: spindles are known by it. */
  from: string;
  /** Hours since each; absent where it was never logged, or the meter was not read. */
  sinceGreaseHours?: number;
  sincePurgeHours?: number;
  sinceBearingsHours?: number;
  state: "sealed" | "good" | "soon" | "due" | "unknown";
  next?: { what: "top-up" | "purge"; inHours: number; on?: string };
  /** Greased or purged under a clock that ran ahead: how long ago cannot be told, and so it is due. */
  isAhead?: true;
};

export function greaseRule(machine: Machine): GreaseRule {
  const { grease } = machine.sheet;
  if (grease?.school === "leave-sealed") return { school: "leave-sealed" };
  return { school: "by-hours", topUpHours: grease?.topUpHours ?? TOP_UP_HOURS, purgeHours: grease?.purgeHours ?? PURGE_HOURS };
}

/** Spindles that are greased at all: a blade on the engine's own shaft has none. */
export function greasedSpindles(machine: Machine): Machine["spindles"] {
  const isDirect = featuresOf(machine).includes("direct-drive");
  return kindById(machine.kind).cutsWith === "reel" || isDirect ? [] : spindlesAcross(machine);
}

/** Whether a turning round names every place of it once, coming and going. */
export function isRotation(moves: Readonly<Record<string, string>>, places: readonly string[]): boolean {
  const [from, to] = [Object.keys(moves), Object.values(moves)];
  const isKnown = [...from, ...to].every((place) => places.includes(place));
  return from.length > 1 && isKnown && new Set(to).size === to.length && from.every((place) => to.includes(place));
}

type Logged = { from: string; greasedAt?: string; purgedAt?: string; bearingsAt?: string };

/** What was done to whichever spindle stands at each place now, in the order it was written down: its log goes with it when it is moved. */
function logByPlace(places: readonly string[], entries: readonly SpindleEntry[]): Map<string, Logged> {
  let now = new Map<string, Logged>(places.map((place) => [place, { from: place }]));
  for (const entry of entries) {
    if (entry.kind === "moved") {
      const { moves } = entry;
      now = new Map([...now].map(([place, logged]) => [moves[place] ?? place, logged]));
      continue;
    }
    const logged = now.get(entry.place);
    if (!logged) continue;
    const { kind, at } = entry;
    // New bearings come with new grease, a purge is a greasing too.
    now.set(entry.place, {
      ...logged,
      greasedAt: at,
      ...(kind === "topped-up" ? {} : { purgedAt: at }),
      ...(kind === "bearings-new" ? { bearingsAt: at } : {}),
    });
  }
  return now;
}

/**
 * Where every greased spindle stands by the hour meter: hours since grease, purge and bearings, and what is due next, with a date at the
 * recent rate of use. A purge that is due goes before a top-up.
 */
export function spindleStandings(args: {
  machine: Machine;
  entries: readonly SpindleEntry[];
  meter: readonly MeterReading[];
  now: string;
}): SpindleStanding[] {
  const { machine, entries, meter, now } = args;
  const rule = greaseRule(machine);
  const places = greasedSpindles(machine).map(({ id }) => id);
  const log = logByPlace(places, entries);
  const rate = hoursADay(meter, now);
  // Whatever the clock says: what was read last is what it shows.
  const meterNow = meter.at(-1)?.meterHours;
  const since = (at: string | undefined) => {
    const then = at === undefined || isAhead(at, now) ? undefined : meterAt(meter, at);
    return then === undefined || meterNow === undefined ? undefined : Math.max(0, meterNow - then);
  };
  return places.map((place): SpindleStanding => {
    const logged = log.get(place) ?? { from: place };
    const [sinceGreaseHours, sincePurgeHours, sinceBearingsHours] = [
      since(logged.greasedAt),
      since(logged.purgedAt),
      since(logged.bearingsAt),
    ];
    const base = {
      place,
      from: logged.from,
      ...(sinceGreaseHours === undefined ? {} : { sinceGreaseHours }),
      ...(sincePurgeHours === undefined ? {} : { sincePurgeHours }),
      ...(sinceBearingsHours === undefined ? {} : { sinceBearingsHours }),
    };
    if (rule.school === "leave-sealed") return { ...base, state: "sealed" };
    const ahead = (at: string | undefined) => at !== undefined && isAhead(at, now);
    const untold = ahead(logged.purgedAt) ? "purge" : ahead(logged.greasedAt) ? "top-up" : undefined;
    if (untold) return { ...base, state: "due", next: { what: untold, inHours: 0 }, isAhead: true };
    if (sinceGreaseHours === undefined) return { ...base, state: "unknown" };
    const next = nextOf(rule, sinceGreaseHours, sincePurgeHours);
    const within = (next.what === "purge" ? rule.purgeHours : rule.topUpHours) * SOON_SHARE;
    const state = next.inHours <= 0 ? "due" : next.inHours <= within ? "soon" : "good";
    return { ...base, state, next: { ...next, ...(rate === undefined ? {} : { on: dateIn(now, next.inHours / rate) }) } };
  });
}

/** Whichever comes first. Hours since a purge nobody logged are not made up: then the greasing alone counts. */
function nextOf(
  rule: Extract<GreaseRule, { school: "by-hours" }>,
  sinceGrease: number,
  sincePurge: number | undefined,
): { what: "top-up" | "purge"; inHours: number } {
  const topUp = { what: "top-up" as const, inHours: rule.topUpHours - sinceGrease };
  if (sincePurge === undefined) return topUp;
  const purge = { what: "purge" as const, inHours: rule.purgeHours - sincePurge };
  return purge.inHours <= topUp.inHours || purge.inHours <= 0 ? purge : topUp;
}

const DAY = 86_400_000;
/** Use of the last weeks says more of the next ones than that of the year. Estimate. */
const RECENT_DAYS = 42;

/** Hours a day of the recent past; `undefined` where the meter was not read twice or stood still. */
export function hoursADay(meter: readonly MeterReading[], now: string): number | undefined {
  const [end, start] = [meterAt(meter, now), meterAt(meter, new Date(Date.parse(now) - RECENT_DAYS * DAY).toISOString())];
  const earliest = [...meter].sort((a, b) => a.at.localeCompare(b.at))[0];
  if (end === undefined || !earliest) return undefined;
  const days = start === undefined ? (Date.parse(now) - Date.parse(earliest.at)) / DAY : RECENT_DAYS;
  const hours = end - (start ?? earliest.meterHours);
  return days > 0 && hours > 0 ? hours / days : undefined;
}

const FURTHEST_DAYS = 3650;

/** The day so many days on, no further than ten years. */
export function dateIn(now: string, days: number): string {
  return new Date(Date.parse(now) + Math.max(0, Math.min(days, FURTHEST_DAYS)) * DAY).toISOString();
}
