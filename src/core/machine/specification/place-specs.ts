import { angle, choice, type FieldSpec, flag, length, number, pressure, text } from "./spec";

export const PLACE: readonly FieldSpec[] = [
  length("xMetres", "Across, right is plus", { least: -4, most: 4 }),
  length("yMetres", "Along, forward is plus", { least: -6, most: 6 }),
];
export const NAME = text("label", "Called", 60);

export const WHEEL: readonly FieldSpec[] = [
  NAME,
  ...PLACE,
  length("diameterMetres", "Diameter", { least: 0.05, most: 2, usualLeast: 0.12, usualMost: 1 }),
  length("treadWidthMetres", "Tread width", { least: 0.01, most: 1.2, usualLeast: 0.03, usualMost: 0.5 }),
  flag("isPneumatic", "Air-filled"),
  flag("isDriven", "Driven"),
];
export const AIR: readonly FieldSpec[] = [
  pressure("sheetPressurePascals", "Pressure wanted"),
  pressure("leastPressurePascals", "Least pressure"),
  pressure("mouldedMaximumPascals", "Moulded on the tyre: its maximum"),
  length("sectionHeightMetres", "Height of the tyre's section", { least: 0.01, most: 0.6, usualLeast: 0.03, usualMost: 0.25 }),
];
export const SPINDLE: readonly FieldSpec[] = [
  NAME,
  ...PLACE,
  length("tipCircleDiameterMetres", "Tip circle, corner to corner", { least: 0.1, most: 1.6, usualLeast: 0.3, usualMost: 0.8 }),
  choice("turns", "Turns, from above", ["clockwise", "anticlockwise"]),
];
export const HANGER: readonly FieldSpec[] = [
  NAME,
  ...PLACE,
  length("liftPerTurnMetres", "Lift per turn (or per hole)", { least: 0.0001, most: 0.1, usualLeast: 0.0008, usualMost: 0.02 }, "fine"),
  choice("step", "Moves by", ["flat", "quarter", "half", "hole"]),
  number("turnsLeftUp", "Turns left up", { least: 0, most: 60 }),
  number("turnsLeftDown", "Turns left down", { least: 0, most: 60 }),
  choice("upIs", "Deck up is, from above", ["clockwise", "anticlockwise"]),
  text("head", "Its head, for the wrench", 60),
];
export const RIM: readonly FieldSpec[] = [NAME, ...PLACE];
export const UNIT: readonly FieldSpec[] = [
  NAME,
  ...PLACE,
  length("widthMetres", "Width of cut", { least: 0.1, most: 2, usualLeast: 0.4, usualMost: 1 }),
  angle("yawRadians", "Out of square, right end forward is plus"),
];

export const BOX: readonly FieldSpec[] = [
  NAME,
  ...PLACE,
  text("oil", "Oil", 60),
  length("coverToOilMetres", "Cover's face down to the oil", { least: 0.001, most: 0.4 }),
  number("splineTeeth", "Teeth of the spline that times it", { least: 3, most: 120, isWhole: true }),
  flag("isConnected", "Its oil runs into the next box"),
];

const named = (id: string) => id.charAt(0).toUpperCase() + id.slice(1).replaceAll("-", " ");
const ofAxles = (label: string, axles: readonly string[]): FieldSpec =>
  choice("axle", label, axles, Object.fromEntries(axles.map((axle) => [axle, named(axle)])));
/** Wheels of one axle are compared with each other: those there are, and one more. */
export const axleOf = (axles: readonly string[]): FieldSpec => ofAxles("Of the axle", [...new Set([...axles, "front", "rear", "other"])]);
/** Where an axle that rocks carries the frame: on one point instead of on two wheels. */
export const pivotsOf = (axles: readonly string[]): FieldSpec => ({
  kind: "table",
  path: ["pivotedAxles"],
  label: "Axles that rock on a pivot",
  table: "pivots",
  row: "axle",
  most: 2,
  columns: [ofAxles("Axle", [...new Set(axles)]), ...PLACE].map((column) => ({ ...column, isNeeded: true })),
});
/** The wheel that belongs in the same hole as this one. */
export const twinOf = (others: readonly { id: string; label: string }[]): FieldSpec =>
  choice(
    "twin",
    "Same hole as",
    others.map(({ id }) => id),
    Object.fromEntries(others.map(({ id, label }) => [id, label])),
  );
