"use client";

import type { EdgeDetail, EdgeReadings } from "@/core/checks";
import { STOCK_PER_GRIND_METRES } from "@/core/checks/limits";
import { EdgeDrawing } from "@/drawings/edge";
import type { PictureArgs } from "../face";
import { Waiting } from "../framed";
import { placeName, sayLength } from "../shared";

export function Picture({ machine, assessment, readings, system }: PictureArgs) {
  const detail = assessment?.detail as EdgeDetail | undefined;
  const { blades } = readings as Partial<EdgeReadings>;
  const bars = (detail?.blades ?? []).flatMap((worth) => {
    const widthMetres = blades?.[worth.spindleId]?.widthMetres;
    return widthMetres === undefined
      ? []
      : [
          {
            id: worth.spindleId,
            label: placeName(machine, worth.spindleId),
            widthMetres,
            leastMetres: machine.sheet.blade?.leastWidthMetres,
            stockMetres: worth.stockMetres,
            stockPerGrindMetres: STOCK_PER_GRIND_METRES,
            isScrap: worth.scrap.length > 0,
          },
        ];
  });
  if (bars.length === 0) return <Waiting words="Width at the tips: what this sharpening takes, and how many are left, appears here" />;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="grid min-h-0 flex-1 place-items-center px-2">
        <EdgeDrawing bars={bars} say={sayLength(system, "fine")} />
      </div>
      {detail?.cost && (
        <p className="num px-3 pb-2 text-center text-lg text-[var(--chalk)]">
          An hour of edge: sharpened {detail.cost.sharpenedPerHour.toFixed(2)}, replaced {detail.cost.replacedPerHour.toFixed(2)}
          {detail.currency ? ` ${detail.currency}` : ""}
        </p>
      )}
    </div>
  );
}
