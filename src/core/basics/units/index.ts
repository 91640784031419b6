export { formatFraction, formatQuantity, formatTurns, type Instrument, type Shown, shownUnit } from "./format";
export {
  judgeQuantity,
  type ParsedQuantity,
  parseQuantity,
  type QuantityIssue,
  type QuantityJudgement,
  type QuantityRange,
} from "./parse";
export {
  type Dimension,
  FOOT_METRES,
  fromSi,
  INCH_METRES,
  POUND_FORCE_NEWTONS,
  POUND_KILOGRAMS,
  PSI_PASCALS,
  STANDARD_GRAVITY,
  toSi,
  type UnitId,
  type UnitSystem,
  unitById,
} from "./table";
