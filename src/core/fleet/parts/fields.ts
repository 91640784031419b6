import { BOLT_GRADES, HOLE_SHAPES, LIFTS, ROLLER_KINDS } from "@/core/machine";
import type { FieldSpec } from "@/core/machine/specification";
import type { PartKind } from "./schema";

const length = (path: string, label: string, least: number, most: number, instrument: "gauge" | "fine" = "gauge"): FieldSpec => ({
  kind: "quantity",
  path: [path],
  label,
  dimension: "length",
  instrument,
  range: { least, most },
});
const choice = (path: string, label: string, options: readonly string[]): FieldSpec => ({ kind: "choice", path: [path], label, options });
const number = (path: string, label: string, least: number, most: number, more: { unit?: string; isWhole?: boolean } = {}): FieldSpec => ({
  kind: "number",
  path: [path],
  label,
  least,
  most,
  ...more,
});
const text = (path: string, label: string, most: number): FieldSpec => ({ kind: "text", path: [path], label, most });

/** Every dimension that decides whether a part fits, by its kind. */
const SIZES: Readonly<Record<PartKind, readonly FieldSpec[]>> = {
  blade: [
    length("lengthMetres", "Length, corner to corner", 0.1, 1.6),
    choice("hole", "Centre hole", HOLE_SHAPES),
    length("holeMetres", "Hole: bore, points, teeth or round part", 0.004, 0.1),
    length("secondMetres", "Hole: over the flats, or pin to pin", 0.004, 0.2),
    length("thicknessMetres", "Thickness", 0.001, 0.02),
    length("widthMetres", "Width", 0.02, 0.2),
    length("offsetMetres", "Hub face down to the edge", 0, 0.1),
    choice("lift", "Lift", LIFTS),
    choice("turns", "Turns, from above", ["clockwise", "anticlockwise"]),
  ],
  bedknife: [
    length("widthMetres", "Length along the unit", 0.1, 2),
    length("thicknessMetres", "Lip's thickness", 0.0005, 0.03, "fine"),
    length("depthMetres", "Stock front to back", 0.001, 0.1, "fine"),
    length("fromHeightMetres", "Made for heights from", 0.001, 0.2, "fine"),
    length("toHeightMetres", "Made for heights to", 0.001, 0.2, "fine"),
  ],
  reel: [
    length("widthMetres", "Length along the unit", 0.1, 2),
    length("diameterMetres", "Diameter, new", 0.05, 0.4, "fine"),
    number("blades", "Blades", 3, 20, { isWhole: true }),
  ],
  belt: [length("lengthMetres", "Length, as it is sold", 0.2, 20)],
  roller: [length("widthMetres", "Length along the unit", 0.1, 2), choice("roller", "Roller", ROLLER_KINDS)],
  bolt: [
    length("diameterMetres", "Diameter", 0.004, 0.04),
    length("headMetres", "Head, over the flats", 0.006, 0.06),
    choice("grade", "Grade", BOLT_GRADES),
    choice("thread", "Thread", ["right", "left"]),
  ],
  bearing: [
    length("boreMetres", "Bore", 0.004, 0.2, "fine"),
    length("outsideMetres", "Outside", 0.01, 0.4, "fine"),
    length("widthMetres", "Width", 0.002, 0.1, "fine"),
  ],
  other: [],
};

const WEARS: readonly FieldSpec[] = [
  number("sharpeningCost", "Cost of sharpening or grinding one", 0, 10_000),
  number("fittingCost", "Cost of fitting one", 0, 10_000),
  number("hoursPerEdge", "Hours an edge lasts", 0.5, 2000, { unit: "h" }),
  number("sharpenings", "Sharpenings it stands", 0, 100, { isWhole: true }),
];
const STOCK: readonly FieldSpec[] = [
  text("supplier", "Supplier", 80),
  number("price", "Price of one", 0, 100_000),
  text("currency", "In", 3),
  number("lowMark", "To buy under", 0, 1000, { isWhole: true }),
  text("notes", "Note", 500),
];

/** What is typed of a part of a kind: what decides whether it fits, what it costs, when to buy. */
export const partFields = (kind: PartKind): { sizes: readonly FieldSpec[]; stock: readonly FieldSpec[] } => ({
  sizes: SIZES[kind],
  stock: [...STOCK, ...(kind === "blade" || kind === "bedknife" || kind === "reel" ? WEARS : [])],
});
