export { CLEARANCE } from "./anti-scalp-wheels";
export { STOCK_PER_GRIND_METRES } from "./blade-edge";
export { TRACK_TOLERANCE_METRES } from "./blade-track";
export { HEIGHT_TOLERANCE } from "./cutting-height";
export { MOST_PACK_METRES } from "./deck-cleanliness";
export { SHARP_EDGE_METRES } from "./ground-speed";
export { MOST_BEFORE_TO_CUT } from "./turf-condition";
