"use client";

import type { TurfDetail } from "@/core/checks";
import { LeafDrawing } from "@/drawings/leaf";
import type { PictureArgs } from "../face";
import { Framed, Waiting } from "../framed";
import { sayLength } from "../shared";

export function Picture({ assessment, system }: PictureArgs) {
  const detail = assessment?.detail as TurfDetail | undefined;
  if (detail?.beforeMetres === undefined)
    return <Waiting words="Prick the leaf before it is cut: it appears here, with the third it may lose" />;
  return (
    <Framed>
      <LeafDrawing
        beforeMetres={detail.beforeMetres}
        cutMetres={detail.cutMetres}
        firstCutMetres={detail.firstCutMetres}
        say={sayLength(system, "tape")}
      />
    </Framed>
  );
}
