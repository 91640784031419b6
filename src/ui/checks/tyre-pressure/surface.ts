import { fitPlane } from "@/core/basics/geometry";
import type { Assessment, TyreDetail } from "@/core/checks";
import type { Machine } from "@/core/machine";
import type { Surface } from "../tilt";

const USUAL_HEIGHT_METRES = 0.06;

/** What these tyres alone are reckoned to do to a level deck. */
export function surfaceOf(machine: Machine, assessment: Assessment | undefined): Surface | undefined {
  const { tipChanges } = (assessment?.detail ?? {}) as Partial<TyreDetail>;
  if (!tipChanges) return undefined;
  const height = machine.sheet.heightLeastMetres ?? USUAL_HEIGHT_METRES;
  const fitted = fitPlane(tipChanges.map(({ x, y, change }) => ({ x, y, z: change + height })));
  return fitted.kind === "fitted"
    ? { plane: fitted.planeFit.plane, target: { height, slopeRight: 0, slopeForward: 0 }, isEstimate: true }
    : undefined;
}
