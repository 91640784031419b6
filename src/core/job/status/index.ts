export { goneBetween, type HeldReason, heldReasons } from "./held-reasons";
export type { LogEntry, LogLine, TakenLine } from "./log";
export {
  type Apart,
  isIn,
  type MachineState,
  machineState,
  type Odd,
  type OnBench,
  type OpenPlace,
  offBench,
  placesOpen,
  type Stands,
  type Struck,
} from "./machine-state";
export { type Clearing, type MayRun, mayRun, type Purpose, type RunReason } from "./may-run";
export { BELT_SEATED, putBackPoints, type ToPutBack, TURNED } from "./put-back";
export { isAtRest } from "./rest";
export { isBroken, isLetGoByWord, type Released, type Unsafe } from "./unsafe";
