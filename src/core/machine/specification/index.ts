export { DRAWN, isSameValue, mergedSheets, type SheetDifference, sheetDifferences } from "./differences";
export {
  fieldsOf,
  type PlaceSort,
  placeKey,
  type SheetField,
  type SheetPart,
  type SheetPlace,
  sheetPlaces,
  valueAt,
  withValue,
} from "./fields";
export { type Missing, type MissingCode, missingOf } from "./missing";
export { SCHOOLS, type School, schoolById, schoolFollowed, withSchool } from "./schools";
export { GRID_METRES, SNAP_METRES, type Snapped, snapped } from "./snap";
export type { Column, FieldSpec, TableId } from "./spec";
export { type Row, readParts, TABLE_ROWS, UNSEEN } from "./tables";
export { outlineAround, TEMPLATES, type TemplateRange, type TemplateWish, templateMachine, tipCircleFor } from "./templates";
export { UNIT_PART_IDS, type UnitPart } from "./unit-specs";
