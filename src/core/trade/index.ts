export { CAUSES, type CauseId, type CauseRow, causesNow, type Prior, type Strength } from "./causes";
export { CHECKS, type CheckId, type CheckRow, type CheckState } from "./checks";
export { CONTEXTS, type ContextId } from "./contexts";
export { EVENT_IDS, EVENTS, type EventId, type EventRow, isByUnit } from "./events";
export { FIGURES } from "./figures";
export { FIX_LABELS, FIXES, type FixId, type FixRow, fixRow, GRINDS_KNIFE, SPINS_REEL } from "./fixes";
export { SYMPTOMS, type Symptom, type SymptomId } from "./symptoms";
export { WAYS, type Way } from "./ways";
