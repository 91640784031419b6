import { type Check, deckLevel, tipSpeedCheck, tyrePressure } from "@/core/checks";

/** The worksheets that are read on the drawing; the others come with their forms when they are opened. */
export const PLACE_WORKSHEETS: Record<string, Check | undefined> = Object.fromEntries(
  ([tyrePressure, deckLevel, tipSpeedCheck] as unknown as Check[]).map((check) => [check.id, check]),
);
