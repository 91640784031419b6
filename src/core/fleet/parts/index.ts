export { partFields } from "./fields";
export { FIT_VERDICTS, type Fit, type FitReason, fitsMachine, isOfItsSort } from "./fits";
export { PART_KINDS, type Part, type PartKind, partSchema, SET_KINDS } from "./schema";
export { type SetEntry, type SetStanding, setStanding, sharpOn } from "./sets";
export { wantedBlade } from "./wanted";
