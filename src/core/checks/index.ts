export { type AssessOutcome, assessWith, checkRow, isOffered, kindsFor, readingsAlone } from "./assess";
export type { AttitudeDetail } from "./bedknife-attitude";
export type { BeltReadings } from "./belt-inspection";
export type { BalanceDetail, BalanceReadings } from "./blade-balance";
export type { EdgeDetail, EdgeReadings } from "./blade-edge";
export type { FitDetail, FitReadings } from "./blade-fit";
export type { OverlapDetail, OverlapReadings } from "./blade-overlap";
export { asFitted, type TimingDetail, type TimingReadings, timedPair } from "./blade-timing";
export type { Track, TrackReadings } from "./blade-track";
export { type HeightDetail, type HeightReadings, heightReadingsSchema } from "./cutting-height";
export type { CleanlinessReadings } from "./deck-cleanliness";
export {
  allStations,
  type DeckDetail,
  type DeckReadings,
  deckLevel,
  deckReadingsSchema,
  fullForm,
  quickForm,
  stationKey,
  type TipDetail,
  type TipStation,
  twistForm,
} from "./deck-level";
export { SIDE_TOLERANCE_METRES } from "./deck-level/rules";
export { type Field, type Form, type Group, keyOf, packReadings, type QuantityAsked, type ReadingRow, readAt, rowsOf } from "./form";
export type { GearboxReadings } from "./gearbox-inspection";
export type { GroundSpeedDetail } from "./ground-speed";
export { assessLook, LOOK_PLACE, LOOK_RESULTS, type LookDetail, type Looked, type LookResult, STOPS_WHEN_SEEN } from "./look";
export type { PassDetail } from "./pass-overlap";
export type { ConeDetail } from "./reel-cone";
export type { ContactDetail, ContactReadings, UnitContact } from "./reel-contact";
export type { ReelSpeedDetail } from "./reel-speed";
export { assessCheck, WORKSHEETS, worksheetById, worksheetsFor } from "./registry";
export type { PositionDetail } from "./roller-position";
export type { SquareDetail } from "./roller-square";
export type { PlayReadings } from "./spindle-play";
export { type SpeedDetail, type SpeedReadings, tipSpeedCheck } from "./tip-speed";
export { hasClutch } from "./tip-speed/form";
export { tryOut } from "./try-out";
export type { TurfDetail, TurfReadings } from "./turf-condition";
export type { Action, Assessment, Check, Mark, Of, ReadingProblem, Said, Saying, Told, Trend, Want } from "./types";
export { frameOn, PRESSURE_TOLERANCE_PASCALS, type TyreDetail, type TyreReadings, targetPressure, tyrePressure } from "./tyre-pressure";
export { type LayoutDetail, rollerLines } from "./unit-layout";
export {
  ALIKE_WITHIN,
  type MatchDetail,
  matchReadingsSchema,
  matrixOf as unitMatrix,
  PROPERTIES as UNIT_PROPERTIES,
  type Property as UnitProperty,
  type UnitRead,
} from "./unit-match";
export type { VibrationDetail } from "./vibration-reading";
