/** Checks that are read on the drawing, at wheels and tips; the others bring a form of their own. */
export const PLACE_CHECKS: readonly string[] = ["tyre-pressure", "deck-level"];
