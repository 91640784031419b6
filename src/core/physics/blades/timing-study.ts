import { clearRanges, closestApproach, gapAt, type TimedPair, toothAngle } from "./timing";

const DEGREE = Math.PI / 180;
/** Steps of the crank at which the gap is drawn. */
export const PROFILE_DEGREES = 2;
const FULL_TURN_DEGREES = 360;
const HALF_TURN_DEGREES = 180;
const LESS_THAN_A_TURN = 1e-9;

export type PairStudied = {
  id: string;
  pair: TimedPair;
  phaseDegrees: number;
  lashDegrees: number;
  teeth?: number | undefined;
  wantedMetres: number;
};

export type PairStudy = {
  id: string;
  /** Distance between the two with the first blade at 0, 2, 4 … 360° from the line of centres, metres. */
  profileMetres: number[];
  closest: { gapMetres: number; atDegrees: number };
  /** Closest of all within the gears' play. */
  worstWithinLashMetres: number;
  clearDegrees: [number, number][];
  /** Refitted one tooth of the coupling's spline out, either way. */
  oneTooth?: { degrees: number; gaps: { phaseDegrees: number; gapMetres: number }[] };
};

const inHalfTurn = (degrees: number) => ((degrees % HALF_TURN_DEGREES) + HALF_TURN_DEGREES) % HALF_TURN_DEGREES;

/** Everything that hangs on the phase of one pair: reckoned off the page, since unequal blades have no closed form (physics). */
export function studyPair({ id, pair, phaseDegrees, lashDegrees, teeth, wantedMetres }: PairStudied): PairStudy {
  const phase = phaseDegrees * DEGREE;
  const at = (degrees: number) => closestApproach(pair, degrees * DEGREE);
  const nearest = at(phaseDegrees);
  const lash = [-lashDegrees / 2, lashDegrees / 2].map((by) => at(phaseDegrees + by).gapMetres);
  const steps = Math.floor(FULL_TURN_DEGREES / PROFILE_DEGREES + LESS_THAN_A_TURN);
  const oneTooth = teeth === undefined ? undefined : toothAngle(teeth) / DEGREE;
  return {
    id,
    profileMetres: Array.from({ length: steps + 1 }, (_, k) => gapAt(pair, phase, k * PROFILE_DEGREES * DEGREE)),
    closest: { gapMetres: nearest.gapMetres, atDegrees: inHalfTurn(nearest.atAngle / DEGREE) },
    worstWithinLashMetres: Math.min(nearest.gapMetres, ...lash),
    clearDegrees: clearRanges(pair, wantedMetres).map(({ fromPhase, toPhase }) => [fromPhase / DEGREE, toPhase / DEGREE]),
    ...(oneTooth === undefined
      ? {}
      : {
          oneTooth: {
            degrees: oneTooth,
            gaps: [-oneTooth, oneTooth].map((by) => ({
              phaseDegrees: inHalfTurn(phaseDegrees + by),
              gapMetres: at(phaseDegrees + by).gapMetres,
            })),
          },
        }),
  };
}
