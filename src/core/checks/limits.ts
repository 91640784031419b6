export { STOCK_PER_GRIND_METRES } from "./blade-edge";
export { LEAST_TIMED_GAP_METRES } from "./blade-timing";
export { HEIGHT_TOLERANCE } from "./cutting-height";
export { SHARP_EDGE_METRES } from "./ground-speed";
