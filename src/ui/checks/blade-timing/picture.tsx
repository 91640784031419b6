"use client";

import type { TimingDetail } from "@/core/checks";
import type { PictureArgs } from "../face";
import { TimingPicture } from "./timing-picture";

export function Picture({ machine, assessment }: PictureArgs) {
  return <TimingPicture machine={machine} detail={assessment?.detail as TimingDetail | undefined} />;
}
