"use client";

import type { TyreDetail } from "@/core/checks";
import { NOTICED_MOVEMENT_METRES } from "@/core/job/staleness";
import { spindlesAcross } from "@/core/machine";
import { sayMovement } from "../../words/quantities";
import type { PictureArgs } from "../face";

/** What these pressures alone do to the outer blade tips, as a range: an estimate, never a measurement. */
export function More({ assessment, machine, system }: PictureArgs) {
  const { tipChanges, noTipChanges } = (assessment?.detail ?? {}) as Partial<TyreDetail>;
  if (!tipChanges)
    return noTipChanges === "self-carried-deck" ? (
      <p className="mt-2 text-sm">The deck rides on its own wheels: these tyres do not move it.</p>
    ) : null;
  const across = spindlesAcross(machine);
  const outer = tipChanges.filter(
    ({ spindleId, direction }) =>
      (spindleId === across[0]?.id && direction === "left") || (spindleId === across.at(-1)?.id && direction === "right"),
  );
  if (outer.every(({ change }) => Math.abs(change) < NOTICED_MOVEMENT_METRES)) return null;
  return (
    <div className="mt-2">
      <p className="caps">What the tyres alone do to the deck (estimate)</p>
      <ul>
        {outer.map((change) => (
          <li key={`${change.spindleId}:${change.direction}`}>{sayMovement(change, { machine, system })}</li>
        ))}
      </ul>
    </div>
  );
}
