"use client";

import type { BeneathArgs } from "../face";
import { Swath } from "../tilt";
import { surfaceOf } from "./surface";

const WAITING = "Read every tyre: what they do to the deck appears here";

/** What these tyres alone would leave across the swath. */
export function Beneath(args: BeneathArgs) {
  return <Swath {...args} surface={surfaceOf(args.machine, args.assessment)} waiting={WAITING} />;
}
