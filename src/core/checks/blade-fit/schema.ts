import * as z from "zod";
import { physical, physicalOrNought } from "@/core/basics/units/physical";
import { BOLT_GRADES, HOLE_SHAPES, LIFTS } from "@/core/machine";

const size = physical("metres", 2);

const partSchema = z.object({
  lengthMetres: size.optional(),
  hole: z.enum(HOLE_SHAPES).optional(),
  holeMetres: size.optional(),
  thicknessMetres: size.optional(),
  offsetMetres: physicalOrNought("metres", 0.2).optional(),
  widthMetres: size.optional(),
  /** Over the flats, or from pin to pin. */
  secondMetres: size.optional(),
  lift: z.enum(LIFTS).optional(),
  turns: z.enum(["clockwise", "anticlockwise"]).optional(),
});

export const fitReadingsSchema = z.object({
  /** The blade to be fitted, and whose word its sizes are. */
  part: partSchema.extend({ standing: z.enum(["measured", "read-off", "sheet", "remembered"]).optional() }).default({}),
  /** The one that came off. */
  old: partSchema.default({}),
  /** What the deck is used for today. */
  use: z.enum(["bag", "mulch", "discharge"]).optional(),
  headMetres: size.optional(),
  socketMetres: size.optional(),
  blades: z
    .record(
      z.string(),
      z.object({
        sail: z.enum(["to-deck", "to-ground", "none"]).optional(),
        leads: z.enum(["edge", "back"]).optional(),
        stamp: z.enum(["right", "wrong", "none"]).optional(),
        centre: z.enum(["ends-lower", "ends-higher", "flat"]).optional(),
        arrow: z.enum(["with-turn", "against-turn", "none"]).optional(),
        /** The mark that washer or collar left on the old blade and on the hub, against how it lies now. */
        imprint: z.enum(["same", "other", "no-mark"]).optional(),
        stack: z.enum(["as-sheet", "washer-reversed", "part-missing", "other-order"]).optional(),
        seated: z.enum(["flush", "proud"]).optional(),
        bolt: z.enum(BOLT_GRADES).optional(),
        tightened: z.enum(["wrench", "feel", "loose"]).optional(),
        torqueNewtonMetres: physical("newtonMetres", 10_000).optional(),
      }),
    )
    .default({}),
});

export type FitReadings = z.output<typeof fitReadingsSchema>;
export type FitBlade = FitReadings["blades"][string];
