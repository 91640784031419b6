import * as z from "zod";
import { physical } from "@/core/basics/units/physical";

const height = physical("metres", 0.4);

const visits = z
  .array(
    z.object({
      turf: z.string().max(80).optional(),
      offsetMetres: z.number().min(-0.2).max(0.2),
      spreadMetres: z.number().min(0).max(0.2),
      count: z.number().int().min(1),
      ageDays: z.number().min(0),
    }),
  )
  .max(200)
  .default([]);

export const heightReadingsSchema = z.object({
  /** What dial, pin, notch or bench says. */
  settingMetres: height.optional(),
  /** Prism or ruler, one for each prick of the stubble. */
  heightsMetres: z.array(height).max(1000).default([]),
  ground: z.enum(["firm", "soft"]).optional(),
  /** The turf it was cut on, as the shop calls it: its offset is learnt from earlier visits there. */
  turf: z.string().trim().max(80).optional(),
  wantedMetres: height.optional(),
  /** Earlier visits of this machine; of a reel machine, since a roller was changed. */
  visits,
  /** Of a reel machine, the stubble behind each unit by itself. */
  unitHeights: z.record(z.string(), z.array(height).max(200)).optional(),
  /** Bench height of a unit that does not stand as all of them do. */
  unitSettings: z.record(z.string(), height).optional(),
  /** Earlier visits by unit, since its roller was changed. */
  unitVisits: z.record(z.string(), visits).default({}),
  /** Rake of the blades at their last level, front less rear; a raked blade cuts lower than its centre stands. */
  rakeMetres: z.number().min(-0.05).max(0.05).optional(),
});

export type HeightReadings = z.output<typeof heightReadingsSchema>;
export type Visit = HeightReadings["visits"][number];
