import type { CutGrade, ProofGap } from "@/core/job/jobs";
import { labelOfCheck, labelOfSymptom } from "./diagnosis";
import { VERDICT_WORDS } from "./quantities";
import { sayDoubts } from "./state";

export const GRADE_WORDS: Record<CutGrade, string> = {
  proof: "proof",
  "looks-right": "looks right, not proof",
  "blades-turn": "proves only that the blades turn",
  "not-cured": "not cured",
};

/** What is missing for the word "proved", as a sentence. */
export function sayGap(gap: ProofGap): string {
  switch (gap.code) {
    case "nothing-changed":
      return "Nothing was out and nothing was changed: there is nothing a cut could prove.";
    case "not-read-again":
      return `${labelOfCheck(gap.check)}: read again after the change.`;
    case "read-before-cut":
      return `${labelOfCheck(gap.check)}: read before anything was cut since the fix. Cut, then read it.`;
    case "still-out":
      return `${labelOfCheck(gap.check)}: ${VERDICT_WORDS[gap.verdict].toLowerCase()}, not in tolerance.`;
    case "stale":
      return `${labelOfCheck(gap.check)}: something was changed after it was read.`;
    case "provisional":
      return `${labelOfCheck(gap.check)}: rests on something missing (provisional).`;
    case "no-test-cut":
      return "No test cut.";
    case "test-cut-older-than-change":
      return "Something was changed after the test cut.";
    case "test-cut-not-proof":
      return `Test cut: ${GRADE_WORDS[gap.grade]}.${gap.doubts.length > 0 ? ` ${sayDoubts(gap.doubts)}.` : ""}`;
    case "symptom-not-asked":
      return `${labelOfSymptom(gap.symptom)}: nobody asked since whether it is gone.`;
    case "symptom-still-there":
      return `${labelOfSymptom(gap.symptom)}: still there at the test cut.`;
    case "blades-not-seen-cutting":
      return "A belt was disturbed: every blade seen to cut, in a run. A dragging belt may turn a blade by hand.";
    case "open-on-machine":
      return "Something on the machine keeps it from running.";
    case "released-unread":
      return "Released by word, not read right since.";
  }
}
