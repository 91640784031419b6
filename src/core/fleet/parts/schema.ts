import * as z from "zod";
import { physical, physicalOrNought } from "@/core/basics/units/physical";
import { BOLT_GRADES, HOLE_SHAPES, LIFTS, ROLLER_KINDS } from "@/core/machine";

const size = physical("metres", 3).optional();
const money = z.number().min(0).max(100_000);

const common = {
  label: z.string().trim().min(1, "say-what").max(80),
  supplier: z.string().trim().max(80).default(""),
  price: money.optional(),
  /** As the shop writes it: letters or a sign. */
  currency: z.string().trim().max(3).default(""),
  /** In stock under so many, it is time to buy. */
  lowMark: z.number().int().min(0).max(1000).default(0),
  sharpeningCost: money.optional(),
  fittingCost: money.optional(),
  hoursPerEdge: physical("hours", 2000).optional(),
  sharpenings: z.number().int().min(0).max(100).optional(),
  notes: z.string().max(500).default(""),
};

/** A part as it lies in stock, every dimension that decides whether it fits; what was not measured is left out. SI. */
export const partSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("blade"),
    ...common,
    lengthMetres: size,
    hole: z.enum(HOLE_SHAPES).optional(),
    holeMetres: size,
    secondMetres: size,
    thicknessMetres: size,
    widthMetres: size,
    offsetMetres: physicalOrNought("metres", 0.2).optional(),
    lift: z.enum(LIFTS).optional(),
    turns: z.enum(["clockwise", "anticlockwise"]).optional(),
  }),
  z.object({
    kind: z.literal("bedknife"),
    ...common,
    widthMetres: size,
    thicknessMetres: size,
    depthMetres: size,
    fromHeightMetres: size,
    toHeightMetres: size,
  }),
  z.object({
    kind: z.literal("reel"),
    ...common,
    widthMetres: size,
    diameterMetres: size,
    blades: z.number().int().min(3).max(20).optional(),
  }),
  z.object({ kind: z.literal("belt"), ...common, lengthMetres: physical("metres", 20).optional() }),
  z.object({ kind: z.literal("roller"), ...common, widthMetres: size, roller: z.enum(ROLLER_KINDS).optional() }),
  z.object({
    kind: z.literal("bolt"),
    ...common,
    diameterMetres: size,
    headMetres: size,
    grade: z.enum(BOLT_GRADES).optional(),
    thread: z.enum(["right", "left"]).optional(),
  }),
  z.object({ kind: z.literal("bearing"), ...common, boreMetres: size, outsideMetres: size, widthMetres: size }),
  z.object({ kind: z.literal("other"), ...common }),
]);

export type Part = z.output<typeof partSchema>;
export type PartKind = Part["kind"];
export const PART_KINDS: readonly PartKind[] = ["blade", "bedknife", "reel", "belt", "roller", "bolt", "bearing", "other"];
/** Parts that are sharpened, go from machine to machine and wear out: each set of them has a mark of its own. */
export const SET_KINDS: readonly PartKind[] = ["blade", "bedknife", "reel"];
