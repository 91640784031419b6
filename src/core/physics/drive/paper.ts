import { featuresOf } from "@/core/catalogue/kinds";
import type { Machine, Spindle } from "@/core/machine";
import { spindleSpeed } from "./tip-speed";

/** What a speed is worked out from; what is not given stands on the machine's sheet. Metres, revolutions per minute, shares. */
export type PaperInput = {
  engineRevolutionsPerMinute?: number | undefined;
  drivePitchMetres?: number | undefined;
  drivenPitchMetres?: Readonly<Record<string, number | undefined>>;
  toothRatio?: number | undefined;
  slip?: number | undefined;
};

export type PaperWay = "belt" | "gears" | "direct";

/** How the blades of this machine are turned. */
export function paperWay(machine: Pick<Machine, "kind" | "features">): PaperWay {
  const features = featuresOf(machine);
  if (features.includes("gears")) return "gears";
  return features.includes("belt") ? "belt" : "direct";
}

/** Speed of a blade worked out before the machine is run up, r/min (physics): through pulleys, through gears, or the shaft's own; `undefined` while a size is missing. */
export function paperSpeed(machine: Machine, spindle: Spindle, given: PaperInput): number | undefined {
  const { drive, belt } = machine.sheet;
  const engine = given.engineRevolutionsPerMinute ?? drive?.engineRevolutionsPerMinute;
  if (engine === undefined) return undefined;
  const { slip } = given;
  switch (paperWay(machine)) {
    case "direct":
      return engine;
    case "gears": {
      const toothRatio = given.toothRatio ?? drive?.toothRatio;
      return toothRatio === undefined ? undefined : engine * toothRatio;
    }
    case "belt": {
      const drivePitchMetres = given.drivePitchMetres ?? belt?.pulleys.find(({ role }) => role === "drive")?.pitchDiameterMetres;
      const drivenPitchMetres =
        given.drivenPitchMetres?.[spindle.id] ?? belt?.pulleys.find(({ spindleId }) => spindleId === spindle.id)?.pitchDiameterMetres;
      if (drivePitchMetres === undefined || drivenPitchMetres === undefined) return undefined;
      const toothRatio = given.toothRatio ?? drive?.toothRatio;
      return spindleSpeed({
        engine,
        drivePitchMetres,
        drivenPitchMetres,
        ...(toothRatio === undefined ? {} : { toothRatio }),
        ...(slip === undefined ? {} : { slip }),
      });
    }
  }
}
