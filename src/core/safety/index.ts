export { CHECK_CAUTIONS, DEFER, FIX_CAUTIONS, RETURN_TO_SERVICE, TEST_CUT_CAUTION } from "./cautions";
export {
  type Answer,
  type Answers,
  answerSchema,
  type ConfirmationOutcome,
  type Confirmed,
  judgeConfirmation,
  stateInForce,
} from "./confirmation";
export { itemsFor, type SafeState, type SafetyItem, satisfies } from "./states";
