import { type Machine, spindlesAcross } from "@/core/machine";
import type { BladeReading, TurnPlan } from "@/core/physics/deck";
import type { Says } from "./says";
import { type DeckReadings, tipsOf } from "./schema";

/** Outside its range by this much a height is remarked on. */
const HEIGHT_REMARK_METRES = 0.02;

export function provisionalReasons(args: { machine: Machine; readings: DeckReadings; unmapped: number }): Says["provisional"][] {
  const { machine, readings } = args;
  const reasons: Says["provisional"][] = [];
  const isOnTyres = machine.deck?.mount === "frame-hung" && machine.wheels.some(({ isPneumatic }) => isPneumatic);
  if (isOnTyres && readings.tyres !== "right") reasons.push({ code: `tyres-${readings.tyres}` });
  if (args.unmapped > 0) reasons.push({ code: "floor-not-mapped", count: args.unmapped });
  if (readings.datum === "level" && !readings.floor) reasons.push({ code: "level-without-floor" });
  const tips = tipsOf(readings);
  const hasBothEnds = tips.some(({ end }) => end === "A") && tips.some(({ end }) => end === "B");
  if (readings.blades !== "straight" && readings.ends !== "one-carried-round" && !hasBothEnds)
    reasons.push({ code: "blades-not-known-straight" });
  for (const [place, state] of Object.entries(readings.hangers)) if (state === "loose") reasons.push({ code: "hanger-loose", place });
  if (readings.isBeforeHangers) reasons.push({ code: "hangers-first" });
  if (readings.isAfterDropOrRefit && rakedOuterBlades(machine, readings) < 2 && machine.spindles.length > 1) {
    reasons.push({ code: "rake-wanted-on-both-outer-blades" });
  }
  return reasons;
}

function rakedOuterBlades(machine: Machine, readings: DeckReadings): number {
  const tips = tipsOf(readings);
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
}): Says["warning"][] {
  const { machine, readings } = args;
  const tips = tipsOf(readings);
  const warnings: Says["warning"][] = [];
  if (args.heights.length === 3) warnings.push({ code: "no-spare-reading" });
  const raked = new Set(tips.filter(({ direction }) => direction === "front" || direction === "rear").map(({ spindleId }) => spindleId));
  if (machine.spindles.length > 1 && raked.size < 2) warnings.push({ code: "rake-from-one-blade" });
  const { heightMostMetres: most, heightLeastMetres: least } = machine.sheet;
  for (const tip of tips) {
    if (most !== undefined && tip.heightMetres > most + HEIGHT_REMARK_METRES)
      warnings.push({ code: "height-over-range", place: tip.key, mostMetres: most });
    if (least !== undefined && tip.heightMetres < least - HEIGHT_REMARK_METRES)
      warnings.push({ code: "height-under-range", place: tip.key, leastMetres: least });
  }
  if (!args.wantsTurns) return warnings;
  for (const { id, endsShort, slackMetres } of args.planned?.hangers ?? []) {
    if (endsShort) warnings.push({ code: "adjuster-ends-short", place: id });
    if (slackMetres !== undefined) warnings.push({ code: "hanger-would-hang-free", place: id, slackMetres });
  }
  return warnings;
}
