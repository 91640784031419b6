import * as z from "zod";
import { physical, physicalOrNought } from "@/core/basics/units/physical";
import { CONTACT_SCHOOLS } from "@/core/catalogue";
import { FEATURE_IDS, REEL_KIND_IDS, ROTARY_KIND_IDS } from "@/core/catalogue/kinds";

const id = z
  .string()
  .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, "kebab-case")
  .max(60);
const metres = z.number().min(-20).max(20);
const positiveMetres = physical("metres", 20);
const pressure = physical("pascals", 1_000_000);
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
  /** Thread pitch by lever ratio; not told, a deck is set in lengths and not in turns. */
  liftPerTurnMetres: physical("metres", 0.1).optional(),
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
  tipCircleDiameterMetres: physical("metres", 2),
  turns: z.enum(["clockwise", "anticlockwise"]).optional(),
});

/** A wheel under the deck's rim that keeps it off a crest. */
export const antiScalpWheelSchema = z.object({
  id,
  label,
  ...place,
  /** The wheel that belongs in the same hole as this one. */
  twin: id.optional(),
});

/** Whose word a value on a machine's sheet is; a template's is an estimate until somebody says otherwise. */
export const SHEET_WORDS = ["sheet", "measured", "read", "remembered", "estimated"] as const;
export type SheetWord = (typeof SHEET_WORDS)[number];

export const HOLE_SHAPES = ["round", "star-5", "star-6", "star-7", "spline", "two-flats", "two-pins"] as const;
export const LIFTS = ["low", "medium", "high", "mulching"] as const;
export const BOLT_GRADES = ["sae-2", "sae-5", "sae-8", "iso-8-8", "iso-10-9", "iso-12-9"] as const;
/** From the bolt's head upwards to the spindle, as they lie on each other. */
export const STACK_PARTS = [
  "bolt",
  "lock-washer",
  "flat-washer",
  "cupped-washer-hollow-up",
  "cupped-washer-hollow-down",
  "blade",
  "spacer",
  "anti-rotation-plate",
  "collar",
] as const;

const money = z.number().min(0).max(100_000);

/** What a blade for this machine has to be, and what an edge costs in the shop's own money. */
export const bladeSchema = z.object({
  /** Corner to corner where ends are square. */
  lengthMetres: physical("metres", 2),
  leastLengthMetres: physical("metres", 2).optional(),
  widthMetres: positiveMetres.optional(),
  leastWidthMetres: positiveMetres.optional(),
  thicknessMetres: positiveMetres.optional(),
  /** Of the sail, new. */
  sailThicknessMetres: positiveMetres.optional(),
  /** From the face on the hub down to the cutting edge. */
  offsetMetres: physicalOrNought("metres", 0.2).optional(),
  lift: z.enum(LIFTS).optional(),
  /** `acrossMetres`: bore, points, teeth or the round part; `secondMetres`: over the flats, or from pin to pin. */
  hole: z.object({ shape: z.enum(HOLE_SHAPES), acrossMetres: positiveMetres, secondMetres: positiveMetres.optional() }).optional(),
  massKilograms: physical("kilograms", 30).optional(),
  edges: z.number().int().min(2).max(8).default(2),
  /** Of the blade, at full throttle without load. */
  ratedRevolutionsPerMinute: physical("revolutionsPerMinute", 20_000).optional(),
  bolt: z
    .object({
      diameterMetres: positiveMetres,
      headMetres: positiveMetres,
      grade: z.enum(BOLT_GRADES),
      thread: z.enum(["right", "left"]).default("right"),
      surface: z.enum(["dry", "oiled"]).default("dry"),
    })
    .optional(),
  stack: z.array(z.enum(STACK_PARTS)).max(12).optional(),
  price: money.optional(),
  sharpeningCost: money.optional(),
  fittingCost: money.optional(),
  /** As the shop writes it: letters or a sign. */
  currency: z.string().trim().min(1).max(3).optional(),
  hoursPerEdge: physical("hours", 1000).optional(),
  sharpenings: z.number().int().min(0).max(100).optional(),
});

/** One step of taking a deck off, with the parts that come off at it and go into the tray. */
export const deckOffStepSchema = z.object({
  id,
  words: z.string().min(1).max(200),
  backWords: z.string().min(1).max(200).optional(),
  parts: z.array(z.object({ id, label, count: z.number().int().min(1).max(40) })).default([]),
});

/** A pulley of the deck's belt, in the belt's own order. */
export const pulleySchema = z.object({
  id,
  label,
  ...place,
  /** Where the belt's cord runs, not the rim: outside diameters give another ratio. */
  pitchDiameterMetres: physical("metres", 1),
  role: z.enum(["drive", "spindle", "idler"]),
  /** The blade it turns. */
  spindleId: id.optional(),
  side: z.enum(["inside", "outside"]).default("inside"),
});

/** A gearbox of a geared deck: what it holds, and the two depths its dipstick is worked out from. */
export const gearboxSchema = z.object({
  id,
  label,
  ...place,
  oil: z.string().min(1).max(60).optional(),
  /** From the cover's face down to the oil as it should stand. */
  coverToOilMetres: physical("metres", 0.5).optional(),
  /** Of the coupling that times the blades. */
  splineTeeth: z.number().int().min(3).max(120).optional(),
  /** Its oil runs into another box and takes hours to level. */
  isConnected: z.boolean().default(false),
});

const sidePoint = { yMetres: z.number().min(-2).max(2), zMetres: z.number().min(-2).max(2) };
const sideRoller = z.object({ ...sidePoint, radiusMetres: physical("metres", 0.3) });

export const ROLLER_KINDS = ["smooth", "grooved"] as const;
export const FACINGS = ["forward", "rearward"] as const;

const rollerSheetSchema = z.object({
  kind: z.enum(ROLLER_KINDS),
  /** A roller without solid ends presses no line at its ends. */
  hasSolidEnds: z.boolean().default(true),
  /** Of its turf face, where it is not the unit's width. */
  widthMetres: positiveMetres.optional(),
});

/**
 * What a reel unit has to be. Its side view is in its own frame: y forward, z up, metres, any origin fixed to the unit; the knife's edge set
 * back behind the reel's middle is part of it.
 */
export const unitSheetSchema = z.object({
  reel: z
    .object({
      newDiameterMetres: physical("metres", 0.4),
      scrapDiameterMetres: physical("metres", 0.4),
      blades: z.number().int().min(3).max(20),
    })
    .optional(),
  bedknife: z
    .object({
      type: z.string().trim().min(1).max(40),
      /** Of the lip new, and the least it may be ground to. */
      thicknessMetres: physical("metres", 0.03),
      leastThicknessMetres: physical("metres", 0.03).optional(),
      /** Front to back of the front face's stock, new and least. */
      depthMetres: physical("metres", 0.1).optional(),
      leastDepthMetres: physical("metres", 0.1).optional(),
      hoursBetweenGrinds: physical("hours", 2000).optional(),
      /** Heights of cut it is made for. */
      fromHeightMetres: positiveMetres.optional(),
      toHeightMetres: positiveMetres.optional(),
    })
    .optional(),
  sideView: z
    .object({
      front: sideRoller,
      rear: sideRoller,
      edge: z.object(sidePoint),
      reel: z.object(sidePoint).optional(),
      heel: z.object(sidePoint).optional(),
      toe: z.object(sidePoint).optional(),
      /** Of the knife's top face; positive when its front edge is the lower end. */
      faceRadians: z.number().min(-0.6).max(0.6).optional(),
    })
    .optional(),
  frontRoller: rollerSheetSchema.optional(),
  rearRoller: rollerSheetSchema.optional(),
  attitude: z.object({ leastRadians: z.number().min(-0.6).max(0.6), mostRadians: z.number().min(-0.6).max(0.6) }).optional(),
  groomer: z.enum(["none", "groomer", "brush"]).optional(),
  hasScraper: z.boolean().optional(),
  school: z.enum(CONTACT_SCHOOLS).optional(),
  /** Which hole and facing of the front roller's bracket belongs to a height, with a groomer or without. */
  brackets: z
    .array(
      z.object({
        withGroomer: z.boolean(),
        fromHeightMetres: physicalOrNought("metres", 0.2),
        toHeightMetres: positiveMetres,
        number: z.number().int().min(1).max(20),
        facing: z.enum(FACINGS),
      }),
    )
    .max(40)
    .optional(),
  /** What one turn of each adjuster moves. */
  adjusters: z
    .object({
      squareThrowMetres: physical("metres", 0.02).optional(),
      heightThrowMetres: physical("metres", 0.02).optional(),
      /** The roller that the height screws move: the rear one, unless said. */
      heightEnd: z.enum(["front", "rear"]).optional(),
      /** Where its centre can stand in the side view's own frame. */
      heightTravel: z.object({ leastZMetres: z.number().min(-2).max(2), mostZMetres: z.number().min(-2).max(2) }).optional(),
      knifeThrowMetres: physical("metres", 0.02).optional(),
    })
    .optional(),
});

/** A reel unit seen from above: its middle and its width of cut; what sets it apart from the machine's other units, where anything does. */
export const unitSchema = z.object({
  id,
  label,
  ...place,
  widthMetres: physical("metres", 2),
  /** Its right end forward; nought is square to travel. */
  yawRadians: z.number().min(-0.6).max(0.6).optional(),
  own: unitSheetSchema.optional(),
});

export const deckSchema = z.object({
  mount: z.enum(["frame-hung", "self-carried", "fixed"]),
  /** Corners seen from above, in order. */
  outline: z.array(z.object(place)).min(3).max(40),
  hangers: z.array(hangerSchema).max(6),
  centreOfGravity: z.object(place).optional(),
  antiScalpWheels: z.array(antiScalpWheelSchema).max(8).default([]),
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
  /** Made to be stood on its end instead of tipped. */
  standsOnEnd: z.boolean().optional(),
  /** Where it may be lifted, in the words of its manual. */
  jackingPoints: z.array(z.string().trim().min(1).max(80)).max(8).optional(),
  /** What isolates it, in the order its lock-out goes: key, plug lead, battery switch, hydraulics. */
  isolationPoints: z.array(z.string().trim().min(1).max(80)).max(8).optional(),
  capacitorWaitSeconds: physicalOrNought("seconds", 7200).optional(),
  bladeBoltTorqueNewtonMetres: physical("newtonMetres", 1000).optional(),
  blade: bladeSchema.optional(),
  /** In the order of taking off; the refit goes back up the list unless `backFirst` names steps that come first. */
  deckOff: z.object({ steps: z.array(deckOffStepSchema).min(1).max(30), backFirst: z.array(id).max(10).default([]) }).optional(),
  passOverlapMetres: physicalOrNought("metres", 1).optional(),
  drive: z
    .object({
      /** At full throttle without load: of the shaft the drive pulley sits on, the gearbox's input, or the blade itself. */
      engineRevolutionsPerMinute: physical("revolutionsPerMinute", 20_000).optional(),
      /** Blade turns for one of the input, through gears. */
      toothRatio: physical("ratio", 20).optional(),
      /** Share of its speed this machine loses in its usual grass. */
      usualDroop: z.number().min(0).max(0.5).optional(),
    })
    .optional(),
  belt: z
    .object({
      pulleys: z.array(pulleySchema).min(2).max(16),
      /** On the pitch line, as the belt is sold. */
      lengthMetres: physical("metres", 20).optional(),
    })
    .optional(),
  gearboxes: z.array(gearboxSchema).max(8).optional(),
  grease: z
    .object({
      /** By hours, packed over the old grease and purged; or sealed bearings left alone until they are changed. */
      school: z.enum(["by-hours", "leave-sealed"]),
      topUpHours: physical("hours", 2000).optional(),
      purgeHours: physical("hours", 5000).optional(),
    })
    .optional(),
  /** What every reel unit of the machine has to be. */
  unit: unitSheetSchema.optional(),
  reelDrive: z
    .object({
      revolutionsPerMinute: physical("revolutionsPerMinute", 5000).optional(),
      /** Turned by the ground: its clip is the same at every speed. */
      isGroundDriven: z.boolean().default(false),
      /** What slows when the engine does. */
      fallsWithEngine: z.enum(["reel", "reel-and-travel", "nothing"]).optional(),
    })
    .optional(),
  /** Whether spindles go back to their own place, or are moved round to even their wear. */
  spindlePlaces: z.enum(["own", "rotated"]).optional(),
  notes: z.string().max(2000).optional(),
  /** By the value's key: whose word it is, where it is not the machine's own sheet's. */
  words: z.record(z.string().max(160), z.enum(SHEET_WORDS)).optional(),
});

const common = {
  features: z.array(z.enum(FEATURE_IDS)).optional(),
  wheels: z.array(wheelSchema).max(8),
  /** Where a centre-pivoted axle carries the frame. */
  pivotedAxles: z
    .array(z.object({ axle: id, ...place }))
    .max(2)
    .default([]),
  frame: z.object({ weightNewtons: physical("newtons", 100_000), ...place }).optional(),
};
/** What a machine of the other kind has: told of this one it is refused. */
const ofAnother = z.never({ error: "cuts-with-another" }).optional();

const rotaryMachineSchema = z.object({
  kind: z.enum(ROTARY_KIND_IDS),
  ...common,
  deck: deckSchema.optional(),
  spindles: z.array(spindleSchema).max(7),
  /** None: a sheet that names any contradicts itself. */
  units: z.array(unitSchema).max(9).default([]),
  sheet: sheetSchema.extend({ unit: ofAnother, reelDrive: ofAnother }).default({}),
});

const reelMachineSchema = z.object({
  kind: z.enum(REEL_KIND_IDS),
  ...common,
  deck: ofAnother,
  /** None: a sheet that names any contradicts itself. */
  spindles: z.array(spindleSchema).max(7).default([]),
  units: z.array(unitSchema).max(9).default([]),
  sheet: sheetSchema
    .extend({
      blade: ofAnother,
      belt: ofAnother,
      gearboxes: ofAnother,
      deckOff: ofAnother,
      drive: ofAnother,
      bladeBoltTorqueNewtonMetres: ofAnother,
      spindlePlaces: ofAnother,
    })
    .default({}),
});

/** A machine is what it cuts with: blades under a deck, or reel units. */
export const machineSchema = z.discriminatedUnion("kind", [rotaryMachineSchema, reelMachineSchema]);

/** A machine as the core knows it: geometry and sheet values, SI, axes as in the deck's README. */
export type Machine = z.output<typeof machineSchema>;
export type RotaryMachine = z.output<typeof rotaryMachineSchema>;
export type ReelMachine = z.output<typeof reelMachineSchema>;
export type MachineInput = z.input<typeof machineSchema>;
export type Wheel = Machine["wheels"][number];
export type MachineHanger = NonNullable<Machine["deck"]>["hangers"][number];
export type Spindle = Machine["spindles"][number];
export type BladeSheet = NonNullable<RotaryMachine["sheet"]["blade"]>;
export type AntiScalpWheel = NonNullable<Machine["deck"]>["antiScalpWheels"][number];
export type Pulley = z.output<typeof pulleySchema>;
export type Gearbox = z.output<typeof gearboxSchema>;
export type Unit = z.output<typeof unitSchema>;
export type UnitSheet = z.output<typeof unitSheetSchema>;
export type HoleShape = (typeof HOLE_SHAPES)[number];
export type BoltGrade = (typeof BOLT_GRADES)[number];
export type StackPart = (typeof STACK_PARTS)[number];
