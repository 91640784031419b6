import { table } from "@/core/basics/tables";
import type { Question } from "@/core/diagnosis";
import { labelOfContext, labelOfSymptom } from "./diagnosis";

/** Questions as they are asked over the telephone; what is not here is asked by its label. */
const CONTEXT_QUESTIONS: Record<string, string> = table({
  "struck-object": "Did it hit anything hard?",
  "deck-dropped": "Did the deck drop or drag?",
  "deck-refitted": "Was the deck off and on again?",
  "blades-changed": "Were the blades changed or sharpened?",
  "belt-disturbed": "Was a belt changed or off?",
  "tyre-work": "Was a tyre mended, swapped or pumped?",
  "height-changed": "Was the height changed?",
  "unit-bench-work": "Was a unit on the bench?",
  "roller-changed": "Was a roller changed?",
  "top-dressed": "Was the turf top-dressed?",
  "wet-or-tall": "Was the grass wet or tall?",
  "long-gap": "Was it left longer than usual?",
  "new-operator": "Is somebody new driving?",
  "new-site": "Is it a new site, or another part of it?",
  "one-machine-only": "Do the other machines cut that turf well?",
  "all-machines": "Does every machine do it there?",
  "only-on-turns-or-slopes": "Only in turns or across slopes?",
  "now-and-then": "Does it come and go?",
  "always-same-direction": "Is it always mown the same way?",
  "rough-use": "Was it on brush, cones or stones?",
  "mown-up-and-down": "Is it mown up and down, each pass back beside the last?",
  "mown-in-dew": "Was it mown at dawn, in the dew?",
  "repaired-before": "Was the same mended before?",
  "one-unit-only": "Does one unit do it, and the others not?",
  "blades-elsewhere": "Do the blades come from another source than before?",
  "old-blades-kept": "Are the old blades kept?",
  "bolts-by-feel": "Were the blade bolts tightened by feel or with an impact wrench?",
  "mode-changed": "Was it changed to or from mulching or collecting?",
});

export function sayQuestion(question: Pick<Question, "kind" | "id">): string {
  return question.kind === "context"
    ? (CONTEXT_QUESTIONS[question.id] ?? labelOfContext(question.id))
    : `Also: ${labelOfSymptom(question.id)}?`;
}
