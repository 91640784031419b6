"use client";

import { useState } from "react";
import { gapAt } from "@/core/blades/timing";
import { type TimingDetail, timedPair } from "@/core/checks";
import { type Machine, pointOf, spindlesAcross } from "@/core/machine";
import { TimingDrawing, type TurnedBlade } from "@/drawings/timing";
import { useSeat } from "../person";
import { show } from "../words/checks";

const DEGREE = Math.PI / 180;
/** Geared blades stand square to each other unless they were measured. */
const SQUARE_DEGREES = 90;

/** The geared blades under a hand crank: what lies between neighbours at this angle, and where they come closest. */
export function TimingPicture({ machine, detail }: { machine: Machine; detail: TimingDetail | undefined }) {
  const { system } = useSeat();
  const [crank, setCrank] = useState(0);
  const across = spindlesAcross(machine);
  const phases = across.slice(1).map((other, k) => {
    const id = `${across[k]?.id}:${other.id}`;
    return { id, phaseDegrees: detail?.pairs.find((pair) => pair.id === id)?.phaseDegrees ?? SQUARE_DEGREES };
  });
  const angles = anglesOf(machine, phases, crank * DEGREE);
  const blades: TurnedBlade[] = across.map((spindle, k) => {
    const pair = timedPair(machine, { one: spindle, other: across[k === 0 ? 1 : k - 1] ?? spindle });
    return { id: spindle.id, centre: pointOf(spindle), ...pair.one, angle: angles[k] ?? 0 };
  });
  const gaps = across.slice(1).flatMap((other, k) => {
    const one = across[k];
    if (!one) return [];
    const pair = timedPair(machine, { one, other });
    // Angles are counted from the line of their centres.
    const line = Math.atan2(other.yMetres - one.yMetres, other.xMetres - one.xMetres);
    const [a, b] = [(angles[k] ?? 0) - line, (angles[k + 1] ?? 0) - line];
    return [{ ids: [one.id, other.id], gapMetres: gapAt(pair, pair.sense === "same" ? b - a : a + b, a) }];
  });
  const least = [...gaps].sort((p, q) => p.gapMetres - q.gapMetres)[0];
  const struck = gaps.filter(({ gapMetres }) => gapMetres < 0).flatMap(({ ids }) => ids);
  const closest = detail?.pairs.find(({ atDegrees }) => atDegrees !== undefined)?.atDegrees;
  const said =
    least === undefined
      ? ""
      : least.gapMetres < 0
        ? "they strike here"
        : `${show(least.gapMetres, "length", system, "fine")} between the nearest two`;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <p className="px-3 pt-2 text-lg font-bold" aria-live="polite">
        Crank at {Math.round(crank)}°: {said}
      </p>
      <div className="grid min-h-0 flex-1 place-items-center">
        <TimingDrawing blades={blades} struck={struck} label={`Geared blades, crank at ${Math.round(crank)}°: ${said}`} />
      </div>
      <div className="flex items-center gap-3 px-3 pb-2">
        <label className="grow text-sm text-[var(--chalk)]">
          <strong>Crank</strong>
          <input
            type="range"
            className="h-11 w-full accent-[var(--chalk)]"
            min={0}
            max={360}
            step={0.5}
            value={crank}
            aria-label="Crank"
            aria-valuetext={said}
            onChange={(event) => setCrank(Number(event.target.value))}
          />
        </label>
        {closest !== undefined && (
          <button type="button" className="btn" onClick={() => setCrank(((closest % 360) + 360) % 360)}>
            Closest, {Math.round(((closest % 360) + 360) % 360)}°
          </button>
        )}
      </div>
    </div>
  );
}

/** Every blade's angle from the x axis, the first at the crank's, each next one by its phase to its neighbour. */
function anglesOf(machine: Machine, phases: readonly { phaseDegrees: number }[], crank: number): number[] {
  const across = spindlesAcross(machine);
  const angles = [crank];
  for (const [k, spindle] of across.entries()) {
    const before = across[k - 1];
    if (!before) continue;
    const line = Math.atan2(spindle.yMetres - before.yMetres, spindle.xMetres - before.xMetres);
    const own = (angles[k - 1] ?? 0) - line;
    const phase = (phases[k - 1]?.phaseDegrees ?? SQUARE_DEGREES) * DEGREE;
    angles.push((before.turns === spindle.turns ? own + phase : phase - own) + line);
  }
  return angles;
}
