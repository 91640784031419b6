export { AFTERMATH_IDS, type AftermathId, aftermathOf, deckOffs } from "./aftermath";
export { type Answers, caseOfJob, type JobCase, type SymptomStanding } from "./case";
export { type DeckContext, deckContext } from "./context";
export { type JobState, liveSteps, type Step, type StepKind, stateOf, undoable } from "./fold";
export {
  CUT_LOOKS,
  CUT_TURFS,
  type CutGrade,
  type FixRecord,
  gradeCut,
  type Proof,
  type ProofGap,
  type TakeRecord,
  type TestCut,
  workOutProof,
} from "./proof";
