export { gearboxes } from "./gearboxes";
export {
  cutters,
  cuttingEdges,
  cuttingWidth,
  DIRECTIONS,
  type Direction,
  isRider,
  pointOf,
  powerOf,
  referenceSpindle,
  spindlesAcross,
  tipAt,
} from "./geometry";
export { type PlaceSort, placesBySort, placesOf } from "./places";
export {
  type AntiScalpWheel,
  type BladeSheet,
  BOLT_GRADES,
  type BoltGrade,
  FACINGS,
  type Gearbox,
  HOLE_SHAPES,
  type HoleShape,
  LIFTS,
  type Machine,
  type MachineHanger,
  type MachineInput,
  machineSchema,
  type Pulley,
  type ReelMachine,
  ROLLER_KINDS,
  type RotaryMachine,
  SHEET_WORDS,
  type SheetWord,
  type Spindle,
  STACK_PARTS,
  type StackPart,
  type Unit,
  type UnitSheet,
  type Wheel,
} from "./schema";
export { isPlaceOf, type SheetProblem, type SheetProblemCode, sheetProblems } from "./sheet-problems";
export { STANDPOINT_LABELS, type Standpoint, seenFrom, turnSeenFrom } from "./standpoint";
export {
  type Bracket,
  benchHeight,
  bracketFor,
  cuttersOf,
  heightEndOf,
  nearestBracket,
  reelBladesOf,
  schoolOf,
  unitSheetOf,
  unitsAcross,
  withSheet,
} from "./units";
export { SHEET_SCHEMA_VERSION, storedSheet, upcastSheet } from "./upcast";
export { wordOf } from "./words";
