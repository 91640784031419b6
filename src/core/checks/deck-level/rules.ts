import type { Machine } from "@/core/machine";

/** Side within 3 mm (1/8 in) at the outer tips (common practice). */
export const SIDE_TOLERANCE_METRES = 0.003;
/** Rake within 2 mm (1/16 in) of the machine's target (common practice). */
export const RAKE_TOLERANCE_METRES = 0.002;
/** Front lower by 6 mm (1/4 in): the usual school for discharge and collecting (common practice). */
export const RAKE_TARGET_METRES = -0.006;

export type Rules = {
  sideTolerance: number;
  sideStanding: "sheet" | "common-practice";
  rakeTarget: number;
  rakeTolerance: number;
  rakeStanding: "sheet" | "common-practice";
};

export function rulesFor({ sheet }: Machine): Rules {
  return {
    sideTolerance: sheet.sideToleranceMetres ?? SIDE_TOLERANCE_METRES,
    sideStanding: sheet.sideToleranceMetres === undefined ? "common-practice" : "sheet",
    rakeTarget: sheet.rakeTargetMetres ?? RAKE_TARGET_METRES,
    rakeTolerance: sheet.rakeToleranceMetres ?? RAKE_TOLERANCE_METRES,
    rakeStanding: sheet.rakeTargetMetres === undefined ? "common-practice" : "sheet",
  };
}
