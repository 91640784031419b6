"use client";

import { useState } from "react";
import { type LayoutDetail, rollerLines } from "@/core/checks";
import { type Machine, unitsAcross } from "@/core/machine";
import { type LaidUnit, leastShared, rolledAcross, rolledShare, unitOverlaps, unitOverlapsInTurn } from "@/core/physics/reel";
import { UnitSwath } from "@/drawings/unit-swath";
import type { PictureArgs } from "../face";
import { length, lower, placeIn } from "../shared";
import { STRAIGHT, sayWay, WaySliders, wayCrab, wayRadius } from "../way-sliders";

/** The sheet's own layout stands there before anything is read; turn and crab by slider show where a strip opens. */
export function Picture({ machine, assessment, system }: PictureArgs) {
  const [way, setWay] = useState(STRAIGHT);
  const detail = assessment?.detail as LayoutDetail | undefined;
  const rolled = detail?.rolled ?? rolledAcross(rollerLines(machine));
  const units = detail?.units ?? laidUnits(machine);
  const most = Math.max(...rolled.map(({ passes }) => passes));
  const odd = (assessment?.findings ?? []).filter(({ code }) => code === "skewed").map(({ place }) => place);
  const radius = wayRadius(way);
  const least = leastShared(radius === undefined ? unitOverlaps(units, wayCrab(way)) : unitOverlapsInTurn(units, radius));
  const said = sayWay(way, system);
  return (
    <div className="flex min-h-0 flex-1 flex-col text-[var(--chalk)]">
      <p className="px-3 pt-2 text-lg font-bold" aria-live="polite">
        {said}:{" "}
        {least &&
          (least.overlapMetres < 0
            ? `strip of ${length(-least.overlapMetres, system)} between ${lower(placeIn({}, machine, least.between.join(":")))}`
            : `${length(least.overlapMetres, system)} shared at least`)}
      </p>
      <div className="grid min-h-0 flex-1 place-items-center p-2">
        <UnitSwath
          units={units}
          rolled={rolled}
          names={Object.fromEntries(machine.units.map(({ id, label }) => [id, label]))}
          odd={odd}
          short={least && least.overlapMetres < 0 ? least.between : []}
          label={`Units from above. Rolled ${most} times on ${(rolledShare(rolled, most) * 100).toFixed(1)} % of the swath.`}
        />
      </div>
      <WaySliders way={way} said={said} onChange={setWay} />
    </div>
  );
}

function laidUnits(machine: Machine): LaidUnit[] {
  return unitsAcross(machine).map(({ id, xMetres, yMetres, widthMetres, yawRadians }) => ({
    id,
    xMetres,
    yMetres,
    widthMetres,
    yawRadians,
  }));
}
