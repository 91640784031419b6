"use client";

import { useState } from "react";
import type { AttitudeReadings } from "@/core/checks/bedknife-attitude";
import { unitSheetOf, unitsAcross } from "@/core/machine";
import { laidOn, movedRoller, travelFor } from "@/core/physics/reel";
import type { PictureArgs } from "./face";
import { Waiting } from "./framed";
import { PictureSlider } from "./picture-slider";
import { length } from "./shared";
import { SideStage } from "./side-stage";

type WhatIf = { front: number; rear: number; pack: number };
const NOTHING: WhatIf = { front: 0, rear: 0, pack: 0 };
const MOST_METRES = 0.004;
const STEP_METRES = 0.00005;

const SLIDERS = [
  { key: "front", words: "Front roller down", least: -MOST_METRES },
  { key: "rear", words: "Rear roller down", least: -MOST_METRES },
  { key: "pack", words: "Packed on, or sunk in", least: -0.002 },
] as const;

/** Read of the unit, or told once for all of them. */
function heightIn(readings: unknown, unit: string): number | undefined {
  const { units, heightMetres } = readings as Partial<AttitudeReadings> & { heightMetres?: number };
  return units?.[unit]?.heightMetres ?? heightMetres;
}

/** A unit from the side as its sheet has it, at the height that was read; what-if by slider stands apart from it. */
export function SideViewPicture({ machine, readings, system }: PictureArgs) {
  const drawn = unitsAcross(machine).filter(({ id }) => unitSheetOf(machine, id).sideView);
  const [chosen, setChosen] = useState<string>();
  const [whatIf, setWhatIf] = useState(NOTHING);
  const unit = drawn.find(({ id }) => id === chosen) ?? drawn[0];
  const sheet = unit && unitSheetOf(machine, unit.id);
  if (!unit || !sheet?.sideView)
    return <Waiting words="The unit's side view is not on the sheet: rollers, edge, heel and toe appear here once it is" />;
  const asSheet = sheet.sideView;
  const height = heightIn(readings, unit.id);
  const up = height === undefined ? 0 : (travelFor({ view: asSheet, end: "rear", heightMetres: height }) ?? 0);
  const stands = movedRoller(asSheet, "rear", up);
  const moved = laidOn(movedRoller(movedRoller(stands, "front", -whatIf.front), "rear", -whatIf.rear), {
    front: whatIf.pack,
    rear: whatIf.pack,
  });
  const isMoved = whatIf.front !== 0 || whatIf.rear !== 0 || whatIf.pack !== 0;
  return (
    <div className="flex min-h-0 flex-1 flex-col text-[var(--chalk)]">
      {drawn.length > 1 && (
        <div className="flex flex-wrap gap-1 p-1">
          {drawn.map(({ id, label }) => (
            <button
              key={id}
              type="button"
              className="min-h-11 border border-[var(--chalk-faint)] px-3 aria-pressed:bg-[var(--dye-deep)] aria-pressed:font-bold"
              aria-pressed={id === unit.id}
              onClick={() => setChosen(id)}
            >
              {label}
            </button>
          ))}
        </div>
      )}
      <SideStage label={unit.label} sheet={sheet} stands={stands} moved={isMoved ? moved : stands} system={system} />
      <div className="grid grid-cols-3 gap-3 p-2 max-sm:grid-cols-1">
        {SLIDERS.map(({ key, words, least }) => (
          <PictureSlider
            key={key}
            label={`${words}, what if`}
            ends={[words, length(whatIf[key], system)]}
            value={whatIf[key]}
            least={least}
            most={MOST_METRES}
            step={STEP_METRES}
            said={length(whatIf[key], system)}
            onChange={(value) => setWhatIf((one) => ({ ...one, [key]: value }))}
          />
        ))}
      </div>
      {isMoved && (
        <button type="button" className="btn m-2 mt-0" onClick={() => setWhatIf(NOTHING)}>
          Back to what stands
        </button>
      )}
    </div>
  );
}
