import type { Machine } from "@/core/machine";
import { antiScalpWheels } from "./anti-scalp-wheels";
import { armPlay } from "./arm-play";
import { type AssessOutcome, assessWith, checkRow, isOffered } from "./assess";
import { bedknifeAttitude } from "./bedknife-attitude";
import { beltInspection } from "./belt-inspection";
import { bladeBalance } from "./blade-balance";
import { bladeEdge } from "./blade-edge";
import { bladeFit } from "./blade-fit";
import { bladeOverlap } from "./blade-overlap";
import { bladeTiming } from "./blade-timing";
import { bladeTrack } from "./blade-track";
import { clippingPath } from "./clipping-path";
import { cuttingHeight } from "./cutting-height";
import { deckCleanliness } from "./deck-cleanliness";
import { deckLevel } from "./deck-level";
import { gearboxInspection } from "./gearbox-inspection";
import { groomerDepth } from "./groomer-depth";
import { groundSpeed } from "./ground-speed";
import { hangerInspection } from "./hanger-inspection";
import { passOverlap } from "./pass-overlap";
import { reelBearing } from "./reel-bearing";
import { reelCone } from "./reel-cone";
import { reelContact } from "./reel-contact";
import { reelEdge } from "./reel-edge";
import { reelSpeed } from "./reel-speed";
import { rollerBearing } from "./roller-bearing";
import { rollerClean } from "./roller-clean";
import { rollerPosition } from "./roller-position";
import { rollerSquare } from "./roller-square";
import { spindlePlay } from "./spindle-play";
import { tipSpeedCheck } from "./tip-speed";
import { turfCondition } from "./turf-condition";
import type { Check } from "./types";
import { tyrePressure } from "./tyre-pressure";
import { unitLayout } from "./unit-layout";
import { unitMatch } from "./unit-match";
import { vibrationReading } from "./vibration-reading";

/** Every check with a worksheet. Screen, API, job card and diagnosis use this one list: a new check is added here and nowhere else. */
export const WORKSHEETS: readonly Check[] = [
  turfCondition,
  tyrePressure,
  cuttingHeight,
  hangerInspection,
  deckLevel,
  antiScalpWheels,
  deckCleanliness,
  bladeEdge,
  bladeFit,
  bladeTrack,
  bladeBalance,
  bladeOverlap,
  bladeTiming,
  beltInspection,
  spindlePlay,
  gearboxInspection,
  tipSpeedCheck,
  vibrationReading,
  groundSpeed,
  passOverlap,
  unitMatch,
  rollerClean,
  rollerBearing,
  reelBearing,
  armPlay,
  reelEdge,
  reelCone,
  rollerSquare,
  reelContact,
  bedknifeAttitude,
  rollerPosition,
  groomerDepth,
  unitLayout,
  clippingPath,
  reelSpeed,
] as unknown as Check[];

export function worksheetById(id: string): Check | undefined {
  return WORKSHEETS.find((check) => check.id === id);
}

/** Worksheets this machine can have, in walk-round order. */
export function worksheetsFor(machine: Machine): Check[] {
  return WORKSHEETS.filter((check) => {
    const row = checkRow(check.id);
    return row !== undefined && isOffered(row, machine) && check.missing(machine).length === 0;
  });
}

/** As `assessWith`, for a check named by its id. */
export function assessCheck(id: string, input: { machine: unknown; readings: unknown }): AssessOutcome {
  const check = worksheetById(id);
  return check ? assessWith(check, input) : { kind: "unknown-check" };
}
