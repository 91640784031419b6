import type { CheckId } from "@/core/catalogue";
import { featuresOf } from "@/core/catalogue/kinds";
import type { Machine } from "@/core/machine";
import { placeKey, valueAt } from "./fields";

/** What a value that is not on the sheet costs. */
export type MissingCode =
  | "no-pressure-target"
  | "no-tyre-effect"
  | "no-turns-only-lengths"
  | "no-torque-figure"
  | "no-length-to-compare"
  | "no-wear-limit"
  | "no-fit-compared"
  | "no-bolt-compared"
  | "no-speed-by-arithmetic"
  | "no-belt-path"
  | "usual-rake"
  | "no-height-range"
  | "no-dipstick"
  | "no-timing-step"
  | "no-deck-order"
  | "no-stack-to-compare"
  | "no-lifting-point"
  | "no-tip-side"
  | "no-reel-life"
  | "no-knife-life"
  | "no-side-view"
  | "no-bracket-table"
  | "no-knife-turns"
  | "no-clip-by-arithmetic"
  | "no-money";

/** `keys`: where it goes on the sheet, empty where it has a page of its own; `checks`: which worksheets do less without it. */
export type Missing = { code: MissingCode; keys: string[]; checks: CheckId[] };

type Rule = { code: MissingCode; checks: CheckId[]; keys: (machine: Machine) => string[]; isOpen: (machine: Machine) => boolean };

const unless = (key: string) => (machine: Machine) => (valueAt(machine, key) === undefined ? [key] : []);
const rotary = (machine: Machine) => machine.spindles.length > 0;
const reel = (machine: Machine) => machine.units.length > 0;
const has = (feature: ReturnType<typeof featuresOf>[number]) => (machine: Machine) => featuresOf(machine).includes(feature);
const airWheels = (path: string) => (machine: Machine) =>
  machine.wheels
    .filter(({ isPneumatic }) => isPneumatic)
    .map(({ id }) => placeKey({ sort: "wheels", id }, path))
    .filter((key) => valueAt(machine, key) === undefined);
const ofBoxes = (path: string) => (machine: Machine) =>
  (machine.sheet.gearboxes ?? [])
    .map(({ id }) => placeKey({ sort: "gearboxes", id }, path))
    .filter((key) => valueAt(machine, key) === undefined);
/** A rule that is open where its keys are missing. */
const byKeys = (code: MissingCode, checks: CheckId[], isFor: (machine: Machine) => boolean, keys: Rule["keys"]): Rule => ({
  code,
  checks,
  keys,
  isOpen: (machine) => isFor(machine) && keys(machine).length > 0,
});
const byPage = (code: MissingCode, checks: CheckId[], isOpen: Rule["isOpen"]): Rule => ({ code, checks, keys: () => [], isOpen });

/** The most costly first: what makes a worksheet unusable or a bolt unsafe before what only costs money. */
const RULES: readonly Rule[] = [
  byKeys("no-lifting-point", [], has("hangers"), unless("sheet.jackingPoints")),
  byKeys(
    "no-tip-side",
    [],
    (machine) => has("direct-drive")(machine) && has("combustion")(machine) && machine.sheet.standsOnEnd !== true,
    unless("sheet.tipSide"),
  ),
  byKeys("no-torque-figure", ["blade-fit"], rotary, unless("sheet.bladeBoltTorqueNewtonMetres")),
  byKeys("no-pressure-target", ["tyre-pressure"], has("air-tyres"), airWheels("sheetPressurePascals")),
  byKeys(
    "no-turns-only-lengths",
    ["deck-level"],
    (machine) => has("several-blades")(machine),
    (machine) =>
      (machine.deck?.hangers ?? [])
        .filter((one) => one.liftPerTurnMetres === undefined)
        .map(({ id }) => placeKey({ sort: "hangers", id }, "liftPerTurnMetres")),
  ),
  byKeys("no-length-to-compare", ["blade-fit", "blade-overlap", "blade-edge"], rotary, unless("sheet.blade.lengthMetres")),
  byKeys("no-fit-compared", ["blade-fit"], rotary, unless("sheet.blade.hole.shape")),
  byKeys("no-bolt-compared", ["blade-fit"], rotary, unless("sheet.blade.bolt.grade")),
  byKeys("no-wear-limit", ["blade-edge"], rotary, unless("sheet.blade.leastLengthMetres")),
  byKeys("no-speed-by-arithmetic", ["tip-speed"], rotary, unless("sheet.drive.engineRevolutionsPerMinute")),
  byPage("no-belt-path", ["belt-inspection", "tip-speed"], (machine) => rotary(machine) && has("belt")(machine) && !machine.sheet.belt),
  byKeys("no-dipstick", ["gearbox-inspection"], has("gears"), ofBoxes("coverToOilMetres")),
  byKeys("no-timing-step", ["blade-timing"], has("gears"), ofBoxes("splineTeeth")),
  byKeys(
    "no-height-range",
    ["cutting-height"],
    () => true,
    (machine) => [...unless("sheet.heightLeastMetres")(machine), ...unless("sheet.heightMostMetres")(machine)],
  ),
  byKeys("usual-rake", ["deck-level"], (machine) => has("several-blades")(machine), unless("sheet.rakeTargetMetres")),
  byKeys(
    "no-tyre-effect",
    ["tyre-pressure", "deck-level"],
    (machine) => has("air-tyres")(machine) && rotary(machine),
    airWheels("sectionHeightMetres"),
  ),
  byKeys("no-deck-order", [], has("hangers"), unless("sheet.deckOff")),
  byKeys("no-stack-to-compare", ["blade-fit"], rotary, unless("sheet.blade.stack")),
  byKeys("no-side-view", ["bedknife-attitude", "cutting-height", "groomer-depth"], reel, (machine) =>
    unless("sheet.unit.sideView")(machine).map((key) => `${key}.front.yMetres`),
  ),
  byKeys("no-clip-by-arithmetic", ["reel-speed"], reel, unless("sheet.reelDrive.revolutionsPerMinute")),
  byKeys("no-reel-life", ["reel-cone", "reel-edge"], reel, unless("sheet.unit.reel.newDiameterMetres")),
  byKeys("no-knife-life", ["reel-edge"], reel, unless("sheet.unit.bedknife.thicknessMetres")),
  byKeys("no-bracket-table", ["roller-position"], reel, unless("sheet.unit.brackets")),
  byKeys("no-knife-turns", ["reel-contact"], reel, unless("sheet.unit.adjusters.knifeThrowMetres")),
  byKeys("no-money", [], rotary, unless("sheet.blade.price")),
];

/** What a machine's sheet does not say, with what that costs, the most costly first. */
export function missingOf(machine: Machine): Missing[] {
  return RULES.filter(({ isOpen }) => isOpen(machine)).map(({ code, checks, keys }) => ({ code, checks, keys: keys(machine) }));
}
