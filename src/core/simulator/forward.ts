import { type Plane, planeHeight } from "@/core/basics/geometry";
import { frameOn, targetPressure } from "@/core/checks/tyre-pressure";
import { type Direction, tipAt, type Wheel } from "@/core/machine";
import { leastOverlap, straightOverlaps, turnOverlaps } from "@/core/physics/blades/overlap";
import { paperSpeed } from "@/core/physics/drive/paper";
import { type CutPoint, cutSection } from "@/core/physics/turf";
import { predictTipChange } from "@/core/physics/tyres";
import { MM } from "./sizes";
import type { HiddenBlade, HiddenState } from "./state";

const RADIANS = (2 * Math.PI) / 60;
const USUAL_BLADE_SPEED = 3000;
const USUAL_DROOP = 0.06;

/** How far the tyres let the deck down at a place against right ones, metres, positive up; nothing where it does not hang on the frame. */
export function tyreChange(state: HiddenState, place: { x: number; y: number }): number {
  const { machine, pressuresPascals } = state;
  if (!machine.frame || machine.deck?.mount !== "frame-hung") return 0;
  const right = (wheel: Wheel) => targetPressure(machine, wheel) ?? pressuresPascals[wheel.id] ?? 1;
  if (machine.wheels.some((wheel) => wheel.isPneumatic && (pressuresPascals[wheel.id] ?? 0) <= 0)) return 0;
  const [change] =
    predictTipChange({
      now: frameOn(machine, (wheel) => pressuresPascals[wheel.id] ?? right(wheel)),
      reference: frameOn(machine, right),
      tips: [place],
    }) ?? [];
  return (change?.change ?? 0) * state.tyreFactor;
}

/** The plane of the whole deck as it stands: hung, and on its tyres. */
export function deckPlane(state: HiddenState): Plane {
  const { plane } = state;
  const at = (x: number, y: number) => tyreChange(state, { x, y });
  const [origin, right, forward] = [at(0, 0), at(1, 0), at(0, 1)];
  return {
    height: plane.height + origin,
    slopeRight: plane.slopeRight + right - origin,
    slopeForward: plane.slopeForward + forward - origin,
  };
}

/** The plane an end of a blade sweeps: the deck's, its spindle's own, what the sheet's offset and its bend make of it (physics). */
function planeOf(state: HiddenState, spindleId: string, low: number, deck = deckPlane(state)): Plane {
  const spindle = state.machine.spindles.find(({ id }) => id === spindleId);
  const blade = state.blades[spindleId];
  if (!spindle || !blade) throw new Error(`no spindle ${spindleId}`);
  const { tilt, spindleMetres } = blade;
  const circle = spindle.tipCircleDiameterMetres;
  const [right, forward] = [tilt.right / circle, tilt.front / circle];
  return {
    height: deck.height + spindleMetres + low - right * spindle.xMetres - forward * spindle.yMetres,
    slopeRight: deck.slopeRight + right,
    slopeForward: deck.slopeForward + forward,
  };
}

/** How much higher than the blade's plane an end cuts; upside down its edge stands on the far side of the blade. */
function endOver(blade: HiddenBlade, end: "A" | "B", thicknessMetres: number, offsetMetres: number): number {
  const shaft = (end === "B" ? 1 : -1) * (blade.shaftMetres / 2);
  const turned = blade.isUpsideDown ? 2 * offsetMetres - thicknessMetres : 0;
  return blade.ends[end].bendMetres + shaft - blade.offsetMetres + turned;
}

const over = (state: HiddenState, id: string, end: "A" | "B"): number => {
  const { offsetMetres = 12 * MM, thicknessMetres = 6 * MM } = state.machine.sheet.blade ?? {};
  return endOver(state.blades[id] as HiddenBlade, end, thicknessMetres, offsetMetres);
};

/** The lower end of a blade: what it leaves. */
const lowOf = (state: HiddenState, id: string): number => Math.min(over(state, id, "A"), over(state, id, "B"));

/** Height of an end of a blade where it points, metres above the ground. */
export function tipHeight(state: HiddenState, args: { spindleId: string; direction: Direction; end: "A" | "B"; deck?: Plane }): number {
  const spindle = state.machine.spindles.find(({ id }) => id === args.spindleId);
  if (!spindle) throw new Error(`no spindle ${args.spindleId}`);
  return planeHeight(planeOf(state, args.spindleId, over(state, args.spindleId, args.end), args.deck), tipAt(spindle, args.direction));
}

/** Twice its reach as it turns: where one tip is short the other still cuts. */
export const sweptLength = ({ lengthMetres, ends }: HiddenBlade): number =>
  lengthMetres - 2 * Math.min(ends.A.lossMetres, ends.B.lossMetres);

/** Tip to tip, as a tape has it. */
export const tapedLength = ({ lengthMetres, ends }: HiddenBlade): number => lengthMetres - ends.A.lossMetres - ends.B.lossMetres;

/** What a straight pass leaves across the swath. A blade that stands leaves what was there. */
export function sectionOf(state: HiddenState): CutPoint[] {
  const deck = deckPlane(state);
  const turning = state.machine.spindles.filter(({ id }) => state.blades[id]?.isStanding === false);
  const ends = turning.flatMap(({ xMetres, tipCircleDiameterMetres: circle }) => [xMetres - circle / 2, xMetres + circle / 2]);
  if (turning.length === 0) return [];
  return cutSection({
    spindles: turning,
    planeOf: (spindle) => planeOf(state, spindle.id, lowOf(state, spindle.id), deck),
    from: Math.min(...ends),
    to: Math.max(...ends),
  });
}

/** So wide a strip along each edge is what an eye compares with the pass beside it. Estimate. */
const EDGE_STRIP_METRES = 32 * MM;

/**
 * The ledge a pass leaves against the next one, over a strip along each edge of the swath: mown one way what an eye compares, up and down only
 * as much of it as the passes overlap.
 */
export function ledgeOf(state: HiddenState): number {
  const cut = sectionOf(state).filter((point): point is CutPoint & { height: number } => point.height !== undefined);
  const [first, last] = [cut[0]?.x ?? 0, cut.at(-1)?.x ?? 0];
  const mean = (points: readonly { height: number }[]) => points.reduce((sum, { height }) => sum + height, 0) / Math.max(1, points.length);
  const left = mean(cut.filter(({ x }) => x <= first + EDGE_STRIP_METRES));
  const right = mean(cut.filter(({ x }) => x >= last - EDGE_STRIP_METRES));
  const whole = Math.abs(right - left);
  return state.passWay === "one-way" ? whole : (whole * Math.max(0, state.passOverlapMetres)) / Math.max(MM, last - first);
}

/** How far the blade that stands out most lies off the others' line, at their middles. */
export function oddBladeOf(state: HiddenState): number {
  const deck = deckPlane(state);
  const spindles = [...state.machine.spindles].sort((a, b) => a.xMetres - b.xMetres);
  if (spindles.length < 2) return 0;
  const off = spindles.map(({ id, xMetres, yMetres }) => {
    const own = planeOf(state, id, lowOf(state, id), deck);
    return planeHeight(own, { x: xMetres, y: yMetres }) - planeHeight(deck, { x: xMetres, y: yMetres });
  });
  return Math.max(
    ...off.map((own, k) => {
      const others = off.filter((_, other) => other !== k);
      return Math.abs(own - others.reduce((sum, one) => sum + one, 0) / others.length);
    }),
  );
}

export type Cut = { meanMetres: number; lowestMetres: number };

/** Mean and lowest of what a pass leaves. */
export function cutOf(state: HiddenState): Cut {
  const heights = sectionOf(state).flatMap(({ height }) => (height === undefined ? [] : [height]));
  if (heights.length === 0) return { meanMetres: state.turf.beforeMetres, lowestMetres: state.turf.beforeMetres };
  return { meanMetres: heights.reduce((sum, one) => sum + one, 0) / heights.length, lowestMetres: Math.min(...heights) };
}

/** What neighbours share, straight and in the turn, whichever is less; infinite for one blade. */
export function overlapOf(state: HiddenState): number {
  const swept = state.machine.spindles.map((spindle) => ({
    ...spindle,
    lengthMetres: sweptLength(state.blades[spindle.id] as HiddenBlade),
  }));
  return Math.min(leastOverlap(straightOverlaps(swept)), leastOverlap(turnOverlaps(swept, state.turnRadiusMetres)));
}

/** How hard the blades work, 1 for a third of the leaf off dry grass (estimate). */
export function loadOf(state: HiddenState): number {
  const ratio = state.turf.beforeMetres / state.settingMetres;
  const blades = Object.values(state.blades);
  const isDull = blades.some(({ ends }) => ends.A.edgeRadiusMetres > 0.25 * MM);
  const isWound = blades.some(({ wrap }) => wrap !== "none");
  const isFast = state.groundMetresPerSecond > 2.5;
  const packed = Math.min(0.8, Math.max(0, (state.pack.depthMetres - 5 * MM) / (20 * MM)) * 0.8);
  return Math.max(
    0.2,
    1 + 1.5 * (ratio - 1.3) + (state.turf.isWet ? 0.4 : 0) + packed + 0.3 * (Number(isDull) + Number(isWound) + Number(isFast)),
  );
}

/** Speed of a blade without and under load, r/min: engine, drive, slip, and what its load takes (physics; droop estimate). */
export function speedsOf(state: HiddenState, spindleId: string): { free: number; loaded: number } {
  const { machine } = state;
  const spindle = machine.spindles.find(({ id }) => id === spindleId);
  const blade = state.blades[spindleId];
  if (!spindle || !blade) throw new Error(`no spindle ${spindleId}`);
  if (blade.isStanding) return { free: 0, loaded: 0 };
  const rated = paperSpeed(machine, spindle, {}) ?? machine.sheet.blade?.ratedRevolutionsPerMinute ?? USUAL_BLADE_SPEED;
  const free = rated * state.engineShare * blade.speedShare;
  const droop = (machine.sheet.drive?.usualDroop ?? USUAL_DROOP) * loadOf(state);
  return { free, loaded: free * Math.max(0, 1 - droop) * Math.max(0, 1 - blade.loadedLoss) };
}

const USUAL_MASS = 0.9;

/** The force that shakes the machine, newtons: out of balance, and out of true over 150 mm of bearing (physics). */
export function shakeOf(state: HiddenState): number {
  return Math.hypot(bladeShakeOf(state), state.engineShake);
}

/** What of it is there only while the blades turn. */
export function bladeShakeOf(state: HiddenState): number {
  const mass = state.machine.sheet.blade?.massKilograms ?? USUAL_MASS;
  const squared = state.machine.spindles.reduce((sum, { id, tipCircleDiameterMetres: length }) => {
    const blade = state.blades[id] as HiddenBlade;
    const omega = speedsOf(state, id).free * RADIANS;
    const bend = Math.max(Math.abs(blade.ends.A.bendMetres), Math.abs(blade.ends.B.bendMetres));
    const couple = (mass / 6) * 0.4 * length * bend + ((mass * length * length) / 12) * (Math.abs(blade.shaftMetres) / length);
    return sum + (blade.imbalance * omega ** 2) ** 2 + ((couple * omega ** 2) / 0.15) ** 2;
  }, 0);
  return Math.sqrt(squared);
}
