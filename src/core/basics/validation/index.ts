export { DIGEST, RECORD_HEADER } from "./names";
export { MOST_DEEP, type ShapeProblem, shapeProblem, type UnknownKey, unknownKeys } from "./unknown-keys";
