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
export { type AssessOutcome, assessCheck, checkRow, isOffered, kindsFor, WORKSHEETS, worksheetById } from "./registry";
export type { Action, Assessment, Check, ReadingProblem } from "./types";
export { frameOn, type TyreDetail, type TyreReadings, targetPressure } from "./tyre-pressure";
