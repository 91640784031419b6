export { measuredLikelihoodRatio } from "./likelihood";
export { logNormalCdf, logNormalDensity } from "./normal";
export { onePlaceOf } from "./one-place";
export { plusMinus95, studentT } from "./student";
export {
  type Evidence,
  type Figure,
  type Finding,
  type FoundCause,
  gravest,
  judgeDeviation,
  STANDINGS,
  type Standing,
  type Tolerance,
  VERDICTS,
  type Verdict,
} from "./types";
