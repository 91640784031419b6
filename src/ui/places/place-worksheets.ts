import { type Check, deckLevel, tyrePressure } from "@/core/checks";

/** The worksheets that are read on the drawing; the others come with their forms when they are opened. */
export const PLACE_WORKSHEETS: Record<string, Check | undefined> = Object.fromEntries(
  ([tyrePressure, deckLevel] as unknown as Check[]).map((check) => [check.id, check]),
);
