export {
  cutters,
  cuttingEdges,
  cuttingWidth,
  DIRECTIONS,
  type Direction,
  isRider,
  pointOf,
  powerOf,
  referenceSpindle,
  spindlesAcross,
  tipAt,
} from "./geometry";
export { type Machine, type MachineHanger, type MachineInput, machineSchema, type Spindle, type Wheel } from "./schema";
export { STANDPOINT_LABELS, type Standpoint, seenFrom, turnSeenFrom } from "./standpoint";
