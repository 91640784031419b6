import type { Assessment, DeckDetail } from "@/core/checks";
import type { Surface } from "../tilt";

/** The tips' plane as it was measured, against where it should be. */
export function surfaceOf(assessment: Assessment | undefined): Surface | undefined {
  const { plane, target } = (assessment?.detail ?? {}) as Partial<DeckDetail>;
  return plane && target ? { plane, target, isEstimate: false } : undefined;
}
