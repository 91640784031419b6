import * as z from "zod";
import { physical, physicalOrNought } from "@/core/basics/units/physical";

const size = physicalOrNought("metres", 2);
const money = z.number().min(0).max(100_000);

/** One end of a blade, as looked at. */
const endSchema = z.object({
  edge: z.enum(["sharp", "dull", "rounded"]).optional(),
  /** Deepest nick of the edge; 0 where there is none. */
  nickMetres: size.optional(),
  /** The sail where it is thinnest. */
  sailMetres: size.optional(),
});

export const edgeReadingsSchema = z.object({
  blades: z
    .record(
      z.string(),
      z.object({
        /** By eye and by ring. */
        crack: z.enum(["none", "cracked"]).optional(),
        bend: z.enum(["straight", "bent"]).optional(),
        /** One that looks bent, held against the old one or a sister: a new blade has a curve of its own. */
        bendCompared: z.enum(["same-curve", "unlike"]).optional(),
        /** Between sail and flat. */
        slot: z.enum(["none", "forming"]).optional(),
        lengthMetres: physical("metres", 2).optional(),
        /** At the narrower tip. */
        widthMetres: physical("metres", 0.5).optional(),
        A: endSchema.default({}),
        B: endSchema.default({}),
      }),
    )
    .default({}),
  /** How each blade was tracked last, turned end for end, where nothing was done to it since; brought by the record. */
  tracked: z.record(z.string(), z.enum(["bent", "straight"])).optional(),
  /** What an edge costs, in the shop's own money; left out, the sheet's figures. */
  money: z
    .object({
      price: money.optional(),
      sharpening: money.optional(),
      fitting: money.optional(),
      sharpenings: z.number().int().min(0).max(100).optional(),
      hoursPerEdge: physical("hours", 1000).optional(),
      /** As the shop writes it; shown beside the figures and reckoned with nowhere. */
      currency: z.string().trim().min(1).max(3).optional(),
    })
    .default({}),
});

export type EdgeReadings = z.output<typeof edgeReadingsSchema>;
export type EdgeBlade = EdgeReadings["blades"][string];
export type EdgeEnd = EdgeBlade["A"];
export const ENDS = ["A", "B"] as const;
