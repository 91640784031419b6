export { inOrderOfTime, isAhead, LONGEST_EDGE_HOURS, type MeterReading, meterAt, meterIn, overdueContexts } from "./overdue";
export {
  type LoggedEvent,
  largestMovement,
  type Movement,
  NOTICED_MOVEMENT_METRES,
  type StaleReason,
  staleReasons,
  staleReasonsAt,
  tickedContexts,
} from "./stale";
export { type StruckTake, underSuspicion } from "./strike";
