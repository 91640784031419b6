import type { MeterReading } from "@/core/job/staleness";

const DAY = 86_400_000;
/** How much is mown in each month, January first, of a mean month. Estimate for the temperate north; learnt where the depot's hours say otherwise. */
const SEASON = [0.1, 0.15, 0.6, 1.3, 1.7, 1.6, 1.4, 1.35, 1.3, 1, 0.6, 0.15] as const;
const SEASON_MEAN = SEASON.reduce((sum, one) => sum + one, 0) / SEASON.length;
export type Season = readonly number[];
export const USUAL_SEASON: Season = SEASON.map((one) => one / SEASON_MEAN);

/** A month is learnt as if so many hours had been seen at the usual share. Estimate. */
const SEASON_PRIOR_HOURS = 60;
/** Three hours a mean day, worth twenty days, before a meter was read. Estimate. */
const PRIOR_HOURS = 60;
const PRIOR_DAYS = 20;
/** Hours come in lumps: eight times what chance alone would scatter, worth four readings. Estimate. */
const PRIOR_LUMPS = 32;
const PRIOR_READINGS = 4;
const HALF_LIFE_DAYS = 120;
/** 80 % lie within. */
const Q = 1.2816;
const FURTHEST_DAYS = 1500;
/** Readings of a meter further apart than ten years were written under a clock that was wrong: the rest of them says nothing of a season. */
const LONGEST = 3660 * DAY;

/** Days from the first of March of the year 0 to 1970, of four centuries, of one, of four years but the last day of them, and from March to a month's first. */
const [TO_1970, OF_400_YEARS, OF_100_YEARS, OF_4_YEARS] = [719_468, 146_097, 36_524, 1460];

/**
 * The month of a time, January 0, by the calendar's own arithmetic: a year is counted from March, so that its odd day is its last. As `Date` has it, without
 * making one for each day of years.
 */
export function monthOf(at: number): number {
  const days = Math.floor(at / DAY) + TO_1970;
  const ofEra = days - Math.floor(days / OF_400_YEARS) * OF_400_YEARS;
  const year = Math.floor(
    (ofEra - Math.floor(ofEra / OF_4_YEARS) + Math.floor(ofEra / OF_100_YEARS) - Math.floor(ofEra / (OF_400_YEARS - 1))) / 365,
  );
  const ofYear = ofEra - (365 * year + Math.floor(year / 4) - Math.floor(year / 100));
  // Five months from March on have 153 days, and so have the next five.
  const fromMarch = Math.floor((5 * ofYear + 2) / 153);
  return (fromMarch + 2) % 12;
}

/** Mean days between two times: a day of May counts for more than one of January. */
function meanDays(from: number, to: number, season: Season): number {
  let sum = 0;
  const end = Math.min(to, from + LONGEST) - DAY / 1e6;
  for (let at = from; at < end; at += DAY) sum += (season[monthOf(at)] ?? 1) * Math.min(1, (to - at) / DAY);
  return sum;
}

type Stretch = { from: number; to: number; hours: number };

/** From reading to reading; a meter set back, and two readings at one time, say nothing. */
function stretches(meter: readonly MeterReading[]): Stretch[] {
  const read = meter.map(({ at, meterHours }) => ({ at: Date.parse(at), meterHours }));
  return read.slice(1).flatMap((one, k) => {
    const before = read[k] as (typeof read)[number];
    const hours = one.meterHours - before.meterHours;
    return one.at > before.at && hours >= 0 ? [{ from: before.at, to: one.at, hours }] : [];
  });
}

/** Hours that one machine's meter showed in each month, January first, and hours that the usual year would have spread over them. */
export type MonthsSeen = { seen: readonly number[]; expected: readonly number[] };

/** What a meter says of the year, by what it showed before `until` (ISO 8601). */
export function monthsSeen(meter: readonly MeterReading[], until: string): MonthsSeen {
  const seen = new Array<number>(12).fill(0);
  const expected = new Array<number>(12).fill(0);
  const end = Date.parse(until);
  const own = stretches(meter).filter(({ to }) => to < end);
  const days = own.reduce((sum, { from, to }) => sum + meanDays(from, to, USUAL_SEASON), 0);
  const rate = days > 0 ? own.reduce((sum, { hours }) => sum + hours, 0) / days : 0;
  for (const { from, to, hours } of own) {
    const length = (to - from) / DAY;
    for (let at = from; at < Math.min(to, from + LONGEST); at += DAY) {
      const month = monthOf(at);
      const share = Math.min(1, (to - at) / DAY);
      // A long stretch says when its hours fell only as evenly as it is long.
      seen[month] = (seen[month] ?? 0) + (hours * share) / length;
      expected[month] = (expected[month] ?? 0) + rate * (USUAL_SEASON[month] ?? 1) * share;
    }
  }
  return { seen, expected };
}

/** The depot's own year, from the meters of all its machines: (60 + seen) / (60 + expected) on each month, mean one. */
export function learntSeason(meters: readonly MonthsSeen[]): Season {
  const sum = (month: number, of: keyof MonthsSeen) => meters.reduce((all, one) => all + (one[of][month] ?? 0), 0);
  const learnt = USUAL_SEASON.map(
    (one, month) => (one * (SEASON_PRIOR_HOURS + sum(month, "seen"))) / (SEASON_PRIOR_HOURS + sum(month, "expected")),
  );
  const mean = learnt.reduce((sum, one) => sum + one, 0) / learnt.length;
  return learnt.map((one) => one / mean);
}

/** Hours a mean day, how lumpy they come, and how many mean days that rests on. */
export type Pace = { hoursAMeanDay: number; lumps: number; weighedDays: number; season: Season };

/** How a machine is used, by its meter, what was read lately counting most. */
export function paceOf(meter: readonly MeterReading[], now: string, season: Season = USUAL_SEASON): Pace {
  const end = Date.parse(now);
  const weighed = stretches(meter).map(({ from, to, hours }) => ({
    hours,
    days: meanDays(from, to, season),
    weight: 2 ** (-Math.max(0, end - to) / DAY / HALF_LIFE_DAYS),
  }));
  const weighedDays = weighed.reduce((sum, { weight, days }) => sum + weight * days, 0);
  const hoursAMeanDay = (PRIOR_HOURS + weighed.reduce((sum, { weight, hours }) => sum + weight * hours, 0)) / (PRIOR_DAYS + weighedDays);
  const scatter = weighed.reduce(
    (sum, { weight, hours, days }) => sum + (days > 0 ? (weight * (hours - hoursAMeanDay * days) ** 2) / (hoursAMeanDay * days) : 0),
    0,
  );
  const lumps = (PRIOR_LUMPS + scatter) / (PRIOR_READINGS + weighed.reduce((sum, { weight }) => sum + weight, 0));
  return { hoursAMeanDay, lumps, weighedDays, season };
}

const dayOf = (start: number, days: number): string => new Date(start + days * DAY).toISOString();

/** ISO days; absent where it lies further off than four years. */
export type DueDay = { early?: string; on?: string; late?: string };

/** The day so many hours will have been mown, with 80 % within. Hours that are over already are today's. */
export function dueDay(use: Pace, hoursLeft: number, now: string): DueDay {
  const start = Date.parse(now);
  const found: DueDay = {};
  const { hoursAMeanDay: rate, lumps, weighedDays, season } = use;
  let days = 0;
  for (let day = 0; day <= FURTHEST_DAYS; day++) {
    if (day > 0) days += season[monthOf(start + (day - 1) * DAY)] ?? 1;
    const mean = rate * days;
    const spread = Math.sqrt(lumps * mean + (lumps * mean * days) / (PRIOR_DAYS + weighedDays));
    if (found.early === undefined && mean + Q * spread >= hoursLeft) found.early = dayOf(start, day);
    if (found.on === undefined && mean >= hoursLeft) found.on = dayOf(start, day);
    if (found.late === undefined && mean - Q * spread >= hoursLeft) {
      found.late = dayOf(start, day);
      break;
    }
  }
  return found;
}
