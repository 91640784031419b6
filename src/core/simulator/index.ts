export { drawSeverity, type Fault, MODELLED, putIn, UNLISTED, unlistedFault } from "./faults";
export { cutOf, ledgeOf, oddBladeOf, overlapOf, shakeOf, speedsOf, tipHeight } from "./forward";
export { readingsOf } from "./gauges";
export { type LinkOf, looksOf, physicalLooks, strengthOf } from "./noticed";
export { CAREFUL, CARELESS, type Hand } from "./reader";
export { NO_SPREAD, type Spread, spreadFrom, type World } from "./spread";
export { type HiddenState, soundState } from "./state";
