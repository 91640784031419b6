"use client";

import type { PassDetail } from "@/core/checks";
import { PassDrawing } from "@/drawings/passes";
import type { PictureArgs } from "../face";
import { Framed, Waiting } from "../framed";
import { sayLength } from "../shared";

export function Picture({ assessment, system }: PictureArgs) {
  const detail = assessment?.detail as PassDetail | undefined;
  if (detail?.spacingMetres === undefined)
    return <Waiting words="Measure from join to join over several passes: they appear here, to scale" />;
  return (
    <Framed>
      <PassDrawing widthMetres={detail.widthMetres} spacingMetres={detail.spacingMetres} say={sayLength(system, "tape")} />
    </Framed>
  );
}
