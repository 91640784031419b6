"use client";

import type { BeneathArgs } from "../face";
import { Swath } from "../tilt";
import { surfaceOf } from "./surface";

const WAITING = "Read three tips that are not on one line: the cut appears here";

/** What the deck as it stands leaves across the swath. */
export function Beneath(args: BeneathArgs) {
  return <Swath {...args} surface={surfaceOf(args.assessment)} waiting={WAITING} />;
}
