export { gammaOfMeanOne, gaussian, namedRandom, pickOne, seededRandom } from "./seeded";
