"use client";

import { useState } from "react";
import type { AttitudeReadings } from "@/core/checks/bedknife-attitude";
import { LEAST_CLEARANCE_SHARE } from "@/core/checks/bedknife-attitude";
import { unitSheetOf, unitsAcross } from "@/core/machine";
import { laidOn, movedRoller, scalpingRadius, stanceOf, travelFor, wheelbaseOf } from "@/core/reel";
import { SideViewDrawing } from "@/drawings/side-view";
import type { PictureArgs } from "./face";
import { Waiting } from "./framed";
import { PictureSlider } from "./picture-slider";
import { length, sayRadius } from "./shared";

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
  const stance = stanceOf(moved);
  const before = stanceOf(stands);
  const say = (metres: number) => length(metres, system);
  const mark = (clear: number | undefined) =>
    clear === undefined || !stance ? undefined : clear < stance.heightMetres * LEAST_CLEARANCE_SHARE ? ("bad" as const) : ("good" as const);
  const extra = { reel: asSheet.reel, reelRadiusMetres: sheet.reel && sheet.reel.newDiameterMetres / 2 };
  const crest = scalpingRadius(moved);
  const degrees = (radians: number | undefined) => (radians === undefined ? undefined : `${((radians * 180) / Math.PI).toFixed(2)}°`);
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
      <div className="grid min-h-0 flex-1 place-items-center p-1">
        {stance ? (
          <SideViewDrawing
            parts={{ ...moved, ...extra }}
            before={isMoved ? { ...stands, ...extra } : undefined}
            say={say}
            label={`${unit.label} from its left side: ${say(stance.heightMetres)} high${stance.attitudeRadians === undefined ? "" : `, attitude ${degrees(stance.attitudeRadians)}`}`}
            heel={mark(stance.heelMetres)}
            toe={mark(stance.toeMetres)}
          />
        ) : (
          <p>So far the rollers lie in one another: nothing can stand on them.</p>
        )}
      </div>
      <p className="px-2 text-sm text-[var(--chalk-soft)]" aria-live="polite">
        {stance && (
          <>
            {stance.attitudeRadians !== undefined && <>Attitude {degrees(stance.attitudeRadians)}. </>}
            {isMoved && before && (
              <b className="text-[var(--chalk)]">
                What if: {say(stance.heightMetres - before.heightMetres)} on the height, {degrees(stance.tiltRadians - before.tiltRadians)}{" "}
                on the attitude.{" "}
              </b>
            )}
            {length(wheelbaseOf(moved), system, "gauge")} between the rollers: scalps crests sharper than{" "}
            {crest ? `${sayRadius(crest.radiusMetres, system)}, at the ${crest.touches}` : "level ground"}.
          </>
        )}
      </p>
      <div className="grid grid-cols-3 gap-3 p-2 max-sm:grid-cols-1">
        {SLIDERS.map(({ key, words, least }) => (
          <PictureSlider
            key={key}
            label={`${words}, what if`}
            ends={[words, say(whatIf[key])]}
            value={whatIf[key]}
            least={least}
            most={MOST_METRES}
            step={STEP_METRES}
            said={say(whatIf[key])}
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
