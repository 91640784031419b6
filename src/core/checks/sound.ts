import { gaussian } from "@/core/basics/random";
import { table } from "@/core/basics/tables";
import type { Machine } from "@/core/machine";
import { sound as antiScalpWheels } from "./anti-scalp-wheels/sound";
import { sound as armPlay } from "./arm-play/sound";
import { sound as bedknifeAttitude } from "./bedknife-attitude/sound";
import { sound as beltInspection } from "./belt-inspection/sound";
import { sound as bladeBalance } from "./blade-balance/sound";
import { sound as bladeEdge } from "./blade-edge/sound";
import { sound as bladeFit } from "./blade-fit/sound";
import { sound as bladeOverlap } from "./blade-overlap/sound";
import { sound as bladeTiming } from "./blade-timing/sound";
import { sound as bladeTrack } from "./blade-track/sound";
import { sound as clippingPath } from "./clipping-path/sound";
import { sound as cuttingHeight } from "./cutting-height/sound";
import { sound as deckCleanliness } from "./deck-cleanliness/sound";
import { sound as deckLevel } from "./deck-level/sound";
import { sound as gearboxInspection } from "./gearbox-inspection/sound";
import { sound as groomerDepth } from "./groomer-depth/sound";
import { sound as groundSpeed } from "./ground-speed/sound";
import { sound as hangerInspection } from "./hanger-inspection/sound";
import { sound as passOverlap } from "./pass-overlap/sound";
import { sound as reelBearing } from "./reel-bearing/sound";
import { sound as reelCone } from "./reel-cone/sound";
import { sound as reelContact } from "./reel-contact/sound";
import { sound as reelEdge } from "./reel-edge/sound";
import { sound as reelSpeed } from "./reel-speed/sound";
import { sound as rollerBearing } from "./roller-bearing/sound";
import { sound as rollerClean } from "./roller-clean/sound";
import { sound as rollerPosition } from "./roller-position/sound";
import { sound as rollerSquare } from "./roller-square/sound";
import type { Readings, Sound } from "./sound-basics";
import { sound as spindlePlay } from "./spindle-play/sound";
import { sound as tipSpeed } from "./tip-speed/sound";
import { sound as turfCondition } from "./turf-condition/sound";
import { sound as tyrePressure } from "./tyre-pressure/sound";
import { sound as unitLayout } from "./unit-layout/sound";
import { sound as unitMatch } from "./unit-match/sound";
import { sound as vibrationReading } from "./vibration-reading/sound";

const SOUND: Readonly<Record<string, Sound | undefined>> = table({
  "anti-scalp-wheels": antiScalpWheels,
  "arm-play": armPlay,
  "bedknife-attitude": bedknifeAttitude,
  "belt-inspection": beltInspection,
  "blade-balance": bladeBalance,
  "blade-edge": bladeEdge,
  "blade-fit": bladeFit,
  "blade-overlap": bladeOverlap,
  "blade-timing": bladeTiming,
  "blade-track": bladeTrack,
  "clipping-path": clippingPath,
  "cutting-height": cuttingHeight,
  "deck-cleanliness": deckCleanliness,
  "deck-level": deckLevel,
  "gearbox-inspection": gearboxInspection,
  "groomer-depth": groomerDepth,
  "ground-speed": groundSpeed,
  "hanger-inspection": hangerInspection,
  "pass-overlap": passOverlap,
  "reel-bearing": reelBearing,
  "reel-cone": reelCone,
  "reel-contact": reelContact,
  "reel-edge": reelEdge,
  "reel-speed": reelSpeed,
  "roller-bearing": rollerBearing,
  "roller-clean": rollerClean,
  "roller-position": rollerPosition,
  "roller-square": rollerSquare,
  "spindle-play": spindlePlay,
  "tip-speed": tipSpeed,
  "turf-condition": turfCondition,
  "tyre-pressure": tyrePressure,
  "unit-layout": unitLayout,
  "unit-match": unitMatch,
  "vibration-reading": vibrationReading,
});

/** Readings of a machine on which this check finds nothing, with the noise of a shop's gauges, sizes from its specification; `undefined` for a check without a worksheet. */
export function soundReadings(args: { machine: Machine; check: string; random: () => number; turf: string }): Readings | undefined {
  const { machine, check, random, turf } = args;
  return SOUND[check]?.({ machine, random, turf, noise: (spread) => gaussian(random) * spread });
}

type Tree = { [key: string]: unknown };

/** Readings with some of their leaves replaced, by path: how a story spoils a sound machine. */
export function spoiled(readings: Readings, changes: Readonly<Record<string, unknown>>): Readings {
  const copy = structuredClone(readings) as Tree;
  for (const [path, value] of Object.entries(changes)) {
    const parts = path.split(".");
    let here = copy;
    for (const part of parts.slice(0, -1)) {
      here[part] ??= {};
      here = here[part] as Tree;
    }
    here[parts.at(-1) ?? ""] = value;
  }
  return copy;
}
