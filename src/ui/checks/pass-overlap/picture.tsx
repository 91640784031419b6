"use client";

import type { PassDetail } from "@/core/checks";
import type { UnitSystem } from "@/core/units";
import { PassDrawing } from "@/drawings/passes";
import type { PictureArgs } from "../face";
import { Framed, Waiting } from "../framed";
import { show } from "../shared";

const say =
  (system: UnitSystem, instrument: "tape" | "gauge" | "fine" = "gauge") =>
  (metres: number) =>
    show(metres, "length", system, instrument);

export function Picture({ assessment, system }: PictureArgs) {
  const detail = assessment?.detail as PassDetail | undefined;
  if (detail?.spacingMetres === undefined)
    return <Waiting words="Measure from join to join over several passes: they appear here, to scale" />;
  return (
    <Framed>
      <PassDrawing widthMetres={detail.widthMetres} spacingMetres={detail.spacingMetres} say={say(system, "tape")} />
    </Framed>
  );
}
