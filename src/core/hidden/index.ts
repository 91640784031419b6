export { drawSeverity, type Fault, MODELLED, putIn, UNLISTED, unlistedFault } from "./faults";
export { cutOf, ledgeOf, oddBladeOf, overlapOf, shakeOf, speedsOf, tipHeight } from "./forward";
export { readingsOf } from "./gauges";
export { type LinkOf, looksOf, physicalLooks, strengthOf } from "./noticed";
export { CAREFUL, CARELESS, type Hand } from "./reader";
export { type HiddenState, NO_SPREAD, type Spread, soundState, spreadFrom, type World } from "./state";
