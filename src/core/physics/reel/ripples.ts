/** Where an even spacing may come from. */
export type RippleSource =
  | "clip"
  | "clip-twice"
  | "reel-turn"
  | "front-roller"
  | "half-front-roller"
  | "rear-roller"
  | "half-rear-roller"
  | "tyre"
  | "tyre-lug"
  | "bounce"
  | "other";

/** Relative errors, one standard deviation: of the spacing, of a paced or a timed speed, of each candidate's own figure, of a ratio of speeds. Estimates. */
export const RIPPLE_ERRORS = { spacing: 0.05, speed: 0.1, timedSpeed: 0.03, own: 0.03, speedRatio: 0.05 } as const;
/** How often tyres bounce a machine, a second. Estimate. */
export const BOUNCE_HERTZ = { least: 2, most: 4.5 } as const;
/** Anything else may have any spacing between these, evenly in its logarithm. Estimate. */
export const OTHER_SPACING_METRES = { least: 0.002, most: 10 } as const;
/** Of the logarithm of the spacings' ratio at two speeds, where the source is none of these. Estimate. */
const OTHER_RATIO_SPAN = 2.5;

/** How often each is the source, before anything is measured. Estimates. */
const PRIOR: Record<RippleSource, number> = {
  clip: 0.3,
  "clip-twice": 0.03,
  "reel-turn": 0.15,
  "front-roller": 0.12,
  "half-front-roller": 0.03,
  "rear-roller": 0.12,
  "half-rear-roller": 0.03,
  tyre: 0.03,
  "tyre-lug": 0.02,
  bounce: 0.12,
  other: 0.05,
};

export type RippleMachine = {
  groundMetresPerSecond: number;
  blades: number;
  revolutionsPerMinute: number;
  frontRollerMetres?: number;
  rearRollerMetres?: number;
  tyreMetres?: number;
  lugs?: number;
  /** A reel driven by the ground keeps its clip at every speed. */
  isGroundDriven?: boolean;
};

type Candidate = { source: RippleSource; spacing: number | { least: number; most: number }; grows: boolean };
export type RippleCandidate = Candidate & { probability: number };

function candidatesOf(machine: RippleMachine): Candidate[] {
  const { groundMetresPerSecond: speed, blades, revolutionsPerMinute, isGroundDriven = false } = machine;
  const turn = (speed * 60) / revolutionsPerMinute;
  const grows = !isGroundDriven;
  const round = (source: RippleSource, diameter: number | undefined, share = 1): Candidate[] =>
    diameter === undefined ? [] : [{ source, spacing: Math.PI * diameter * share, grows: false }];
  return [
    { source: "clip", spacing: turn / blades, grows },
    { source: "clip-twice", spacing: (2 * turn) / blades, grows },
    { source: "reel-turn", spacing: turn, grows },
    ...round("front-roller", machine.frontRollerMetres),
    ...round("half-front-roller", machine.frontRollerMetres, 0.5),
    ...round("rear-roller", machine.rearRollerMetres),
    ...round("half-rear-roller", machine.rearRollerMetres, 0.5),
    ...round("tyre", machine.tyreMetres),
    ...(machine.lugs ? round("tyre-lug", machine.tyreMetres, 1 / machine.lugs) : []),
    { source: "bounce", spacing: { least: speed / BOUNCE_HERTZ.most, most: speed / BOUNCE_HERTZ.least }, grows: true },
    { source: "other", spacing: { ...OTHER_SPACING_METRES }, grows: false },
  ];
}

const normal = (x: number, sd: number): number => Math.exp(-((x / sd) ** 2) / 2) / (sd * Math.sqrt(2 * Math.PI));

export type RippleReading = {
  spacingMetres: number;
  isTimed?: boolean;
  /** The same at another speed, as a ratio to the first. */
  second?: { spacingMetres: number; speedRatio: number };
};

function densityAt(candidate: Candidate, { spacingMetres, isTimed = false }: RippleReading): number {
  const { spacing, grows } = candidate;
  if (typeof spacing !== "number")
    return spacingMetres < spacing.least || spacingMetres > spacing.most ? 0 : 1 / Math.log(spacing.most / spacing.least);
  const speedError = grows ? (isTimed ? RIPPLE_ERRORS.timedSpeed : RIPPLE_ERRORS.speed) : 0;
  return normal(Math.log(spacingMetres / spacing), Math.hypot(RIPPLE_ERRORS.spacing, RIPPLE_ERRORS.own, speedError));
}

/** A length of the machine keeps its spacing, a frequency's grows with the speed. */
function secondDensity({ source, grows }: Candidate, first: number, second: NonNullable<RippleReading["second"]>): number {
  if (source === "other") return 1 / OTHER_RATIO_SPAN;
  const sd = Math.hypot(RIPPLE_ERRORS.spacing * Math.SQRT2, grows ? RIPPLE_ERRORS.speedRatio : 0);
  return normal(Math.log(second.spacingMetres / first) - (grows ? Math.log(second.speedRatio) : 0), sd);
}

/**
 * Where evenly spaced ripples come from, most likely first, with the spacing each source would give (estimate: log spacing normal
 * about it within the errors of spacing and speed). Lengths in metres; probabilities sum to 1.
 * @example 4 mph, 11 blades at 1,000 r/min, rollers 3 and 2.5 in, spacing 103 mm: reel turn 0.72, half the rear roller 0.26.
 */
export function rippleSources(machine: RippleMachine, reading: RippleReading): RippleCandidate[] {
  const weighed = candidatesOf(machine).map((candidate) => ({
    ...candidate,
    probability:
      PRIOR[candidate.source] *
      densityAt(candidate, reading) *
      (reading.second ? secondDensity(candidate, reading.spacingMetres, reading.second) : 1),
  }));
  const total = weighed.reduce((sum, { probability }) => sum + probability, 0);
  return weighed
    .map((one) => ({ ...one, probability: total === 0 ? 0 : one.probability / total }))
    .sort((a, b) => b.probability - a.probability);
}

/** Too close to call: the runner-up has more than a quarter of the leader. */
const CLOSE = 0.25;

/** Whether a second speed would part the two likeliest: one's spacing grows with the speed and the other's does not. */
export function secondSpeedParts([first, second]: readonly RippleCandidate[]): boolean {
  return first !== undefined && second !== undefined && second.probability > CLOSE * first.probability && first.grows !== second.grows;
}

/**
 * The reel's true speed read back from its ripples, r/min with one standard deviation: r/min = 60·speed / (blades × spacing).
 * @example spacing good to 5 % and speed to 10 %: 1,000 ± 112; 2 % and 3 %: ± 36.
 */
export function turnsFromRipples(args: {
  groundMetresPerSecond: number;
  blades: number;
  spacingMetres: number;
  spacingError?: number;
  speedError?: number;
}): { revolutionsPerMinute: number; plusMinus: number } {
  const { spacingError = RIPPLE_ERRORS.spacing, speedError = RIPPLE_ERRORS.speed } = args;
  const revolutionsPerMinute = (60 * args.groundMetresPerSecond) / (args.blades * args.spacingMetres);
  return { revolutionsPerMinute, plusMinus: revolutionsPerMinute * Math.hypot(spacingError, speedError) };
}
