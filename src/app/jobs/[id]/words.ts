import type { CutGrade } from "@/core/jobs";

export const GRADE_WORDS: Record<CutGrade, string> = {
  proof: "proof",
  "looks-right": "looks right, not proof",
  "blades-turn": "proves only that the blades turn",
  "not-cured": "not cured",
};
