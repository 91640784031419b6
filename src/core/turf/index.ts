export { type CutPoint, cutSection, ledgeBetweenPasses, SECTION_STEP_METRES } from "./section";
