"use client";

import { useSeat } from "./person";

/** A machine from above in a list: its own picture, fetched when it comes into view. */
export function PlanPicture({
  machineId,
  sheetVersion,
  label,
  width = 84,
  height = 64,
}: {
  machineId: string;
  sheetVersion: number;
  label: string;
  width?: number;
  height?: number;
}) {
  // A number comes again in another record, with another machine under it.
  const { recordId = "" } = useSeat();
  return (
    // biome-ignore lint/performance/noImgElement: drawn by this application, in the size it is shown
    <img
      src={`/machines/${machineId}/plan?v=${sheetVersion}&r=${recordId}`}
      alt={label}
      width={width}
      height={height}
      loading="lazy"
      decoding="async"
      className="rounded-[3px]"
    />
  );
}
