export { MOST_DEEP, shapeProblem, type UnknownKey, unknownKeys } from "./unknown-keys";
