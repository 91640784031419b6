/** Checks that are read on the drawing, at wheels, tips and spindles; the others bring a form of their own. */
export const PLACE_CHECKS: readonly string[] = ["tyre-pressure", "deck-level", "tip-speed"];
