import type { EventId } from "@/core/diagnosis";
import { type LoggedEvent, staleReasons } from "@/core/events";
import type { Machine } from "@/core/machine";
import type { TakeRecord } from "./proof";

/** What a deck-level reading stands on, worked out from the job so far; the same on server and screen. */
export type DeckContext = { tyres: "right" | "not-right" | "not-checked"; isAfterDropOrRefit: boolean };

const UPSETTING: readonly EventId[] = ["struck", "deck-dropped", "deck-off"];

/**
 * Tyres are right when their latest take in this job is in tolerance and nothing has touched them since. After a drop, a strike or
 * a refit since the last level that came out right, the rake is wanted on both outer blades.
 */
export function deckContext(args: {
  machine: Machine;
  takes: readonly TakeRecord[];
  events: readonly LoggedEvent[];
  lastGoodLevelAt?: string | undefined;
}): DeckContext {
  const tyres = args.takes.filter(({ check }) => check === "tyre-pressure").sort((a, b) => b.at.localeCompare(a.at))[0];
  const since = args.lastGoodLevelAt ?? "";
  const isAfterDropOrRefit = args.events.some(({ event, at }) => UPSETTING.includes(event) && at > since);
  if (!tyres) return { tyres: "not-checked", isAfterDropOrRefit };
  const stale = staleReasons({ machine: args.machine, check: "tyre-pressure", takenAt: tyres.at, events: args.events });
  return { tyres: tyres.verdict === "in-tolerance" && stale.length === 0 ? "right" : "not-right", isAfterDropOrRefit };
}
