import { featuresOf } from "@/core/kinds";
import type { Machine } from "@/core/machine";
import { BOLT_GRADES, HOLE_SHAPES, LIFTS, ROLLER_KINDS } from "@/core/machine";
import { CONTACT_SCHOOLS } from "@/core/reel";
import type { Dimension, Instrument, QuantityRange } from "@/core/units";

/** One value of a machine's sheet as somebody types it. `path` is within its place, or within the machine. */
export type FieldSpec = { path: readonly string[]; label: string } & (
  | { kind: "quantity"; dimension: Dimension; instrument: Instrument; range: QuantityRange }
  | { kind: "number"; least: number; most: number; unit?: string; isWhole?: boolean }
  | { kind: "choice"; options: readonly string[] }
  | { kind: "flag" }
  | { kind: "text"; most: number }
  /** One a line. */
  | { kind: "lines"; most: number; letters: number }
);

/** `key`: the path with members named by their id, as whose word it is and differences are kept; `at`: the place it belongs to, or the sheet's part. */
export type SheetField = FieldSpec & { key: string; at: string };

const length = (path: string, label: string, range: QuantityRange, instrument: Instrument = "gauge"): FieldSpec => ({
  kind: "quantity",
  path: path.split("."),
  label,
  dimension: "length",
  instrument,
  range,
});
const pressure = (path: string, label: string): FieldSpec => ({
  kind: "quantity",
  path: [path],
  label,
  dimension: "pressure",
  instrument: "gauge",
  range: { least: 20_000, most: 600_000, usualLeast: 40_000, usualMost: 300_000 },
});
const number = (path: string, label: string, limits: { least: number; most: number; unit?: string; isWhole?: boolean }): FieldSpec => ({
  kind: "number",
  path: path.split("."),
  label,
  ...limits,
});
const choice = (path: string, label: string, options: readonly string[]): FieldSpec => ({
  kind: "choice",
  path: path.split("."),
  label,
  options,
});
const flag = (path: string, label: string): FieldSpec => ({ kind: "flag", path: path.split("."), label });
const text = (path: string, label: string, most: number): FieldSpec => ({ kind: "text", path: path.split("."), label, most });
const lines = (path: string, label: string): FieldSpec => ({ kind: "lines", path: path.split("."), label, most: 8, letters: 80 });
const turns = (path: string, label: string): FieldSpec => ({
  kind: "quantity",
  path: path.split("."),
  label,
  dimension: "rotation",
  instrument: "gauge",
  range: { least: 50, most: 20_000, usualLeast: 300, usualMost: 8000 },
});

const PLACE: readonly FieldSpec[] = [
  length("xMetres", "Across, right is plus", { least: -4, most: 4 }),
  length("yMetres", "Along, forward is plus", { least: -6, most: 6 }),
];
const NAME = text("label", "Called", 60);

const WHEEL: readonly FieldSpec[] = [
  NAME,
  ...PLACE,
  length("diameterMetres", "Diameter", { least: 0.05, most: 2, usualLeast: 0.12, usualMost: 1 }),
  length("treadWidthMetres", "Tread width", { least: 0.01, most: 1.2, usualLeast: 0.03, usualMost: 0.5 }),
  flag("isPneumatic", "Air-filled"),
];
const AIR: readonly FieldSpec[] = [
  pressure("sheetPressurePascals", "Pressure wanted"),
  pressure("leastPressurePascals", "Least pressure"),
  pressure("mouldedMaximumPascals", "Moulded on the tyre: its maximum"),
  length("sectionHeightMetres", "Height of the tyre's section", { least: 0.01, most: 0.6, usualLeast: 0.03, usualMost: 0.25 }),
];
const SPINDLE: readonly FieldSpec[] = [
  NAME,
  ...PLACE,
  length("tipCircleDiameterMetres", "Tip circle, corner to corner", { least: 0.1, most: 1.6, usualLeast: 0.3, usualMost: 0.8 }),
  choice("turns", "Turns, from above", ["clockwise", "anticlockwise"]),
];
const HANGER: readonly FieldSpec[] = [
  NAME,
  ...PLACE,
  length("liftPerTurnMetres", "Lift per turn (or per hole)", { least: 0.0001, most: 0.1, usualLeast: 0.0008, usualMost: 0.02 }, "fine"),
  choice("step", "Moves by", ["flat", "quarter", "half", "hole"]),
  number("turnsLeftUp", "Turns left up", { least: 0, most: 60 }),
  number("turnsLeftDown", "Turns left down", { least: 0, most: 60 }),
  choice("upIs", "Deck up is, from above", ["clockwise", "anticlockwise"]),
  text("head", "Its head, for the wrench", 60),
];
const RIM: readonly FieldSpec[] = [NAME, ...PLACE];
const UNIT: readonly FieldSpec[] = [
  NAME,
  ...PLACE,
  length("widthMetres", "Width of cut", { least: 0.1, most: 2, usualLeast: 0.4, usualMost: 1 }),
];

const BOX: readonly FieldSpec[] = [
  NAME,
  ...PLACE,
  text("oil", "Oil", 60),
  length("coverToOilMetres", "Cover's face down to the oil", { least: 0.001, most: 0.4 }),
  number("splineTeeth", "Teeth of the spline that times it", { least: 3, most: 120, isWhole: true }),
  flag("isConnected", "Its oil runs into the next box"),
];

const fine = (path: string, label: string, least: number, most: number) => length(path, label, { least, most }, "fine");
const CUT: readonly FieldSpec[] = [
  length("sheet.heightLeastMetres", "Lowest height of cut", { least: 0.001, most: 0.25 }),
  length("sheet.heightMostMetres", "Highest height of cut", { least: 0.001, most: 0.25 }),
];
const DECK: readonly FieldSpec[] = [
  length("sheet.rakeTargetMetres", "Rake wanted, nose down is minus", { least: -0.03, most: 0.03 }),
  length("sheet.passOverlapMetres", "Overlap of passes", { least: 0, most: 0.6 }),
];
const BLADE: readonly FieldSpec[] = [
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
  number("sheet.blade.price", "Price of a blade", { least: 0, most: 10_000 }),
  number("sheet.blade.sharpeningCost", "Cost of sharpening one", { least: 0, most: 10_000 }),
  number("sheet.blade.hoursPerEdge", "Hours an edge lasts", { least: 0.5, most: 1000, unit: "h" }),
];
const DRIVE: readonly FieldSpec[] = [
  turns("sheet.drive.engineRevolutionsPerMinute", "Input at full throttle"),
  turns("sheet.blade.ratedRevolutionsPerMinute", "Blade at full throttle"),
];
const RATIO = number("sheet.drive.toothRatio", "Blade turns for one of the input", { least: 0.05, most: 20 });
const SAFETY: readonly FieldSpec[] = [
  lines("sheet.jackingPoints", "Lifted at, one a line, in its manual's words"),
  lines("sheet.isolationPoints", "Isolated at, one a line, in the order of its lock-out"),
  text("sheet.tipSide", "Tipped how, which side up", 120),
  flag("sheet.standsOnEnd", "Made to stand on its end"),
];
const PACK = number("sheet.capacitorWaitSeconds", "Wait after the pack is out", { least: 0, most: 7200, unit: "s" });
const GREASE: readonly FieldSpec[] = [
  choice("sheet.grease.school", "Grease", ["by-hours", "leave-sealed"]),
  number("sheet.grease.topUpHours", "Top up every", { least: 1, most: 2000, unit: "h" }),
  number("sheet.grease.purgeHours", "Purge every", { least: 1, most: 5000, unit: "h" }),
];
const REEL: readonly FieldSpec[] = [
  number("sheet.unit.reel.blades", "Blades of a reel", { least: 3, most: 20, isWhole: true }),
  fine("sheet.unit.reel.newDiameterMetres", "Reel's diameter, new", 0.05, 0.4),
  fine("sheet.unit.reel.scrapDiameterMetres", "Reel is scrap under", 0.05, 0.4),
  text("sheet.unit.bedknife.type", "Bedknife", 40),
  fine("sheet.unit.bedknife.thicknessMetres", "Knife's lip, new", 0.0005, 0.03),
  fine("sheet.unit.bedknife.leastThicknessMetres", "Knife's lip, least", 0.0003, 0.03),
  number("sheet.unit.bedknife.hoursBetweenGrinds", "Hours between grinds", { least: 1, most: 2000, unit: "h" }),
  choice("sheet.unit.frontRoller.kind", "Front roller", ROLLER_KINDS),
  choice("sheet.unit.rearRoller.kind", "Rear roller", ROLLER_KINDS),
  choice("sheet.unit.groomer", "Groomer or brush", ["none", "groomer", "brush"]),
  choice("sheet.unit.school", "Reel to bedknife", CONTACT_SCHOOLS),
  fine("sheet.unit.adjusters.knifeThrowMetres", "Knife screw, a turn moves", 0.00005, 0.02),
  fine("sheet.unit.adjusters.heightThrowMetres", "Height screw, a turn moves", 0.00005, 0.02),
  fine("sheet.unit.adjusters.squareThrowMetres", "Squaring adjuster, a turn moves", 0.00005, 0.02),
  turns("sheet.reelDrive.revolutionsPerMinute", "Reel's speed"),
  flag("sheet.reelDrive.isGroundDriven", "Reels driven by the ground"),
];
const side = (part: "front" | "rear" | "edge" | "reel" | "heel" | "toe", label: string): FieldSpec[] =>
  (["yMetres", "zMetres"] as const).map((axis) =>
    fine(`sheet.unit.sideView.${part}.${axis}`, `${label}, ${axis === "yMetres" ? "forward" : "up"}`, -0.6, 0.6),
  );
/** Any origin fixed to the unit, forward and up: all of rollers and edge, or nothing. */
const SIDE_VIEW: readonly FieldSpec[] = [
  ...side("front", "Front roller"),
  fine("sheet.unit.sideView.front.radiusMetres", "Front roller's radius", 0.005, 0.2),
  ...side("rear", "Rear roller"),
  fine("sheet.unit.sideView.rear.radiusMetres", "Rear roller's radius", 0.005, 0.2),
  ...side("edge", "Knife's edge"),
  ...side("reel", "Reel's middle"),
  ...side("heel", "Heel"),
  ...side("toe", "Toe"),
];
const NOTE = text("sheet.notes", "Note", 2000);

/** Parts of a sheet that belong to no one place. */
export type SheetPart = "cut" | "blade" | "drive" | "safety" | "service" | "unit" | "side-view" | "note";

const partFields = (part: SheetPart, specs: readonly FieldSpec[]): SheetField[] =>
  specs.map((spec) => ({ ...spec, at: part, key: spec.path.join(".") }));

/** Lists of places and what each of them says. */
export type PlaceSort = "wheels" | "spindles" | "units" | "hangers" | "antiScalpWheels" | "gearboxes";
const LISTS: Readonly<Record<PlaceSort, readonly string[]>> = {
  wheels: ["wheels"],
  spindles: ["spindles"],
  units: ["units"],
  hangers: ["deck", "hangers"],
  antiScalpWheels: ["deck", "antiScalpWheels"],
  gearboxes: ["sheet", "gearboxes"],
};
const OF_PLACE: Readonly<Record<PlaceSort, readonly FieldSpec[]>> = {
  wheels: WHEEL,
  spindles: SPINDLE,
  units: UNIT,
  hangers: HANGER,
  antiScalpWheels: RIM,
  gearboxes: BOX,
};

export type SheetPlace = { sort: PlaceSort; id: string; label: string; xMetres: number; yMetres: number };

/** Every place of a machine that can be dragged about on its plan. */
export function sheetPlaces(machine: Machine): SheetPlace[] {
  const named = (sort: PlaceSort, all: readonly { id: string; label: string; xMetres: number; yMetres: number }[]) =>
    all.map(({ id, label, xMetres, yMetres }) => ({ sort, id, label, xMetres, yMetres }));
  return [
    ...named("spindles", machine.spindles),
    ...named("units", machine.units),
    ...named("hangers", machine.deck?.hangers ?? []),
    ...named("antiScalpWheels", machine.deck?.antiScalpWheels ?? []),
    ...named("wheels", machine.wheels),
    ...named("gearboxes", machine.sheet.gearboxes ?? []),
  ];
}

export const placeKey = ({ sort, id }: Pick<SheetPlace, "sort" | "id">, ...path: readonly string[]): string =>
  [...LISTS[sort], id, ...path].join(".");

/** Every value of a machine's sheet that can be typed, place by place, then part by part. */
export function fieldsOf(machine: Machine): SheetField[] {
  const ofPlaces = sheetPlaces(machine).flatMap((place): SheetField[] => {
    const isAir = place.sort === "wheels" && machine.wheels.find(({ id }) => id === place.id)?.isPneumatic === true;
    return [...OF_PLACE[place.sort], ...(isAir ? AIR : [])].map((spec) => ({ ...spec, at: place.id, key: placeKey(place, ...spec.path) }));
  });
  const features = featuresOf(machine);
  const isRotary = machine.spindles.length > 0;
  return [
    ...ofPlaces,
    ...partFields("cut", [...CUT, ...(isRotary ? DECK : [])]),
    ...(isRotary ? partFields("blade", BLADE) : [...partFields("unit", REEL), ...partFields("side-view", SIDE_VIEW)]),
    ...(isRotary ? partFields("drive", [...DRIVE, ...(features.includes("gears") ? [RATIO] : [])]) : []),
    ...partFields("safety", [...SAFETY, ...(features.includes("battery") ? [PACK] : [])]),
    ...(isRotary && !features.includes("direct-drive") ? partFields("service", GREASE) : []),
    ...partFields("note", [NOTE]),
  ];
}

type Loose = Record<string, unknown>;
const isLoose = (value: unknown): value is Loose => typeof value === "object" && value !== null && !Array.isArray(value);
const named = (list: readonly unknown[], id: string) => list.findIndex((one) => isLoose(one) && one.id === id);

/** What stands at a key; `undefined` where nothing does. */
export function valueAt(machine: unknown, key: string): unknown {
  return key.split(".").reduce<unknown>((at, part) => {
    if (Array.isArray(at)) return at[named(at, part)];
    return isLoose(at) && Object.hasOwn(at, part) ? at[part] : undefined;
  }, machine);
}

/**
 * The machine with another value at a key; `undefined` takes it away, and with it what then holds nothing. A member of a list that is not there is not made
 * up: the machine comes back as it was.
 */
export function withValue<M>(machine: M, key: string, value: unknown): M {
  const next = put(machine, key.split("."), value);
  // The sheet itself stays, however little is on it.
  return (isLoose(next) && isLoose(machine) && isLoose(machine.sheet) && next.sheet === undefined ? { ...next, sheet: {} } : next) as M;
}

function put(at: unknown, [part, ...rest]: readonly string[], value: unknown): unknown {
  if (part === undefined) return value;
  if (Array.isArray(at)) {
    const k = named(at, part);
    return k < 0 ? at : at.map((one, i) => (i === k ? put(one, rest, value) : one));
  }
  const before = isLoose(at) ? at : {};
  const next = put(Object.hasOwn(before, part) ? before[part] : undefined, rest, value);
  if (next !== undefined) return { ...before, [part]: next };
  const { [part]: _, ...left } = before;
  return Object.keys(left).length === 0 ? undefined : left;
}
