import type { Plane } from "@/core/basics/geometry";
import { featuresOf } from "@/core/catalogue/kinds";
import { targetPressure } from "@/core/checks/tyre-pressure";
import { isRider, type Machine, referenceSpindle, type Spindle } from "@/core/machine";
import type { PassWay } from "@/core/physics/turf";
import { MM } from "./sizes";
import { NO_SPREAD, type Spread } from "./spread";
import { type ReelSide, soundReelSide, usualReelSpeed } from "./units";

export type BladeEnd = {
  /** Radius of the edge, metres; 0.15 mm is sharp. */
  edgeRadiusMetres: number;
  nickMetres: number;
  /** How much higher than straight the end stands, metres. */
  bendMetres: number;
  /** What is gone of the tip, metres. */
  lossMetres: number;
};

export type HiddenBlade = {
  ends: { A: BladeEnd; B: BladeEnd };
  /** Tip to tip as it was fitted. */
  lengthMetres: number;
  /** Thickness of the sail, as a share of new. */
  sailShare: number;
  /** The edge stands that much lower than the sheet's. */
  offsetMetres: number;
  hasOtherLift: boolean;
  isUpsideDown: boolean;
  /** kg·m off its middle. */
  imbalance: number;
  bolt: { isLoose: boolean; stack: "as-sheet" | "washer-reversed" | "part-missing"; seated: "flush" | "proud" };
  /** Between its ends, as the shaft tilts it: end B stands higher by that. */
  shaftMetres: number;
  /** Of the spindle, rigidly: higher than the deck has it. */
  spindleMetres: number;
  /** Its plane tilted over the tip circle, up to the right and to the front. */
  tilt: { right: number; front: number };
  /** Speed without load, as a share of what the drive should give; what it loses more, loaded. */
  speedShare: number;
  loadedLoss: number;
  isStanding: boolean;
  playMetres: number;
  hubKelvin: number;
  feel: "smooth" | "rough";
  wrap: "none" | "grass";
  key: "whole" | "sheared";
  shaftEnd: "true" | "wobbles";
};

export type HiddenBelt = {
  seated: "every-groove" | "off-one";
  state: "sound" | "glazed";
  width: "at-rim" | "below-rim";
  tension: "right" | "slack";
  idlers: "free" | "rough" | "seized" | "loose-rivet";
  spring: "pulls" | "weak";
};

export type HiddenBox = {
  teeth: "whole" | "broken";
  pin: "straight" | "sheared";
  metal: "none" | "chips";
  lowMetres: number;
  seal: "dry" | "weeps" | "runs";
};

/** A machine as it truly is, and the turf and the driving it was complained of on. Nobody reads it; gauges do. SI; heights of tips above the ground. */
export type HiddenState = {
  machine: Machine;
  pressuresPascals: Record<string, number>;
  /** Of the tips, as hangers and spread have it, on right tyres. */
  plane: Plane;
  settingMetres: number;
  hangers: Record<string, "sound" | "missing" | "bent" | "elongated" | "wrong-clip">;
  shell: "sound" | "bent" | "cracked";
  antiScalp: Record<string, { clearanceMetres: number; turns: "free" | "seized" | "missing" }>;
  pack: { depthMetres: number; chute: "open" | "narrowed"; port: "open" | "clogged"; outlet: "free" | "blocked" };
  blades: Record<string, HiddenBlade>;
  belt: HiddenBelt;
  boxes: Record<string, HiddenBox>;
  /** Pairs of geared blades that are out of time. */
  mistimed: string[];
  /** Of the engine or motor, as a share of what the sheet says. */
  engineShare: number;
  isCrankBent: boolean;
  /** Of an engine that runs rough, newtons. */
  engineShake: number;
  clutch: "at-once" | "slips-in" | "drags-off";
  /** What blades lose at low charge, as a share. */
  chargeSag: number;
  groundMetresPerSecond: number;
  passOverlapMetres: number;
  turnRadiusMetres: number;
  passWay: PassWay;
  turf: { isWet: boolean; beforeMetres: number; ground: "flat" | "gentle" | "rough" };
  /** What a belt under the rule of thumb makes of stiffness: good to a factor, one for the whole frame. */
  tyreFactor: number;
  /** Of a reel machine: its units and what goes with them; no units on a rotary. */
  reel: ReelSide;
};

/** What sound machines differ by, one standard deviation (estimate). */
const SOUND = {
  pressurePascals: 2000,
  side: 1.2 * MM,
  rake: 0.8 * MM,
  height: 1.2 * MM,
  spindle: 0.25 * MM,
  end: 0.2 * MM,
  shaft: 0.2 * MM,
  imbalance: 2e-4,
  engine: 0.006,
  creep: 0.004,
  play: 0.15 * MM,
  hubKelvin: 3,
} as const;
/** What the wide world adds: pack under a deck, the driver's own speed, what blades lose unlike each other, how a battery sags, small bends. Estimates. */
const WIDE = { pack: 2.5 * MM, driven: 0.06, loaded: 0.008, sag: 0.015, end: 0.4 * MM } as const;
/** More than this is packed, and no sound deck. Estimate. */
const MOST_SOUND_PACK = 9 * MM;
/** What blades lose at low charge, a share of their speed. Estimate. */
const USUAL_SAG = 0.045;

const SHARP_METRES = 0.15 * MM;
const BELT_CREEP = 0.015;
const SOUND_PLAY = 0.4 * MM;
const USUAL_SETTING = 63.5 * MM;
const USUAL_PRESSURE = 100_000;
const USUAL_PASS_OVERLAP = 76 * MM;
const RIDDEN = 1.8;
const WALKED = 1.2;
const WIDE_TURN = 50;
const CLEARANCE = 12.7 * MM;

/** A sound machine, with the spread sound ones have. */
export function soundState(machine: Machine, spread: Spread = NO_SPREAD): HiddenState {
  const { normal, wide } = spread;
  const isBelt = featuresOf(machine).includes("belt");
  const rake = (machine.sheet.rakeTargetMetres ?? -6 * MM) + normal(SOUND.rake);
  return {
    machine,
    pressuresPascals: Object.fromEntries(
      machine.wheels
        .filter(({ isPneumatic }) => isPneumatic)
        .map((wheel) => [wheel.id, (targetPressure(machine, wheel) ?? USUAL_PRESSURE) + normal(SOUND.pressurePascals)]),
    ),
    plane: planeWith(machine, { settingMetres: USUAL_SETTING + normal(SOUND.height), side: normal(SOUND.side), rake }),
    settingMetres: USUAL_SETTING,
    hangers: Object.fromEntries((machine.deck?.hangers ?? []).map(({ id }) => [id, "sound"])),
    shell: "sound",
    antiScalp: Object.fromEntries(
      (machine.deck?.antiScalpWheels ?? []).map(({ id }) => [id, { clearanceMetres: CLEARANCE + normal(MM), turns: "free" }]),
    ),
    pack: {
      depthMetres: Math.min(MOST_SOUND_PACK, Math.max(0, 3 * MM + normal(MM) + Math.abs(wide(WIDE.pack)))),
      chute: "open",
      port: "open",
      outlet: "free",
    },
    blades: Object.fromEntries(machine.spindles.map((spindle) => [spindle.id, soundBlade(spindle, spread, isBelt)])),
    belt: { seated: "every-groove", state: "sound", width: "at-rim", tension: "right", idlers: "free", spring: "pulls" },
    boxes: Object.fromEntries(
      (machine.sheet.gearboxes ?? []).map(({ id }) => [id, { teeth: "whole", pin: "straight", metal: "none", lowMetres: 0, seal: "dry" }]),
    ),
    mistimed: [],
    engineShare: 1 + normal(SOUND.engine),
    isCrankBent: false,
    engineShake: 0,
    clutch: "at-once",
    chargeSag: Math.max(0, USUAL_SAG + wide(WIDE.sag)),
    groundMetresPerSecond:
      (machine.units.length > 0 ? usualReelSpeed(machine) : isRider(machine) ? RIDDEN : WALKED) * (1 + wide(WIDE.driven)),
    passOverlapMetres: machine.sheet.passOverlapMetres ?? USUAL_PASS_OVERLAP,
    turnRadiusMetres: WIDE_TURN,
    passWay: "one-way",
    turf: { isWet: false, beforeMetres: 1.25 * USUAL_SETTING, ground: "flat" },
    tyreFactor: Math.exp(normal(0.35)),
    reel: soundReelSide(machine, spread),
  };
}

function soundBlade(spindle: Spindle, { normal, wide }: Spread, isBelt: boolean): HiddenBlade {
  const end = (): BladeEnd => ({
    edgeRadiusMetres: SHARP_METRES,
    nickMetres: 0,
    bendMetres: normal(SOUND.end) + wide(WIDE.end),
    lossMetres: 0,
  });
  return {
    ends: { A: end(), B: end() },
    lengthMetres: spindle.tipCircleDiameterMetres,
    sailShare: 0.95,
    offsetMetres: 0,
    hasOtherLift: false,
    isUpsideDown: false,
    imbalance: Math.abs(normal(SOUND.imbalance)),
    bolt: { isLoose: false, stack: "as-sheet", seated: "flush" },
    shaftMetres: normal(SOUND.shaft),
    spindleMetres: normal(SOUND.spindle),
    tilt: { right: 0, front: 0 },
    speedShare: 1 - (isBelt ? BELT_CREEP + Math.abs(normal(SOUND.creep)) : 0),
    loadedLoss: Math.abs(wide(WIDE.loaded)),
    isStanding: false,
    playMetres: Math.max(0, SOUND_PLAY + normal(SOUND.play)),
    hubKelvin: normal(SOUND.hubKelvin),
    feel: "smooth",
    wrap: "none",
    key: "whole",
    shaftEnd: "true",
  };
}

/**
 * The plane of the tips that cuts at a setting: the lower of front and rear tip of the blade heights are set at stands there (physics), with this
 * much side over the swath (right higher) and rake over that blade's tip circle (front higher).
 */
export function planeWith(machine: Machine, { settingMetres, side, rake }: { settingMetres: number; side: number; rake: number }): Plane {
  const reference = referenceSpindle(machine);
  const circle = reference?.tipCircleDiameterMetres ?? 1;
  const [slopeRight, slopeForward] = [side / widthOf(machine), rake / circle];
  const centre = settingMetres + Math.abs(rake) / 2;
  return { height: centre - slopeForward * (reference?.yMetres ?? 0) - slopeRight * (reference?.xMetres ?? 0), slopeRight, slopeForward };
}

/** Between the outermost tips. */
export function widthOf({ spindles }: Pick<Machine, "spindles">): number {
  const ends = spindles.flatMap(({ xMetres, tipCircleDiameterMetres: circle }) => [xMetres - circle / 2, xMetres + circle / 2]);
  return Math.max(MM, Math.max(...ends) - Math.min(...ends));
}
