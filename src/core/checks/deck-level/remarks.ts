import type { BladeReading, TurnPlan } from "@/core/deck";
import type { ProvisionalReason, Warning } from "@/core/findings";
import { type Machine, spindlesAcross } from "@/core/machine";
import type { DeckReadings } from "./schema";
import { stationKey } from "./stations";

/** Outside its range by this much a height is remarked on. */
const HEIGHT_REMARK_METRES = 0.02;

export function provisionalReasons(args: { machine: Machine; readings: DeckReadings; unmapped: number }): ProvisionalReason[] {
  const { machine, readings } = args;
  const reasons: ProvisionalReason[] = [];
  const isOnTyres = machine.deck?.mount === "frame-hung" && machine.wheels.some(({ isPneumatic }) => isPneumatic);
  if (isOnTyres && readings.tyres !== "right") reasons.push({ code: `tyres-${readings.tyres}` });
  if (args.unmapped > 0) reasons.push({ code: "floor-not-mapped", count: args.unmapped });
  if (readings.datum === "level" && !readings.floor) reasons.push({ code: "level-without-floor" });
  const hasBothEnds = readings.tips.some(({ end }) => end === "A") && readings.tips.some(({ end }) => end === "B");
  if (readings.blades !== "straight" && !readings.isCarriedRound && !hasBothEnds) reasons.push({ code: "blades-not-known-straight" });
  if (readings.isBeforeHangers) reasons.push({ code: "hangers-first" });
  if (readings.isAfterDropOrRefit && rakedOuterBlades(machine, readings) < 2 && machine.spindles.length > 1) {
    reasons.push({ code: "rake-wanted-on-both-outer-blades" });
  }
  return reasons;
}

function rakedOuterBlades(machine: Machine, { tips }: DeckReadings): number {
  const across = spindlesAcross(machine);
  const outer = [across[0], across.at(-1)];
  return outer.filter((spindle) =>
    (["front", "rear"] as const).every((direction) => tips.some((tip) => tip.spindleId === spindle?.id && tip.direction === direction)),
  ).length;
}

export function warningsFor(args: {
  machine: Machine;
  readings: DeckReadings;
  heights: readonly BladeReading[];
  planned: TurnPlan | undefined;
  wantsTurns: boolean;
}): Warning[] {
  const { machine, readings } = args;
  const warnings: Warning[] = [];
  if (args.heights.length === 3) warnings.push({ code: "no-spare-reading" });
  const raked = new Set(
    readings.tips.filter(({ direction }) => direction === "front" || direction === "rear").map(({ spindleId }) => spindleId),
  );
  if (machine.spindles.length > 1 && raked.size < 2) warnings.push({ code: "rake-from-one-blade" });
  const { heightMostMetres: most, heightLeastMetres: least } = machine.sheet;
  for (const tip of readings.tips) {
    if (most !== undefined && tip.heightMetres > most + HEIGHT_REMARK_METRES)
      warnings.push({ code: "height-over-range", place: stationKey(tip), mostMetres: most });
    if (least !== undefined && tip.heightMetres < least - HEIGHT_REMARK_METRES)
      warnings.push({ code: "height-under-range", place: stationKey(tip), leastMetres: least });
  }
  if (!args.wantsTurns) return warnings;
  for (const { id, endsShort, slackMetres } of args.planned?.hangers ?? []) {
    if (endsShort) warnings.push({ code: "adjuster-ends-short", place: id });
    if (slackMetres !== undefined) warnings.push({ code: "hanger-would-hang-free", place: id, slackMetres });
  }
  return warnings;
}
