import { pickOne } from "@/core/basics/random";
import type { CauseId, ContactSchool } from "@/core/catalogue";
import { benchHeight, type Machine, reelBladesOf, schoolOf, type Unit, unitSheetOf } from "@/core/machine";
import { type Along, edgeShare, type Paper, type ReelTurns, speedForClip } from "@/core/physics/reel";
import { MM } from "./sizes";
import type { Spread } from "./spread";

/** A reel unit as it truly is. Metres; edges as radii. */
export type HiddenUnit = {
  edgeMetres: number;
  nick: "none" | "knife" | "reel";
  /** Between reel and knife at the middle; negative is pressed. */
  gapMetres: number;
  /** Right end's gap less the left's. */
  taperMetres: number;
  /** Right end's diameter less the left's. */
  coneMetres: number;
  /** Middle of the knife further off than its ends. */
  hollowMetres: number;
  /** A reel blade that stands off the others, numbered from 1; `byMetres` positive stands proud. */
  oddBlade?: { number: number; byMetres: number };
  reelLiftMetres: number;
  isWound: boolean;
  rollerLiftMetres: number;
  squareMetres: number;
  isBracketOff: boolean;
  packMetres: number;
  isLumpy: boolean;
  heightOffMetres: number;
  hasOtherPart: boolean;
  /** Clear under the heel, of the height; `isHeelLow` where a knife too thick takes it. */
  heelShare: number;
  isHeelLow: boolean;
  /** Past what the sheet allows; what sound units differ by within it. */
  attitudeOffRadians: number;
  attitudeSpreadRadians: number;
  groomerShare: number;
  /** Its turning, of what all of them are driven at: oil that leaks by, a motor of its own. */
  speedShare: number;
  armPlayMetres: number;
  skewRadians: number;
  hood: "as-set" | "open" | "closed";
};

/** Edges of a sharp reel, and where feeling tells: dull from, rounded from. Estimates. */
export const UNIT_EDGE = { sharp: 0.012 * MM, dull: 0.022 * MM, rounded: 0.04 * MM } as const;
/** Where each school sets the gap. Estimates. */
const SET_GAP: Record<ContactSchool, number> = { "no-contact": 0.03 * MM, "light-contact": 0, "firm-contact": -0.008 * MM };
const SOUND = { gap: 0.004 * MM, taper: 0.004 * MM, square: 0.015 * MM, height: 0.015 * MM } as const;
/** Clip of a machine driven as it should be, as a share of the height. */
export const USUAL_CLIP_SHARE = 0.7;

/** What the wide world adds: a film on the rollers, heels, groomers, skews and attitudes each a little other, reels that turn unlike. Estimates. */
const WIDE = {
  pack: 0.2 * MM,
  heel: 0.06,
  groomer: 0.04,
  skew: (0.25 * Math.PI) / 180,
  attitude: (0.5 * Math.PI) / 180,
  speed: 0.012,
} as const;
export const SOUND_HEEL = 0.7;

export function soundUnit(machine: Machine, unit: Unit, { normal, wide }: Spread): HiddenUnit {
  return {
    edgeMetres: UNIT_EDGE.sharp,
    nick: "none",
    gapMetres: SET_GAP[schoolOf(machine, unit.id)] + normal(SOUND.gap),
    taperMetres: normal(SOUND.taper),
    coneMetres: normal(0.03 * MM),
    hollowMetres: 0,
    reelLiftMetres: Math.abs(normal(0.015 * MM)),
    rollerLiftMetres: Math.abs(normal(0.03 * MM)),
    isWound: false,
    squareMetres: normal(SOUND.square),
    isBracketOff: false,
    packMetres: Math.abs(wide(WIDE.pack)),
    isLumpy: false,
    heightOffMetres: normal(SOUND.height),
    hasOtherPart: false,
    heelShare: SOUND_HEEL + wide(WIDE.heel),
    isHeelLow: false,
    attitudeOffRadians: 0,
    attitudeSpreadRadians: wide(WIDE.attitude),
    groomerShare: 0.15 + wide(WIDE.groomer),
    speedShare: 1 + wide(WIDE.speed),
    armPlayMetres: Math.abs(0.5 * MM + normal(0.2 * MM)),
    skewRadians: wide(WIDE.skew),
    hood: "as-set",
  };
}

/** How fast it is driven for its usual clip. */
export function usualReelSpeed(machine: Machine, share = USUAL_CLIP_SHARE): number {
  const blades = reelBladesOf(machine, machine.units[0]?.id ?? "");
  const revolutionsPerMinute = machine.sheet.reelDrive?.revolutionsPerMinute ?? 1200;
  return speedForClip({ clipMetres: share * benchHeight(machine), blades, revolutionsPerMinute });
}

/** What a reel machine carries besides its units. */
export type ReelSide = {
  units: Record<string, HiddenUnit>;
  /** Of what the sheet gives, by belt, oil or gearing. */
  clipShare: number;
  /** Into the turf, all units alike. */
  sinksMetres: number;
  thatchMetres: number;
  isOneWay: boolean;
  hasRolledLines: boolean;
};

export const soundReelSide = (machine: Machine, draws: Spread): ReelSide => ({
  units: Object.fromEntries(machine.units.map((unit) => [unit.id, soundUnit(machine, unit, draws)])),
  clipShare: USUAL_CLIP_SHARE,
  sinksMetres: 0,
  thatchMetres: 8 * MM,
  isOneWay: false,
  hasRolledLines: false,
});

type Put = (side: ReelSide, x: number, random: () => number, machine: Machine) => void;
const one = (side: ReelSide, random: () => number): HiddenUnit => pickOne(Object.values(side.units), random) as HiddenUnit;
const all = (side: ReelSide): HiddenUnit[] => Object.values(side.units);
const sign = (random: () => number): 1 | -1 => (random() < 0.5 ? 1 : -1);

/** What each reel cause changes (estimates). */
export const PUT_REEL: Partial<Record<CauseId, Put>> = {
  "reel-dull": (side, x) => {
    for (const unit of all(side)) unit.edgeMetres = (25 + 35 * x) * 0.001 * MM;
  },
  "edge-nicked": (side, _x, random) => {
    one(side, random).nick = random() < 0.6 ? "knife" : "reel";
  },
  "contact-loose": (side, x, random) => {
    for (const unit of random() < 0.5 ? all(side) : [one(side, random)]) unit.gapMetres += (0.04 + 0.06 * x) * MM;
  },
  "contact-tight": (side, x, random) => {
    for (const unit of random() < 0.5 ? all(side) : [one(side, random)]) unit.gapMetres -= (0.025 + 0.03 * x) * MM;
  },
  "contact-tapered": (side, x, random) => {
    const unit = one(side, random);
    if (random() < 0.6) unit.taperMetres += sign(random) * (0.04 + 0.06 * x) * MM;
    else unit.coneMetres += sign(random) * (0.25 + 0.25 * x) * MM;
  },
  "bedknife-worn-hollow": (side, x, random) => {
    one(side, random).hollowMetres = (0.04 + 0.05 * x) * MM;
  },
  "reel-blade-high": (side, x, random) => {
    one(side, random).oddBlade = { number: 1 + Math.floor(random() * 8), byMetres: sign(random) * (0.05 + 0.06 * x) * MM };
  },
  "bedknife-too-thick": (side, x, random) => {
    Object.assign(one(side, random), { heelShare: Math.max(0.02, 0.33 - 0.25 * x), isHeelLow: true });
  },
  "bedknife-attitude-wrong": (side, x, random) => {
    one(side, random).attitudeOffRadians = (sign(random) * (1 + 1.2 * x) * Math.PI) / 180;
  },
  "reel-bearing-worn": (side, x, random) => {
    one(side, random).reelLiftMetres = (0.1 + 0.2 * x) * MM;
  },
  "shaft-wrapped": (side, _x, random) => {
    one(side, random).isWound = true;
  },
  "roller-bearing-worn": (side, x, random) => {
    one(side, random).rollerLiftMetres = (0.25 + 0.45 * x) * MM;
  },
  "front-roller-not-square": (side, x, random) => {
    one(side, random).squareMetres = sign(random) * (0.05 + 0.3 * x) * MM;
  },
  "front-roller-position": (side, _x, random) => {
    one(side, random).isBracketOff = true;
  },
  "roller-packed": (side, x, random) => {
    for (const unit of random() < 0.5 ? all(side) : [one(side, random)]) {
      unit.packMetres = (1 + 1.2 * x) * MM;
      unit.isLumpy = random() < 0.4;
    }
  },
  "roller-sinks": (side, x) => {
    side.sinksMetres += (0.25 + 0.37 * x) * MM;
  },
  "thatch-build-up": (side, x) => {
    side.sinksMetres += (0.15 + 0.25 * x) * MM;
    side.thatchMetres = (12.7 + 8 * x) * MM;
  },
  "units-not-alike": (side, x, random) => {
    const unit = one(side, random);
    if (random() < 0.6) unit.heightOffMetres += sign(random) * (0.05 + 0.25 * x) * MM;
    else unit.hasOtherPart = true;
  },
  "height-misset": (side, x, random) => {
    const off = sign(random) * (0.25 + 0.37 * x) * MM;
    for (const unit of all(side)) unit.heightOffMetres += off;
  },
  "clip-too-long": (side, x) => {
    side.clipShare = 1 + 0.45 * x;
  },
  "clip-too-short": (side, x) => {
    side.clipShare = 0.33 / (1 + 0.35 * x);
  },
  "groomer-aggressive": (side, x, random) => {
    one(side, random).groomerShare = 0.5 + 0.3 * x;
  },
  "groomer-shy": (side, x) => {
    for (const unit of all(side)) unit.groomerShare = -(0.1 + 0.2 * x);
  },
  "arm-worn-or-bent": (side, x, random) => {
    const unit = one(side, random);
    unit.armPlayMetres = (2 + 3 * x) * MM;
    unit.skewRadians = (sign(random) * (1 + 1.5 * x) * Math.PI) / 180;
  },
  "hood-misset": (side, _x, random) => {
    one(side, random).hood = random() < 0.5 ? "open" : "closed";
  },
  "same-direction": (side) => {
    side.isOneWay = true;
  },
  "roller-overlap": (side) => {
    side.hasRolledLines = true;
  },
};

/** Share of a front roller that reaches the edge. */
const shareOf = (machine: Pick<Machine, "units" | "sheet">, id: string): number => {
  const view = unitSheetOf(machine, id).sideView;
  return view ? edgeShare(view) : 0.5;
};

/** What a unit leaves over its setting, and how much one end of it stands over the other (physics). */
export function unitCut(machine: Machine, id: string, side: ReelSide): { overMetres: number; tiltMetres: number } {
  const unit = side.units[id] as HiddenUnit;
  const share = shareOf(machine, id);
  return {
    overMetres: unit.heightOffMetres + unit.packMetres - side.sinksMetres,
    tiltMetres: Math.abs(unit.squareMetres * share) + Math.abs(unit.coneMetres) / 2 + unit.rollerLiftMetres * share,
  };
}

/** Gap of a reel blade at a place along the knife; `blades` on the reel. */
export function gapAt(unit: HiddenUnit, along: Along, blade: number): number {
  const u = along === "left" ? -0.5 : along === "right" ? 0.5 : 0;
  const odd = unit.oddBlade;
  // A proud blade holds the knife off all the others; a short one only does not reach.
  const off =
    odd === undefined ? 0 : odd.byMetres > 0 ? (blade === odd.number ? 0 : odd.byMetres) : blade === odd.number ? -odd.byMetres : 0;
  return unit.gapMetres + unit.taperMetres * u + (along === "middle" ? unit.hollowMetres : 0) + off;
}

const STIFF = -0.018 * MM;
const CUTS = 0.022 * MM;
const PINCHES = 0.045 * MM;
const DRAGS = 0.005 * MM;

/** What a strip of paper does at a gap with an edge so sharp, with a hand's noise (estimate). */
export function paperAt(gapMetres: number, edgeMetres: number, noise: number): Paper {
  const g = gapMetres + 0.6 * (edgeMetres - UNIT_EDGE.sharp) + noise;
  return g <= CUTS ? "cut" : g <= PINCHES ? "pinched" : "passes";
}

/** How the reel turns by its tightest place. */
export function turnsAt(unit: HiddenUnit, noise: number): ReelTurns {
  const tightest =
    Math.min(...(["left", "middle", "right"] as const).map((along) => gapAt(unit, along, unit.oddBlade?.number ?? 1))) + noise;
  return tightest < STIFF ? "stiff" : tightest < DRAGS ? "light-drag" : "free";
}

/** However close the knife is brought, an edge so round pinches paper. Estimate. */
export const WILL_NOT_METRES = 0.035 * MM;
