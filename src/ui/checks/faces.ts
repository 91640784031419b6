import type { CheckId } from "@/core/trade";
import { face as antiScalpWheels } from "./anti-scalp-wheels";
import { face as beltInspection } from "./belt-inspection";
import { face as bladeBalance } from "./blade-balance";
import { face as bladeEdge } from "./blade-edge";
import { face as bladeFit } from "./blade-fit";
import { face as bladeOverlap } from "./blade-overlap";
import { face as bladeTiming } from "./blade-timing";
import { face as bladeTrack } from "./blade-track";
import { face as cuttingHeight } from "./cutting-height";
import { face as deckCleanliness } from "./deck-cleanliness";
import { face as deckLevel } from "./deck-level";
import type { AnyFace } from "./face";
import { face as gearboxInspection } from "./gearbox-inspection";
import { face as groundSpeed } from "./ground-speed";
import { face as hangerInspection } from "./hanger-inspection";
import { face as passOverlap } from "./pass-overlap";
import { face as spindlePlay } from "./spindle-play";
import { face as tipSpeed } from "./tip-speed";
import { face as turfCondition } from "./turf-condition";
import { face as tyrePressure } from "./tyre-pressure";
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
};

const SILENT: AnyFace = { answer: () => "" };

/** The face of a check; of one that has no worksheet, one that says nothing. */
export function faceOf(check: string): AnyFace {
  return ((FACES as Partial<Record<string, unknown>>)[check] as AnyFace | undefined) ?? SILENT;
}

export const FACED: readonly string[] = Object.keys(FACES);
