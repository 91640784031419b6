export { LOOKS, type Look, makeNoise, type Noise, PATCH, SWATH_METRES, type TurfPoint, turfAt } from "./looks";
export { type CutPoint, cutSection, ledgeBetweenPasses, type PassWay, SECTION_STEP_METRES } from "./section";
