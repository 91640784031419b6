import { isAhead, type MeterReading, meterAt } from "@/core/job/staleness";
import type { Machine } from "@/core/machine";
import { greasedSpindles, greaseRule, type SpindleEntry, spindleLog } from "./spindles";
import { type DueArgs, type DueState, taskByPlace } from "./standings";

export type SpindleStanding = {
  place: string;
  /** The place it had when its log began: spindles are known by it. */
  from: string;
  /** Hours since each; absent where it was never logged, or the meter was not read. */
  sinceGreaseHours?: number;
  sincePurgeHours?: number;
  sinceBearingsHours?: number;
  state: DueState | "sealed";
  next?: { what: "top-up" | "purge"; inHours: number; on?: string };
  /** Greased or purged under a clock that ran ahead: how long ago cannot be told, and so it is due. */
  isAhead?: true;
};

/** Hours that the meter ran since a time; unknown where it was not read by then, or that clock ran ahead. */
function hoursSince(at: string | undefined, meter: readonly MeterReading[], now: string): number | undefined {
  const then = at === undefined || isAhead(at, now) ? undefined : meterAt(meter, at);
  // Whatever the clock says: what was read last is what it shows.
  const today = meter.at(-1)?.meterHours;
  return then === undefined || today === undefined ? undefined : Math.max(0, today - then);
}

/**
 * Every greased spindle by the hour meter: hours since grease, purge and bearings, and what comes next of its two tasks with its day. A purge that is due goes
 * before a top-up, which is done with it.
 */
export function spindleStandings(args: DueArgs & { machine: Machine; spindles: readonly SpindleEntry[] }): SpindleStanding[] {
  const { machine, meter, now } = args;
  const log = spindleLog(machine, args.spindles);
  const isSealed = greaseRule(machine).school === "leave-sealed";
  const tasks = isSealed
    ? []
    : (["purge", "top-up"] as const).flatMap((what) =>
        taskByPlace(what, args).map((one) => ({ ...one, what: what as "purge" | "top-up" })),
      );
  return greasedSpindles(machine).map(({ id: place }): SpindleStanding => {
    const logged = log.get(place) ?? { from: place };
    const [grease, purge, bearings] = [logged.greased, logged.purged, logged.bearings].map((one) => hoursSince(one?.at, meter, now));
    const base = {
      place,
      from: logged.from,
      ...(grease === undefined ? {} : { sinceGreaseHours: grease }),
      ...(purge === undefined ? {} : { sincePurgeHours: purge }),
      ...(bearings === undefined ? {} : { sinceBearingsHours: bearings }),
    };
    if (isSealed) return { ...base, state: "sealed" };
    const known = tasks.filter((one) => one.place === place && one.standing.state !== "unknown");
    const [first] = known.sort((a, b) => (a.standing.hoursLeft ?? 0) - (b.standing.hoursLeft ?? 0));
    if (!first) return { ...base, state: "unknown" };
    const { standing, what } = first;
    const on = standing.day?.on;
    return {
      ...base,
      state: standing.state,
      next: { what, inHours: standing.hoursLeft ?? 0, ...(on === undefined ? {} : { on }) },
      ...(standing.isAhead ? { isAhead: true } : {}),
    };
  });
}
