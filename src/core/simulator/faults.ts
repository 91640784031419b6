import { gammaOfMeanOne, pickOne } from "@/core/basics/random";
import { table } from "@/core/basics/tables";
import type { CauseId } from "@/core/catalogue";
import { isRider } from "@/core/machine";
import { badRadii, bladesOf, leastOverlap, straightOverlaps } from "@/core/physics/blades/overlap";
import { turnThatOpens } from "@/core/physics/reel";
import { MM } from "./sizes";
import { type HiddenBlade, type HiddenState, widthOf } from "./state";
import { PUT_REEL, usualReelSpeed } from "./units";

/** A fault: what it is of, and how bad. Where it sits and which way it goes is drawn when it is put in. */
export type Fault = { cause: CauseId; severity: number };
/** One of no table: named after what stands for it in the diagnosis. */
export const unlistedFault = (id: string, severity: number): Fault => ({ cause: id as CauseId, severity });

const LEAST_SEVERITY = 0.25;
const MOST_SEVERITY = 2.5;
const SHAPE = 4;

/** How bad a fault is: gamma of shape 4 and mean 1, held to 0.25 and 2.5 (estimate). */
export function drawSeverity(random: () => number): number {
  return Math.min(MOST_SEVERITY, Math.max(LEAST_SEVERITY, gammaOfMeanOne(SHAPE, random)));
}

type Put = (state: HiddenState, x: number, random: () => number) => void;

const oneOf = (state: HiddenState, random: () => number): HiddenBlade => pickOne(Object.values(state.blades), random);
const allOf = (state: HiddenState): HiddenBlade[] => Object.values(state.blades);
const endOf = (blade: HiddenBlade, random: () => number) => pickOne([blade.ends.A, blade.ends.B], random);
const sign = (random: () => number): 1 | -1 => (random() < 0.5 ? 1 : -1);

function tiltPlane(state: HiddenState, change: { height?: number; side?: number; rake?: number }): void {
  const { machine, plane } = state;
  const circle = machine.spindles[0]?.tipCircleDiameterMetres ?? 1;
  const middle = machine.spindles.reduce((sum, { yMetres }) => sum + yMetres, 0) / Math.max(1, machine.spindles.length);
  const [right, forward] = [(change.side ?? 0) / widthOf(machine), (change.rake ?? 0) / circle];
  state.plane = {
    height: plane.height + (change.height ?? 0) - forward * middle,
    slopeRight: plane.slopeRight + right,
    slopeForward: plane.slopeForward + forward,
  };
}

/** One corner let down: the deck turns about the line of its two neighbours (physics of a plate on four links). */
export function dropCorner(state: HiddenState, hangerId: string, metres: number): void {
  const hangers = state.machine.deck?.hangers ?? [];
  const corner = hangers.find(({ id }) => id === hangerId);
  if (!corner) return;
  const across = [...hangers].sort(
    (a, b) =>
      Math.hypot(b.xMetres - corner.xMetres, b.yMetres - corner.yMetres) -
      Math.hypot(a.xMetres - corner.xMetres, a.yMetres - corner.yMetres),
  );
  const [first, second] = hangers.filter(({ id }) => id !== hangerId && id !== across[0]?.id);
  if (!first || !second) return;
  // Height over the line of the neighbours, nought on it and one at the corner.
  const [dx, dy] = [second.xMetres - first.xMetres, second.yMetres - first.yMetres];
  const over = (x: number, y: number) => dx * (y - first.yMetres) - dy * (x - first.xMetres);
  const scale = -metres / over(corner.xMetres, corner.yMetres);
  const { plane } = state;
  state.plane = {
    height: plane.height + scale * over(0, 0),
    slopeRight: plane.slopeRight - scale * dy,
    slopeForward: plane.slopeForward + scale * dx,
  };
}

function failHanger(state: HiddenState, x: number, random: () => number): void {
  const hanger = pickOne(state.machine.deck?.hangers ?? [], random);
  if (!hanger) return;
  const draw = random();
  state.hangers[hanger.id] = draw < 0.4 ? "missing" : draw < 0.65 ? "bent" : draw < 0.9 ? "elongated" : "wrong-clip";
  dropCorner(state, hanger.id, (3 + 9 * x) * MM);
}

function bendShell(state: HiddenState, x: number, random: () => number): void {
  const blade = oneOf(state, random);
  blade.spindleMetres -= (1 + 2 * x) * MM;
  const angle = 2 * Math.PI * random();
  const tilt = (2 + 4 * x) * MM;
  blade.tilt = { right: tilt * Math.cos(angle), front: tilt * Math.sin(angle) };
  state.shell = random() < 0.5 ? "cracked" : "bent";
}

function missetWheel(state: HiddenState, x: number, random: () => number): void {
  const wheel = pickOne(Object.values(state.antiScalp), random);
  if (!wheel) return;
  const draw = random();
  if (draw < 0.4) wheel.clearanceMetres = (20 + 15 * x) * MM;
  else if (draw < 0.6) wheel.clearanceMetres = Math.max(0, 5 - 4 * x) * MM;
  else wheel.turns = draw < 0.8 ? "seized" : "missing";
}

function wrongPart(state: HiddenState, x: number, random: () => number): void {
  const blade = oneOf(state, random);
  const draw = random();
  if (draw < 0.35) blade.lengthMetres -= (6 + 9 * x) * MM;
  else if (draw < 0.7) blade.hasOtherLift = true;
  else blade.offsetMetres += (3 + 4 * x) * MM;
}

function loosen(state: HiddenState, x: number, random: () => number): void {
  const blade = oneOf(state, random);
  const draw = random();
  if (draw < 0.4) {
    blade.bolt.isLoose = true;
    blade.loadedLoss += 0.3 * x;
  } else if (draw < 0.7) blade.bolt.stack = "washer-reversed";
  else if (draw < 0.85) blade.bolt.stack = "part-missing";
  else blade.bolt.seated = "proud";
}

/** Of belts that slip, so many do only under load. Estimate. */
const HOLDS_UNLOADED = 0.3;

function slipBelt(state: HiddenState, x: number, random: () => number): void {
  const slipping = random() < 0.6 ? allOf(state) : [oneOf(state, random)];
  // Some hold until they are loaded.
  const holds = random() < HOLDS_UNLOADED;
  for (const blade of slipping) {
    if (!holds) blade.speedShare -= (1.5 + 2 * x) / 100;
    blade.loadedLoss += (6 + 8 * x) / 100;
  }
  const draw = random();
  if (draw < 0.35) state.belt.state = "glazed";
  else if (draw < 0.6) state.belt.width = "below-rim";
  else if (draw < 0.85) state.belt.tension = "slack";
  else state.belt.spring = "weak";
}

function wearShort(state: HiddenState, x: number): void {
  const swept = () => state.machine.spindles.map((spindle) => ({ ...spindle, lengthMetres: state.blades[spindle.id]?.lengthMetres ?? 0 }));
  const least = leastOverlap(straightOverlaps(swept()));
  // All alike, until the least that neighbours share is what it says.
  const off = Number.isFinite(least) ? Math.max(0, least - (5 - 5 * x) * MM) : (6 + 6 * x) * MM;
  for (const blade of allOf(state)) blade.lengthMetres -= off;
}

/** A turn within the radii in which this deck's blades lose each other; a deck that never does is turned as tightly as one likes. */
function tightenTurn(state: HiddenState, x: number): void {
  if (state.machine.units.length > 0) {
    const opens = turnThatOpens(state.machine.units, 1);
    if (opens) state.turnRadiusMetres = opens.underMetres * Math.max(0.4, 0.9 - 0.15 * x);
    return;
  }
  const bands = badRadii({ blades: bladesOf(state.machine), side: 1, limitMetres: 0 }).filter(({ toMetres }) => toMetres < 20);
  const worst = [...bands].sort((a, b) => a.worstMetres - b.worstMetres)[0];
  if (!worst) return;
  // Well into the band the worse it is, up to where it is worst.
  const depth = Math.min(1, 0.3 + 0.35 * x);
  state.turnRadiusMetres = worst.toMetres + depth * (worst.worstAtMetres - worst.toMetres);
}

/** What each cause changes (estimate). A blade stands or a belt is off in whole machines where that is what is drawn. */
const PUT: Partial<Record<CauseId, Put>> = {
  "tyres-unequal": (state, x, random) => {
    const wheel = pickOne(Object.keys(state.pressuresPascals), random);
    if (wheel) state.pressuresPascals[wheel] = Math.max(0, (state.pressuresPascals[wheel] ?? 0) - (7 + 14 * x) * 1000);
  },
  "tyres-off-spec": (state, x, random) => {
    const off = (7 + 14 * x) * 1000 * (random() < 0.7 ? -1 : 1);
    for (const wheel of Object.keys(state.pressuresPascals))
      state.pressuresPascals[wheel] = Math.max(0, (state.pressuresPascals[wheel] ?? 0) + off);
  },
  "deck-out-of-level": (state, x, random) => tiltPlane(state, { side: sign(random) * (3 + 6 * x) * MM }),
  "deck-rake-wrong": (state, x, random) => tiltPlane(state, { rake: (random() < 0.65 ? 1 : -1) * (2 + 4 * x) * MM }),
  "hanger-failed": failHanger,
  "deck-shell-bent": bendShell,
  "anti-scalp-misset": missetWheel,
  "height-misset": (state, x, random) => tiltPlane(state, { height: sign(random) * (3 + 4 * x) * MM }),
  "deck-packed": (state, x, random) => {
    state.pack = {
      ...state.pack,
      depthMetres: (10 + 12 * x) * MM,
      chute: x > 0.8 ? "narrowed" : "open",
      port: random() < 0.5 ? "clogged" : "open",
    };
  },
  "blade-dull": (state, x) => {
    for (const { ends } of allOf(state)) for (const end of [ends.A, ends.B]) end.edgeRadiusMetres = (0.3 + 0.5 * x) * MM;
  },
  "blade-damaged": (state, x, random) => {
    const blade = oneOf(state, random);
    const end = endOf(blade, random);
    end.nickMetres = (1.5 + 2.5 * x) * MM;
    blade.imbalance += (50 + 150 * x) * 1e-6;
    if (random() < 0.4) end.lossMetres = (3 + 6 * x) * MM;
  },
  "blade-bent": (state, x, random) => {
    endOf(oneOf(state, random), random).bendMetres += (random() < 0.7 ? -1 : 1) * (1.5 + 3.5 * x) * MM;
  },
  "spindle-shaft-bent": (state, x, random) => {
    oneOf(state, random).shaftMetres += sign(random) * (1.5 + 2.5 * x) * MM;
  },
  "blade-unbalanced": (state, x, random) => {
    oneOf(state, random).imbalance += (700 + 900 * x) * 1e-6;
  },
  "blade-upside-down": (state, _, random) => {
    for (const blade of random() < 0.6 ? [oneOf(state, random)] : allOf(state)) blade.isUpsideDown = true;
  },
  "blade-wrong-part": wrongPart,
  "blade-worn-short": (state, x) => wearShort(state, x),
  "blade-sail-worn": (state, x) => {
    for (const blade of allOf(state)) blade.sailShare = 0.52 - 0.12 * x;
  },
  "blade-loose": loosen,
  "belt-off": (state, _, random) => {
    for (const blade of random() < 0.75 ? [oneOf(state, random)] : allOf(state)) blade.isStanding = true;
    state.belt.seated = "off-one";
  },
  "belt-slipping": slipBelt,
  "idler-failing": (state, _, random) => {
    const draw = random();
    state.belt.idlers = draw < 0.6 ? "rough" : draw < 0.8 ? "seized" : "loose-rivet";
  },
  "engine-speed-low": (state, x) => {
    state.engineShare *= 1 - (5 + 7 * x) / 100;
  },
  "shaft-wrapped": (state, x, random) => {
    const blade = oneOf(state, random);
    blade.wrap = "grass";
    blade.hubKelvin += 8 + 15 * x;
  },
  "gear-teeth-broken": (state, _, random) => {
    const box = pickOne(Object.values(state.boxes), random);
    if (!box) return;
    box.teeth = "broken";
    box.metal = "chips";
    if (random() < 0.8) oneOf(state, random).isStanding = true;
  },
  "gearbox-pin-sheared": (state, _, random) => {
    const box = pickOne(Object.values(state.boxes), random);
    if (!box) return;
    box.pin = "sheared";
    if (random() < 0.8) oneOf(state, random).isStanding = true;
  },
  "gearbox-mistimed": (state, _, random) => {
    const across = [...state.machine.spindles].sort((a, b) => a.xMetres - b.xMetres);
    const pair = pickOne(
      across.slice(1).map((other, k) => `${across[k]?.id}:${other.id}`),
      random,
    );
    if (pair) state.mistimed.push(pair);
  },
  "gearbox-oil-low": (state, x, random) => {
    const box = pickOne(Object.values(state.boxes), random);
    if (box) Object.assign(box, { lowMetres: (4 + 8 * x) * MM, seal: x > 1.2 ? "runs" : "weeps" });
  },
  "spindle-bearing-worn": (state, x, random) => {
    const blade = oneOf(state, random);
    blade.playMetres = (1 + 1.5 * x) * MM;
    blade.hubKelvin += 12 + 18 * x;
    if (random() < 0.45 + 0.3 * x) blade.feel = "rough";
  },
  "crankshaft-bent": (state, x, random) => {
    const blade = oneOf(state, random);
    state.isCrankBent = true;
    blade.shaftEnd = "wobbles";
    blade.shaftMetres += (1.5 + 2 * x) * MM;
  },
  "key-sheared": (state, _, random) => {
    oneOf(state, random).key = "sheared";
  },
  "discharge-blocked": (state) => {
    state.pack.outlet = "blocked";
  },
  "engine-rough": (state, x) => {
    state.engineShake = 90 + 110 * x;
  },
  "pto-failing": (state, x, random) => {
    state.clutch = random() < 0.7 ? "slips-in" : "drags-off";
    for (const blade of Object.values(state.blades)) blade.loadedLoss = 1 - (1 - blade.loadedLoss) * (1 - (3 + 4 * x) / 100);
  },
  "ground-speed-high": (state, x) => {
    if (state.machine.units.length > 0) state.groundMetresPerSecond = isRider(state.machine) ? 2.6 + 0.5 * x : 1.7 + 0.3 * x;
    else state.groundMetresPerSecond = isRider(state.machine) ? 3 + 0.6 * x : 1.7 + 0.3 * x;
  },
  "ground-speed-low": (state, x) => {
    state.groundMetresPerSecond = 0.67 / (1 + 0.4 * x);
  },
  "pass-overlap-small": (state, x) => {
    state.passOverlapMetres = (20 - 25 * x) * MM;
  },
  "turn-too-tight": tightenTurn,
  "too-wet-or-tall": (state, x, random) => {
    const draw = random();
    const [isWet, isTall] = [draw < 0.3 || draw >= 0.7, draw >= 0.3];
    state.turf.isWet ||= isWet;
    if (isTall) state.turf.beforeMetres = (1.5 + 0.45 * x) * state.settingMetres;
  },
  "ground-undulates": (state, x, random) => {
    state.turf.ground = random() < 0.4 + 0.4 * x ? "rough" : "gentle";
  },
};

/** What is in no table and yet moves a reading: a bent frame or axle, a worn linkage, a governor, a weak pump. Estimates. */
const PUT_UNLISTED: Readonly<Record<string, Put>> = table({
  "unlisted-side": (state, x, random) => tiltPlane(state, { side: sign(random) * (6 + 3 * x) * MM }),
  "unlisted-rake": (state, x, random) => tiltPlane(state, { rake: sign(random) * (3 + 3 * x) * MM }),
  "unlisted-height": (state, x, random) => tiltPlane(state, { height: sign(random) * (3 + 4 * x) * MM }),
  "unlisted-blade-speed": (state, x) => {
    state.engineShare *= 1 - (5 + 7 * x) / 100;
  },
  // A pump slows them all, a valve or a motor the one.
  "unlisted-reel-speed": (state, x, random) => {
    const unit = random() < 0.5 ? pickOne(Object.values(state.reel.units), random) : undefined;
    if (unit) unit.speedShare *= 1 - (5 + 7 * x) / 100;
    else state.engineShare *= 1 - (5 + 7 * x) / 100;
  },
  "unlisted-unit-height": (state, x, random) => {
    const unit = pickOne(Object.values(state.reel.units), random);
    if (unit) unit.heightOffMetres += sign(random) * (0.1 + 0.25 * x) * MM;
  },
});
export const UNLISTED: readonly string[] = Object.keys(PUT_UNLISTED);

/** Causes the model knows how to put into a machine. */
export const MODELLED = [...new Set([...Object.keys(PUT), ...Object.keys(PUT_REEL)])] as CauseId[];

/** Puts a fault into a state. Whatever it needs that the machine lacks (gearboxes, hangers) leaves it as it is. */
export function putIn(state: HiddenState, { cause, severity }: Fault, random: () => number): void {
  const { machine } = state;
  const unlisted = PUT_UNLISTED[cause];
  if (unlisted) {
    unlisted(state, severity, random);
    return;
  }
  const ownReel = machine.units.length > 0 ? PUT_REEL[cause] : undefined;
  if (!ownReel) {
    PUT[cause]?.(state, severity, random);
    return;
  }
  ownReel(state.reel, severity, random, machine);
  // Driven so that the clip comes out; what only the ground turns is geared so.
  if (cause === "clip-too-long" || cause === "clip-too-short") {
    if (!machine.sheet.reelDrive?.isGroundDriven) state.groundMetresPerSecond = usualReelSpeed(machine, state.reel.clipShare);
  }
}
