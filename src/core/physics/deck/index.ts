export { correctForFloor, type FloorMap, type HeightDatum, wheelPlane } from "./floor";
export {
  type BladeReading,
  compareModels,
  type DeckModel,
  decisiveModel,
  expectedHeight,
  type FittedModel,
  tellModelsApart,
} from "./models";
export { bestNextStation, farthestStation, type Station } from "./next-reading";
export {
  cutHeightAtCentre,
  type DeckIssue,
  type DeckPlane,
  fitDeckPlane,
  READING_REPEATABILITY_METRES,
  REPEATABILITY_WEIGHT,
  rakeOf,
  type Slope,
  sideOf,
} from "./plane-fit";
export {
  type AdjusterStep,
  type DeckSpan,
  type DeckTarget,
  exactTurns,
  type Hanger,
  type HangerTurn,
  planTurns,
  rulerAfter,
  STEP_TURNS,
  scoreTurns,
  type TurnPlan,
  targetPlane,
} from "./turns";
