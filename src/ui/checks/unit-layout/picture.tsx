"use client";

import { type LayoutDetail, rollerLines } from "@/core/checks";
import { unitsAcross } from "@/core/machine";
import { rolledAcross, rolledShare } from "@/core/reel";
import { UnitSwath } from "@/drawings/unit-swath";
import type { PictureArgs } from "../face";
import { Framed } from "../framed";

/** The sheet's own layout stands there before anything is read. */
export function Picture({ machine, assessment }: PictureArgs) {
  const detail = assessment?.detail as LayoutDetail | undefined;
  const rolled = detail?.rolled ?? rolledAcross(rollerLines(machine));
  const units =
    detail?.units ??
    unitsAcross(machine).map(({ id, xMetres, yMetres, widthMetres, yawRadians }) => ({
      id,
      xMetres,
      yMetres,
      widthMetres,
      ...(yawRadians === undefined ? {} : { yawRadians }),
    }));
  const most = Math.max(...rolled.map(({ passes }) => passes));
  const odd = (assessment?.findings ?? []).filter(({ code }) => code === "skewed").map(({ place }) => place);
  return (
    <Framed>
      <UnitSwath
        units={units}
        rolled={rolled}
        names={Object.fromEntries(machine.units.map(({ id, label }) => [id, label]))}
        odd={odd}
        label={`Units from above. Rolled ${most} times on ${(rolledShare(rolled, most) * 100).toFixed(1)} % of the swath.`}
      />
    </Framed>
  );
}
