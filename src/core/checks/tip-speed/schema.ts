import * as z from "zod";
import { physical, physicalOrNought } from "@/core/basics/units/physical";
import { byPlace, textAt } from "../listed";

const turning = physicalOrNought("revolutionsPerMinute", 20_000);
const pitch = physical("metres", 1);
const share = z.number().min(0).max(1);

const oneSchema = z.object({
  /** By tachometer, drive engaged, full throttle, no load; of a cordless machine at full charge. 0 for one that stands. */
  revolutionsPerMinute: turning.optional(),
  /** Cutting its usual grass. */
  loadedRevolutionsPerMinute: turning.optional(),
  /** Of a cordless machine, as the first reading but at low charge. */
  lowChargeRevolutionsPerMinute: turning.optional(),
  drivenPitchMetres: pitch.optional(),
});

/** Rule version 1 wrote spindles as a list; what was kept then can still be read. */
const bySpindle = byPlace((one) => textAt(one, "spindleId"), ["spindleId"]);

export const speedReadingsSchema = z.object({
  spindles: z.preprocess(bySpindle, z.record(z.string(), oneSchema).default({})),
  /** What is worked out before the machine is run up. */
  paper: z
    .object({
      /** Of the shaft the drive pulley sits on, the gearbox's input, or the blade's own. */
      engineRevolutionsPerMinute: physical("revolutionsPerMinute", 20_000).optional(),
      drivePitchMetres: pitch.optional(),
      toothRatio: physical("ratio", 20).optional(),
      slip: z.number().min(0).max(0.5).optional(),
    })
    .default({}),
  /** Of a cordless machine: how full its pack was. */
  charge: z.object({ full: share.optional(), low: share.optional() }).default({}),
  groundMetresPerSecond: physical("metresPerSecond", 20).optional(),
  /** How the blade clutch takes hold and lets go, listened to from the seat. */
  clutch: z.enum(["at-once", "slips-in", "drags-off"]).optional(),
});

export type SpeedReadings = {
  spindles: Record<string, z.output<typeof oneSchema>>;
  paper: { engineRevolutionsPerMinute?: number; drivePitchMetres?: number; toothRatio?: number; slip?: number };
  charge: { full?: number; low?: number };
  groundMetresPerSecond?: number;
  clutch?: "at-once" | "slips-in" | "drags-off";
};
