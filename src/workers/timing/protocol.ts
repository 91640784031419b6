import * as z from "zod";
import { physical, physicalOrNought } from "@/core/basics/units/physical";
import type { PairStudy } from "@/core/physics/blades/timing-study";

const bladeSchema = z.object({ lengthMetres: physical("metres", 2), widthMetres: physical("metres", 2) });

/** Pairs to be studied; each question carries the number its answer comes back under. */
export const requestSchema = z.object({
  number: z.number().int(),
  pairs: z
    .array(
      z.object({
        id: z.string().max(130),
        pair: z.object({
          one: bladeSchema,
          other: bladeSchema,
          centresMetres: physical("metres", 5),
          sense: z.enum(["same", "opposite"]),
        }),
        phaseDegrees: z.number().min(0).max(180),
        lashDegrees: z.number().min(0).max(90),
        teeth: z.number().int().min(3).max(120).optional(),
        wantedMetres: physicalOrNought("metres", 0.1),
      }),
    )
    .max(6),
});

export type Request = z.infer<typeof requestSchema>;
export type Answer = { kind: "studied"; number: number; studies: PairStudy[] } | { kind: "failed"; number: number };
