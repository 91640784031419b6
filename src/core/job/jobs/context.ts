import type { CheckId, EventId } from "@/core/catalogue";
import { type LoggedEvent, staleReasons } from "@/core/job/staleness";
import type { Machine } from "@/core/machine";
import type { TakeRecord } from "./proof";

/** What a deck-level reading stands on, worked out from the machine's log so far; the same on server and screen. */
export type DeckContext = {
  tyres: "right" | "not-right" | "not-checked";
  isAfterDropOrRefit: boolean;
  blades: "straight" | "not-known";
  isBeforeHangers: boolean;
};

const UPSETTING: readonly EventId[] = ["struck", "deck-dropped", "deck-off"];
const DROPS: readonly EventId[] = ["struck", "deck-dropped"];

/**
 * Tyres are right when their latest take in this job is in tolerance and nothing has touched them since. After a drop, a strike or a refit since
 * the last level that came out right, the rake is wanted on both outer blades; after a drop or a strike the hangers are looked at before any
 * level. Blades are known straight by their last track, whichever job took it, while nothing touched them.
 */
export function deckContext(args: {
  machine: Machine;
  /** Of this job. */
  takes: readonly TakeRecord[];
  /** Of the machine, this job's among them. */
  machineTakes: readonly TakeRecord[];
  events: readonly LoggedEvent[];
  lastGoodLevelSeq?: number | undefined;
}): DeckContext {
  const { machine, events } = args;
  const latest = (takes: readonly TakeRecord[], id: CheckId) => takes.filter(({ check }) => check === id).sort((a, b) => b.seq - a.seq)[0];
  const isGood = (take: TakeRecord | undefined) =>
    take !== undefined &&
    take.verdict === "in-tolerance" &&
    staleReasons({ machine, check: take.check, takenSeq: take.seq, events }).length === 0;
  const tyres = latest(args.takes, "tyre-pressure");
  const hangers = latest(args.machineTakes, "hanger-inspection");
  const dropped = Math.max(0, ...events.filter(({ event }) => DROPS.includes(event)).map(({ seq }) => seq));
  const isLooked = hangers !== undefined && hangers.verdict === "in-tolerance" && hangers.seq > dropped;
  const hasHangers = (machine.deck?.hangers.length ?? 0) > 0;
  return {
    tyres: !tyres ? "not-checked" : isGood(tyres) ? "right" : "not-right",
    isAfterDropOrRefit: events.some(({ event, seq }) => UPSETTING.includes(event) && seq > (args.lastGoodLevelSeq ?? 0)),
    blades: isGood(latest(args.machineTakes, "blade-track")) ? "straight" : "not-known",
    isBeforeHangers: hasHangers && dropped > (args.lastGoodLevelSeq ?? 0) && !isLooked,
  };
}
