export { type Advice, adviceOn, TIE_ODDS, tiedLeaders } from "./advice";
export type { Case, SymptomState } from "./case";
export { contradictionIn } from "./context";
export {
  type Diagnosis,
  diagnose,
  EXPLAINED_LEVEL,
  NOTHING_EXPLAINS_LEVEL,
  type RankedCause,
  type SymptomExplained,
  WORTH_A_LOOK_LEVEL,
} from "./diagnose";
export type { CaseEvidence } from "./evidence";
export { allFeatures, type CauseGroup, groupOf, type Knowledge, type KnownCause, type KnownCheck, knowledgeOf } from "./knowledge";
export { MOST_FINDINGS } from "./network";
export { type CheckOrder, type NextCheck, type Plan, planChecks, tellApart } from "./next-checks";
export { meaningOf, type PlaceMeaning, placeOdds, type SwathPlace } from "./place";
export { type Question, telephoneRound } from "./questions";
export type { Reason } from "./reasons";
export { answerDiagnose, type DiagnoseAnswer, type DiagnoseRequest, diagnoseRequestSchema, evidenceSchema } from "./request";
export { setUpMinutes } from "./set-up";
export { CAUSES, type CauseId, type CauseRow } from "./tables/causes";
export { CHECKS, type CheckId, type CheckRow, type CheckState } from "./tables/checks";
export { CONTEXTS, type ContextId } from "./tables/contexts";
export { EVENT_IDS, EVENTS, type EventId, type EventRow } from "./tables/events";
export { FIX_LABELS, FIXES, type FixId, type FixRow } from "./tables/fixes";
export { SYMPTOMS, type Symptom, type SymptomId } from "./tables/symptoms";
export { LIKELIHOODS, type Likelihood, likelihoodOf } from "./words";
export { questionsFor, type WorkUp, type WorkUpInput, workUp, workUpInputSchema } from "./work-up";
