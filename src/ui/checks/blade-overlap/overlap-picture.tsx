"use client";

import { useState } from "react";
import { LEAST_OVERLAP_METRES, type SweptBlade } from "@/core/physics/blades/overlap";
import { OverlapDrawing } from "@/drawings/overlap";
import { overlapScene, type Travel } from "@/drawings/overlap/scene";
import { useSeat } from "../../person";
import { show } from "../shared";
import { STRAIGHT, sayWay, WaySliders, wayCrab, wayRadius } from "../way-sliders";

/** The deck in a turn or crabbing, by slider: left of the middle a left turn, right of it a right one, tighter the further out. */
export function OverlapPicture({ blades }: { blades: readonly SweptBlade[] }) {
  const { system } = useSeat();
  const [way, setWay] = useState(STRAIGHT);
  const radius = wayRadius(way);
  const travel: Travel = radius === undefined ? { kind: "straight", crabRadians: wayCrab(way) } : { kind: "turn", radiusMetres: radius };
  const scene = overlapScene(blades, travel);
  const say = (metres: number) => show(metres, "length", system, "fine");
  const heading = sayWay(way, system);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <p className="px-3 pt-2 text-lg font-bold" aria-live="polite">
        {heading}: {scene.least < 0 ? `strip of ${say(-scene.least)}` : `${say(scene.least)} shared`}
      </p>
      <div className="grid min-h-0 flex-1 place-items-center">
        <OverlapDrawing scene={scene} travel={travel} leastMetres={LEAST_OVERLAP_METRES} say={say} label={heading} />
      </div>
      <WaySliders way={way} said={heading} onChange={setWay} />
    </div>
  );
}
