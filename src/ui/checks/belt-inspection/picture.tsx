"use client";

import { BeltPicture } from "@/ui/sheet/belt-picture";
import type { PictureArgs } from "../face";

export function Picture({ machine, standpoint }: PictureArgs) {
  return <BeltPicture machine={machine} standpoint={standpoint} />;
}
