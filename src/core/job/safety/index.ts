export { type Answer, type Answers, allYes, answerSchema, type ConfirmationOutcome, isSubstantial, judgeAnswers } from "./confirmation";
export {
  firm,
  isLockOut,
  itemsFor,
  SAFE_STATES,
  type SafeState,
  type SafetyItem,
  type SafetyMachine,
  satisfies,
  soft,
  statesOf,
} from "./states";
export { stopsMowing } from "./stop-mowing";
