export {
  type Answers,
  caseOfJob,
  complainedOf,
  type JobCase,
  type Mend,
  type SaidLooks,
  type SecondLook,
  type SymptomStanding,
  spokenFor,
} from "./case";
export { type DeckContext, deckContext } from "./context";
export { isFromBeforeClosing, type JobState, liveSteps, type Step, type StepKind, stateOf, undoable } from "./fold";
export {
  type FixRecord,
  type OwedDetail,
  type Proof,
  type ProofArgs,
  type ProofGap,
  READ_OF_THE_CUT,
  type TakeRecord,
  workOutProof,
} from "./proof";
export {
  askedForItself,
  CUT_DRIVERS,
  CUT_DRYNESS,
  CUT_HEIGHTS,
  CUT_LIGHTS,
  CUT_LOOKS,
  CUT_PATCHES,
  CUT_TURFS,
  type CutDoubt,
  type CutGrade,
  type CutWanted,
  doubtsOf,
  gradeCut,
  isSeenInGrass,
  SYMPTOM_NOW,
  type TestCut,
} from "./test-cut";
