"use client";

import type { TyreDetail } from "@/core/checks";
import type { BeneathArgs } from "../face";
import { Swath } from "../tilt";
import { surfaceOf } from "./surface";

const READ = "Read every tyre: what they do to the deck appears here";
const WHY_NOT: Record<NonNullable<TyreDetail["noTipChanges"]>, string> = {
  "tyre-unread": READ,
  "no-deck": "This machine has no deck that its tyres could tilt",
  "self-carried-deck": "Its deck rides on wheels of its own: the tyres do not move it",
  "no-weight": "Where its weight lies is not on the sheet: what the tyres do to the deck cannot be reckoned",
  "no-sheet-pressure": "Without the sheet's pressures nothing can be said of what they do to the deck",
  "no-plane": "The tyres that were read make no plane: what they do to the deck cannot be reckoned",
};

/** What these tyres alone would leave across the swath. */
export function Beneath(args: BeneathArgs) {
  const whyNot = (args.assessment?.detail as TyreDetail | undefined)?.noTipChanges;
  return <Swath {...args} surface={surfaceOf(args.machine, args.assessment)} waiting={whyNot === undefined ? READ : WHY_NOT[whyNot]} />;
}
