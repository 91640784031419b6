"use client";

import type { GroundSpeedDetail } from "@/core/checks";
import { SHARP_EDGE_METRES } from "@/core/checks/limits";
import { BiteDrawing } from "@/drawings/bite";
import type { PictureArgs } from "../face";
import { Framed, Waiting } from "../framed";
import { sayLength } from "../shared";

export function Picture({ assessment, system }: PictureArgs) {
  const bite = (assessment?.detail as GroundSpeedDetail | undefined)?.biteMetres;
  if (bite === undefined) return <Waiting words="Time it over a distance: what each edge takes appears here" />;
  return (
    <Framed>
      <BiteDrawing biteMetres={bite} sharpMetres={SHARP_EDGE_METRES} say={sayLength(system)} />
    </Framed>
  );
}
