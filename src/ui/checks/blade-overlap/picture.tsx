"use client";

import { bladesOf } from "@/core/blades/overlap";
import type { OverlapDetail } from "@/core/checks";
import type { PictureArgs } from "../face";
import { OverlapPicture } from "./overlap-picture";

export function Picture({ machine, assessment }: PictureArgs) {
  return <OverlapPicture blades={(assessment?.detail as OverlapDetail | undefined)?.blades ?? bladesOf(machine)} />;
}
