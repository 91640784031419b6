export {
  allStations,
  type DeckDetail,
  type DeckReadings,
  deckReadingsSchema,
  fullForm,
  quickForm,
  stationKey,
  type TipDetail,
  type TipStation,
  twistForm,
} from "./deck-level";
export { SIDE_TOLERANCE_METRES } from "./deck-level/rules";
export { type AssessOutcome, assessCheck, checkRow, isOffered, kindsFor, WORKSHEETS, worksheetById } from "./registry";
export type { SpeedDetail, SpeedReadings } from "./tip-speed";
export type { Action, Assessment, Check, ReadingProblem } from "./types";
export { frameOn, PRESSURE_TOLERANCE_PASCALS, type TyreDetail, type TyreReadings, targetPressure } from "./tyre-pressure";
