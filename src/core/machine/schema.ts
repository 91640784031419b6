import * as z from "zod";
import { FEATURE_IDS, KIND_IDS } from "@/core/kinds";

const id = z
  .string()
  .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, "kebab-case")
  .max(60);
const metres = z.number().min(-20).max(20);
const positiveMetres = z.number().positive().max(20);
const pressure = z.number().positive().max(1_000_000);
const label = z.string().min(1).max(60);

const place = { xMetres: metres, yMetres: metres };

export const wheelSchema = z.object({
  id,
  label,
  ...place,
  /** Wheels of one axle are compared with each other. */
  axle: id,
  isDriven: z.boolean().optional(),
  isPneumatic: z.boolean().default(true),
  treadWidthMetres: positiveMetres,
  diameterMetres: positiveMetres,
  sectionHeightMetres: positiveMetres.optional(),
  sheetPressurePascals: pressure.optional(),
  leastPressurePascals: pressure.optional(),
  /** The figure moulded on the tyre: its maximum, never a target. */
  mouldedMaximumPascals: pressure.optional(),
});

export const hangerSchema = z.object({
  id,
  label,
  ...place,
  liftPerTurnMetres: z.number().positive().max(0.1),
  step: z.enum(["flat", "quarter", "half", "hole"]),
  turnsLeftUp: z.number().min(0).max(60),
  turnsLeftDown: z.number().min(0).max(60),
  /** What is turned, seen from above, for deck up. */
  upIs: z.enum(["clockwise", "anticlockwise"]).optional(),
  head: z.string().max(60).optional(),
});

export const spindleSchema = z.object({
  id,
  label,
  ...place,
  /** Corner to corner. */
  tipCircleDiameterMetres: z.number().positive().max(2),
  turns: z.enum(["clockwise", "anticlockwise"]).optional(),
});

/** A reel unit seen from above: its middle and its width of cut. */
export const unitSchema = z.object({ id, label, ...place, widthMetres: z.number().positive().max(2) });

export const deckSchema = z.object({
  mount: z.enum(["frame-hung", "self-carried", "fixed"]),
  /** Corners seen from above, in order. */
  outline: z.array(z.object(place)).min(3).max(40),
  hangers: z.array(hangerSchema).max(6),
  centreOfGravity: z.object(place).optional(),
});

export const sheetSchema = z.object({
  heightLeastMetres: positiveMetres.optional(),
  heightMostMetres: positiveMetres.optional(),
  sideToleranceMetres: positiveMetres.optional(),
  rakeTargetMetres: z.number().min(-0.05).max(0.05).optional(),
  rakeToleranceMetres: positiveMetres.optional(),
  pressureTolerancePascals: pressure.optional(),
  /** School B of tyre pressure: an offset on every wheel, never under the sheet's least. */
  pressureOffsetPascals: z.number().min(-100_000).max(0).optional(),
  /** Which side is up when the machine is tipped. */
  tipSide: z.string().max(120).optional(),
  capacitorWaitSeconds: z.number().min(0).max(7200).optional(),
  bladeBoltTorqueNewtonMetres: z.number().positive().max(1000).optional(),
  passOverlapMetres: z.number().min(0).max(1).optional(),
  notes: z.string().max(2000).optional(),
});

export const machineSchema = z.object({
  kind: z.enum(KIND_IDS),
  features: z.array(z.enum(FEATURE_IDS)).optional(),
  wheels: z.array(wheelSchema).max(8),
  /** Where a centre-pivoted axle carries the frame. */
  pivotedAxles: z
    .array(z.object({ axle: id, ...place }))
    .max(2)
    .default([]),
  frame: z.object({ weightNewtons: z.number().positive().max(100_000), ...place }).optional(),
  deck: deckSchema.optional(),
  spindles: z.array(spindleSchema).max(7),
  units: z.array(unitSchema).max(9).default([]),
  sheet: sheetSchema.default({}),
});

/** A machine as the core knows it: geometry and sheet values, SI, axes as in the deck's README. */
export type Machine = z.output<typeof machineSchema>;
export type MachineInput = z.input<typeof machineSchema>;
export type Wheel = Machine["wheels"][number];
export type MachineHanger = NonNullable<Machine["deck"]>["hangers"][number];
export type Spindle = Machine["spindles"][number];
