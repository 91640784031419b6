import type { CauseId } from "./causes";
import type { CheckId } from "./checks";

/** Figures that one reading gives for several causes at once: it tells that one of them is there, not which. All others speak to one cause. */
// biome-ignore format: a table is read by rows
export const FIGURES: Partial<Record<CheckId, readonly (readonly CauseId[])[]>> = {
  "deck-level": [["deck-out-of-level", "hanger-failed"]],
  "tip-speed": [["engine-speed-low", "belt-slipping"]],
  "cutting-height": [["roller-sinks", "thatch-build-up"]],
};
