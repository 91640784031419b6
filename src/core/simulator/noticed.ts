import { logNormalCdf } from "@/core/basics/findings";
import type { CauseId, SymptomId } from "@/core/catalogue";
import type { Fault } from "./faults";
import { cutOf, ledgeOf, oddBladeOf, overlapOf, shakeOf } from "./forward";
import { MM } from "./sizes";
import type { HiddenState } from "./state";
import { unitCut } from "./units";

const phi = (z: number): number => Math.exp(logNormalCdf(z));
/** Half of those who look notice it at `middle`; `spread` is how unlike they are (estimates). */
const rising = (quantity: number, middle: number, spread: number): number => phi((quantity - middle) / spread);

const NOTICED_SHAKE_NEWTONS = 120;

/** Looks that follow from what the machine leaves on the turf, or how it shakes: the chance that somebody says so. */
export function physicalLooks(state: HiddenState): Partial<Record<SymptomId, number>> {
  if (state.machine.units.length > 0) return reelLooks(state);
  const { meanMetres, lowestMetres } = cutOf(state);
  const off = meanMetres - state.settingMetres - MEAN_OVER_SETTING;
  const blades = Object.values(state.blades);
  const standing = blades.filter(({ isStanding }) => isStanding).length;
  const isHalf = blades.some(({ isStanding, speedShare, loadedLoss }) => isStanding || speedShare * (1 - loadedLoss) < 0.5);
  const several = state.machine.spindles.length > 1;
  return {
    "step-between-passes": rising(ledgeOf(state), 6 * MM, 2 * MM),
    ...(several ? { "bands-between-units": rising(oddBladeOf(state), 5 * MM, 1.6 * MM) } : {}),
    "cut-too-high": rising(off, 5.5 * MM, 1.6 * MM),
    "cut-too-low": rising(-off, 5.5 * MM, 1.6 * MM),
    ...(several ? { "uncut-strip-inside": rising(-overlapOf(state), -3 * MM, 3 * MM) } : {}),
    "uncut-strip-between-passes": rising(-state.passOverlapMetres, -10 * MM, 12 * MM),
    "scalped-band": rising(meanMetres - lowestMetres, 14 * MM, 4 * MM),
    vibration: rising(Math.log(Math.max(1e-9, shakeOf(state))), Math.log(NOTICED_SHAKE_NEWTONS), 0.5),
    ...(isHalf ? { "blade-width-uncut": 0.9 } : {}),
    ...(standing > 0 ? { "blade-stopped": 0.85 } : {}),
  };
}

/** A reel machine: a tilt within a unit, units off each other, all of them off their setting (estimates). */
function reelLooks(state: HiddenState): Partial<Record<SymptomId, number>> {
  const cuts = state.machine.units.map(({ id }) => unitCut(state.machine, id, state.reel));
  const mean = cuts.reduce((sum, { overMetres }) => sum + overMetres, 0) / Math.max(1, cuts.length);
  const apart = Math.max(...cuts.map(({ overMetres }) => overMetres)) - Math.min(...cuts.map(({ overMetres }) => overMetres));
  return {
    "step-within-unit": rising(Math.max(...cuts.map(({ tiltMetres }) => tiltMetres)), 0.25 * MM, 0.08 * MM),
    ...(cuts.length > 1 ? { "bands-between-units": rising(apart, 0.3 * MM, 0.1 * MM) } : {}),
    "cut-too-high": rising(mean, 0.5 * MM, 0.15 * MM),
    "cut-too-low": rising(-mean, 0.5 * MM, 0.15 * MM),
    "uncut-strip-between-passes": rising(-state.passOverlapMetres, -10 * MM, 12 * MM),
  };
}

/** Rake lifts the mean of what is cut a little over its lowest (chapter "cut print": about an eighth of π of it). */
const MEAN_OVER_SETTING = 2 * MM;

/** Solves the link as an average over severities: 1 − (1 + k/4)⁻⁴ for a gamma of shape 4 and mean 1 (physics of the mean). */
export const strengthOf = (link: number): number => 4 * ((1 - link) ** -0.25 - 1);

export type LinkOf = (cause: CauseId) => readonly { symptom: SymptomId; probability: number }[];

/** Nobody's fault, and said all the same. */
const LEAK = 0.01;

/**
 * The chance of each look: what can be worked out from the machine by that, everything else by the tables, stronger for a worse fault.
 */
export function looksOf(args: {
  state: HiddenState;
  faults: readonly Fault[];
  symptoms: readonly SymptomId[];
  linksOf: LinkOf;
}): Map<SymptomId, number> {
  const physical = physicalLooks(args.state);
  return new Map(
    args.symptoms.map((symptom) => {
      const worked = physical[symptom];
      if (worked !== undefined) return [symptom, 1 - (1 - LEAK) * (1 - worked)];
      const left = args.faults.reduce((share, { cause, severity }) => {
        const link = args.linksOf(cause).find((one) => one.symptom === symptom);
        return link ? share * Math.exp(-strengthOf(link.probability) * severity) : share;
      }, 1 - LEAK);
      return [symptom, 1 - left];
    }),
  );
}
