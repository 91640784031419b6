export { MOST_DEEP, type ShapeProblem, shapeProblem, type UnknownKey, unknownKeys } from "./unknown-keys";
