"use client";

import type { OverlapDetail } from "@/core/checks";
import { bladesOf } from "@/core/physics/blades/overlap";
import type { PictureArgs } from "../face";
import { OverlapPicture } from "./overlap-picture";

export function Picture({ machine, assessment }: PictureArgs) {
  return <OverlapPicture blades={(assessment?.detail as OverlapDetail | undefined)?.blades ?? bladesOf(machine)} />;
}
