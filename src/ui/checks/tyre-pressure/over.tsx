"use client";

import type { OverlayArgs } from "../face";
import { DeckTilt } from "../tilt";
import { surfaceOf } from "./surface";

/** The deck's tilt on these tyres. */
export function Over(args: OverlayArgs) {
  return <DeckTilt {...args} surface={surfaceOf(args.machine, args.assessment)} />;
}
