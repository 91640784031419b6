export { CAUSES, type CauseId, type CauseRow } from "./tables/causes";
export { CHECKS, type CheckId, type CheckRow, type CheckState } from "./tables/checks";
export { CONTEXTS, type ContextId } from "./tables/contexts";
export { EVENT_IDS, EVENTS, type EventId, type EventRow } from "./tables/events";
export { FIX_LABELS, FIXES, type FixId, type FixRow } from "./tables/fixes";
export { SYMPTOMS, type Symptom, type SymptomId } from "./tables/symptoms";
