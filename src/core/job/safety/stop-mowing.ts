import type { SymptomId } from "@/core/catalogue";

/** Looks on which nobody mows on before somebody has looked: a blade may be loose, cracked or bent, or a drive about to let go. Common practice. */
const STOPS_MOWING: readonly SymptomId[] = ["vibration", "grinding-noise", "blade-stopped", "belt-smell-or-squeal", "hot-hub"];

/** Of what is complained of, what says stop mowing; empty where it may be finished with. */
export function stopsMowing(symptoms: readonly SymptomId[]): SymptomId[] {
  return symptoms.filter((symptom) => STOPS_MOWING.includes(symptom));
}
