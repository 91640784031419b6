"use client";

import { kindById } from "@/core/catalogue/kinds";
import type { HeightDetail } from "@/core/checks";
import { HEIGHT_TOLERANCE } from "@/core/checks/limits";
import { StubbleDrawing } from "@/drawings/stubble";
import type { PictureArgs } from "../face";
import { Framed } from "../framed";
import { sayLength } from "../shared";

export function Picture({ machine, assessment, readings, system }: PictureArgs) {
  const { settingMetres, heightsMetres = [] } = readings as { settingMetres?: number; heightsMetres?: number[] };
  const detail = assessment?.detail as HeightDetail | undefined;
  const { cutsWith } = kindById(machine.kind);
  return (
    <Framed>
      <StubbleDrawing
        heightsMetres={detail?.heightsMetres ?? heightsMetres}
        settingMetres={detail?.settingMetres ?? settingMetres}
        meanMetres={detail?.stubble?.meanMetres}
        plusMinusMetres={detail?.stubble?.plusMinusMetres}
        toleranceMetres={HEIGHT_TOLERANCE[cutsWith].metres}
        say={sayLength(system, cutsWith === "reel" ? "fine" : "gauge")}
      />
    </Framed>
  );
}
