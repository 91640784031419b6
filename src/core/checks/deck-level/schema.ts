import * as z from "zod";

const placeId = z.string().min(1).max(60);
const direction = z.enum(["left", "front", "right", "rear"]);
const height = z.number().positive().max(0.4);

export const deckReadingsSchema = z.object({
  /** What heights were read from: the floor the wheels stand on, or a laser or water level. */
  datum: z.enum(["floor", "level"]).default("floor"),
  tips: z
    .array(z.object({ spindleId: placeId, direction, end: z.enum(["A", "B"]).optional(), heightMetres: height }))
    .min(1)
    .max(56),
  /** The bay's floor on any datum of its own. */
  floor: z
    .object({
      wheels: z.array(z.object({ wheelId: placeId, heightMetres: z.number().min(-1).max(3) })).max(8),
      places: z.array(z.object({ spindleId: placeId, direction, heightMetres: z.number().min(-1).max(3) })).max(28),
    })
    .optional(),
  /** Height of cut to set while at it; without it the deck keeps its height and is only levelled. */
  wantedCutHeightMetres: z.number().positive().max(0.3).optional(),
  /** Hangers found unloaded before anything was turned. */
  looseHangerIds: z.array(placeId).max(6).default([]),
  /** Whether tyre pressures were taken and found right in the same job. */
  tyres: z.enum(["right", "not-right", "not-checked"]).default("not-checked"),
  /** A drop, a strike or a refit since the last level: rake is then wanted on both outer blades. */
  isAfterDropOrRefit: z.boolean().default(false),
  /** Whether the blades it is read on were tracked and found straight, and nothing touched them since. */
  blades: z.enum(["straight", "not-known"]).default("not-known"),
  /** A drop or a strike, and the hangers not looked at since: a level then says nothing of the adjusters. */
  isBeforeHangers: z.boolean().default(false),
  /** One and the same end of each blade was turned to every place: its other end may be bent and does not matter. */
  isCarriedRound: z.boolean().default(false),
});

export type DeckReadings = z.output<typeof deckReadingsSchema>;
export type TipReading = DeckReadings["tips"][number];
