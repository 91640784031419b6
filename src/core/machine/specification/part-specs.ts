import { BOLT_GRADES, HOLE_SHAPES, LIFTS, STACK_PARTS } from "@/core/machine";
import { choice, type FieldSpec, flag, length, lines, number, placeAt, quantity, text, turns } from "./spec";

/** Standard gravity, m/s² (published: CGPM 1901). */
const G = 9.80665;
const DECK_MOUNTS = ["frame-hung", "self-carried", "fixed"] as const;

export const CUT: readonly FieldSpec[] = [
  length("sheet.heightLeastMetres", "Lowest height of cut", { least: 0.001, most: 0.25 }),
  length("sheet.heightMostMetres", "Highest height of cut", { least: 0.001, most: 0.25 }),
];
export const DECK: readonly FieldSpec[] = [
  length("sheet.rakeTargetMetres", "Rake wanted, nose down is minus", { least: -0.03, most: 0.03, usualLeast: -0.0127, usualMost: 0 }),
  length("sheet.rakeToleranceMetres", "Rake, so far off is right still", { least: 0.0005, most: 0.02 }),
  length("sheet.sideToleranceMetres", "Side to side, so far off is right still", { least: 0.0005, most: 0.02 }),
  length("sheet.passOverlapMetres", "Overlap of passes", { least: 0, most: 0.6 }),
  choice("deck.mount", "Deck carried by", DECK_MOUNTS),
];
export const TYRES: readonly FieldSpec[] = [
  quantity("sheet.pressureTolerancePascals", "Pressure, so far off is right still", "pressure", { least: 1000, most: 200_000 }),
  quantity("sheet.pressureOffsetPascals", "Run under the sheet on every wheel, as minus", "pressure", { least: -100_000, most: 0 }),
];
/** What it weighs decides what a soft tyre does: both with where the weight stands, or not at all. */
export const WEIGHT: readonly FieldSpec[] = [
  { ...quantity("frame.weightNewtons", "Weight on its wheels", "mass", { least: 1, most: 9000 }), scale: G },
  ...placeAt("frame", "Its weight stands"),
];
export const DECK_WEIGHT: readonly FieldSpec[] = placeAt("deck.centreOfGravity", "Deck's weight stands");
export const BLADE: readonly FieldSpec[] = [
  length("sheet.blade.lengthMetres", "Length, corner to corner", { least: 0.1, most: 1.6, usualLeast: 0.25, usualMost: 0.8 }),
  length("sheet.blade.leastLengthMetres", "Worn out under a length of", { least: 0.1, most: 1.6 }),
  length("sheet.blade.widthMetres", "Width", { least: 0.02, most: 0.2 }),
  length("sheet.blade.leastWidthMetres", "Worn out under a width of", { least: 0.01, most: 0.2 }),
  length("sheet.blade.thicknessMetres", "Thickness", { least: 0.001, most: 0.02 }),
  length("sheet.blade.sailThicknessMetres", "Sail's thickness, new", { least: 0.001, most: 0.02 }),
  length("sheet.blade.offsetMetres", "Hub face down to the edge", { least: 0, most: 0.1 }),
  choice("sheet.blade.lift", "Lift", LIFTS),
  choice("sheet.blade.hole.shape", "Centre hole", HOLE_SHAPES),
  length("sheet.blade.hole.acrossMetres", "Hole: bore, points, teeth or round part", { least: 0.004, most: 0.1 }),
  length("sheet.blade.hole.secondMetres", "Hole: over the flats, or pin to pin", { least: 0.004, most: 0.2 }),
  choice("sheet.blade.bolt.grade", "Bolt's grade", BOLT_GRADES),
  length("sheet.blade.bolt.diameterMetres", "Bolt's diameter", { least: 0.004, most: 0.04 }),
  length("sheet.blade.bolt.headMetres", "Bolt's head, over the flats", { least: 0.006, most: 0.06 }),
  choice("sheet.blade.bolt.thread", "Thread", ["right", "left"]),
  choice("sheet.blade.bolt.surface", "Thread tightened", ["dry", "oiled"]),
  {
    kind: "quantity",
    path: ["sheet", "bladeBoltTorqueNewtonMetres"],
    label: "Torque of the blade bolt",
    dimension: "torque",
    instrument: "gauge",
    range: { least: 1, most: 600, usualLeast: 15, usualMost: 250 },
  },
  {
    kind: "quantity",
    path: ["sheet", "blade", "massKilograms"],
    label: "Weight of a blade",
    dimension: "mass",
    instrument: "gauge",
    range: { least: 0.05, most: 20, usualLeast: 0.3, usualMost: 6 },
  },
  number("sheet.blade.edges", "Edges of a blade", { least: 2, most: 8, isWhole: true }),
  number("sheet.blade.price", "Price of a blade", { least: 0, most: 10_000 }),
  number("sheet.blade.sharpeningCost", "Cost of sharpening one", { least: 0, most: 10_000 }),
  number("sheet.blade.fittingCost", "Cost of fitting one", { least: 0, most: 10_000 }),
  text("sheet.blade.currency", "In", 3),
  number("sheet.blade.sharpenings", "Sharpenings a blade stands", { least: 0, most: 100, isWhole: true }),
  number("sheet.blade.hoursPerEdge", "Hours an edge lasts", { least: 0.5, most: 1000, unit: "h" }),
  { kind: "order", path: ["sheet", "blade", "stack"], label: "Washer stack, from the bolt's head up", options: STACK_PARTS, most: 12 },
];
/** In the order of taking off; it goes back up the list, but for what goes back first. */
export const DECK_OFF: FieldSpec = {
  kind: "table",
  path: ["sheet", "deckOff"],
  label: "Taking the deck off, step by step",
  table: "deck-off",
  row: "step",
  most: 30,
  columns: [
    { ...text("words", "Coming off", 200), isNeeded: true },
    text("backWords", "Going back on, where that is said otherwise", 200),
    text("parts", "Into the tray, like: 2 link pins, 4 washers", 600),
    flag("isBackFirst", "Goes back on first"),
  ],
};
export const DRIVE: readonly FieldSpec[] = [
  turns("sheet.drive.engineRevolutionsPerMinute", "Input at full throttle"),
  turns("sheet.blade.ratedRevolutionsPerMinute", "Blade at full throttle"),
  quantity("sheet.drive.usualDroop", "Speed it loses in its usual grass", "share", {
    least: 0,
    most: 0.5,
    usualLeast: 0.005,
    usualMost: 0.2,
  }),
];
export const RATIO = number("sheet.drive.toothRatio", "Blade turns for one of the input", { least: 0.05, most: 20 });
export const SAFETY: readonly FieldSpec[] = [
  lines("sheet.jackingPoints", "Lifted at, one a line, in its manual's words"),
  lines("sheet.isolationPoints", "Isolated at, one a line, in the order of its lock-out"),
  text("sheet.tipSide", "Tipped how, which side up", 120),
  flag("sheet.standsOnEnd", "Made to stand on its end"),
];
export const PACK = number("sheet.capacitorWaitSeconds", "Wait after the pack is out", { least: 0, most: 7200, unit: "s" });
export const SPINDLES: readonly FieldSpec[] = [choice("sheet.spindlePlaces", "Spindles that were off go back", ["own", "rotated"])];
export const GREASE: readonly FieldSpec[] = [
  choice("sheet.grease.school", "Grease", ["by-hours", "leave-sealed"]),
  number("sheet.grease.topUpHours", "Top up every", { least: 1, most: 2000, unit: "h" }),
  number("sheet.grease.purgeHours", "Purge every", { least: 1, most: 5000, unit: "h" }),
];
export const NOTE = text("sheet.notes", "Note", 2000);
