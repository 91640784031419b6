import type { CheckId } from "@/core/catalogue";
import { face as antiScalpWheels } from "./anti-scalp-wheels";
import { face as armPlay } from "./arm-play";
import { face as bedknifeAttitude } from "./bedknife-attitude";
import { face as beltInspection } from "./belt-inspection";
import { face as bladeBalance } from "./blade-balance";
import { face as bladeEdge } from "./blade-edge";
import { face as bladeFit } from "./blade-fit";
import { face as bladeOverlap } from "./blade-overlap";
import { face as bladeTiming } from "./blade-timing";
import { face as bladeTrack } from "./blade-track";
import { face as clippingPath } from "./clipping-path";
import { face as cuttingHeight } from "./cutting-height";
import { face as deckCleanliness } from "./deck-cleanliness";
import { face as deckLevel } from "./deck-level";
import type { AnyFace } from "./face";
import { face as gearboxInspection } from "./gearbox-inspection";
import { face as groomerDepth } from "./groomer-depth";
import { face as groundSpeed } from "./ground-speed";
import { face as hangerInspection } from "./hanger-inspection";
import { face as passOverlap } from "./pass-overlap";
import { face as reelBearing } from "./reel-bearing";
import { face as reelCone } from "./reel-cone";
import { face as reelContact } from "./reel-contact";
import { face as reelEdge } from "./reel-edge";
import { face as reelSpeed } from "./reel-speed";
import { face as rollerBearing } from "./roller-bearing";
import { face as rollerClean } from "./roller-clean";
import { face as rollerPosition } from "./roller-position";
import { face as rollerSquare } from "./roller-square";
import { face as spindlePlay } from "./spindle-play";
import { face as tipSpeed } from "./tip-speed";
import { face as turfCondition } from "./turf-condition";
import { face as tyrePressure } from "./tyre-pressure";
import { face as unitLayout } from "./unit-layout";
import { face as unitMatch } from "./unit-match";
import { face as vibrationReading } from "./vibration-reading";

/** What each worksheet says and draws, by its check. A new check is added to this list and to the one in core. */
const FACES: Partial<Record<CheckId, unknown>> = {
  "turf-condition": turfCondition,
  "tyre-pressure": tyrePressure,
  "cutting-height": cuttingHeight,
  "hanger-inspection": hangerInspection,
  "deck-level": deckLevel,
  "anti-scalp-wheels": antiScalpWheels,
  "deck-cleanliness": deckCleanliness,
  "blade-edge": bladeEdge,
  "blade-fit": bladeFit,
  "blade-track": bladeTrack,
  "blade-balance": bladeBalance,
  "blade-overlap": bladeOverlap,
  "blade-timing": bladeTiming,
  "belt-inspection": beltInspection,
  "spindle-play": spindlePlay,
  "gearbox-inspection": gearboxInspection,
  "tip-speed": tipSpeed,
  "vibration-reading": vibrationReading,
  "ground-speed": groundSpeed,
  "pass-overlap": passOverlap,
  "arm-play": armPlay,
  "bedknife-attitude": bedknifeAttitude,
  "clipping-path": clippingPath,
  "groomer-depth": groomerDepth,
  "reel-bearing": reelBearing,
  "reel-cone": reelCone,
  "reel-contact": reelContact,
  "reel-edge": reelEdge,
  "reel-speed": reelSpeed,
  "roller-bearing": rollerBearing,
  "roller-clean": rollerClean,
  "roller-position": rollerPosition,
  "roller-square": rollerSquare,
  "unit-layout": unitLayout,
  "unit-match": unitMatch,
};

const SILENT: AnyFace = { answer: () => "" };

/** The face of a check; of one that has no worksheet, one that says nothing. */
export function faceOf(check: string): AnyFace {
  return ((FACES as Partial<Record<string, unknown>>)[check] as AnyFace | undefined) ?? SILENT;
}

export const FACED: readonly string[] = Object.keys(FACES);
