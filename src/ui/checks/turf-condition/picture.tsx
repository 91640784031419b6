"use client";

import type { TurfDetail } from "@/core/checks";
import type { UnitSystem } from "@/core/units";
import { LeafDrawing } from "@/drawings/leaf";
import type { PictureArgs } from "../face";
import { Framed, Waiting } from "../framed";
import { show } from "../shared";

const say =
  (system: UnitSystem, instrument: "tape" | "gauge" | "fine" = "gauge") =>
  (metres: number) =>
    show(metres, "length", system, instrument);

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
        say={say(system, "tape")}
      />
    </Framed>
  );
}
