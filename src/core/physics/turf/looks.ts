/**
 * Turf at a point: height in metres; the rest from 0 to 1: tips frayed, browned, bare ground or pale sheath showing, clippings on top;
 * `lie` from −1 (leaves away from the viewer, light) to 1 (towards, dark).
 */
import type { SymptomId } from "@/core/catalogue";
export type TurfPoint = { height: number; frayed: number; brown: number; bare: number; clippings: number; lie: number };

/** The patch every look is drawn on, metres: x across, y along; a swath of `SWATH_METRES` in its middle with a pass to either side. */
export const PATCH = { widthMetres: 2.4, lengthMetres: 1.5 } as const;
export const SWATH_METRES = 1.2;
const SET_HEIGHT = 0.06;
const UNCUT_HEIGHT = 0.115;

export type Look = (x: number, y: number, noise: Noise) => Partial<TurfPoint>;
/** Smooth noise from −1 to 1 of a given grain in metres, and a fine one for single leaves from 0 to 1. */
export type Noise = { smooth: (x: number, y: number, grain: number) => number; leaf: (x: number, y: number) => number };

/** Where in its own pass a point lies: −½ at the left edge to ½ at the right. */
function inPass(x: number): number {
  const share = x / SWATH_METRES + 0.5;
  return share - Math.floor(share) - 0.5;
}

const isWithin = (x: number, from: number, to: number) => x >= from && x <= to;
const UNIT_METRES = 0.4;
const unitOf = (x: number) => Math.floor(x / UNIT_METRES + 0.5);

/** What turf shows for each symptom that turf can show, at its usual size; the others are felt, heard or smelt (estimates, for recognition only). */
export const LOOKS: Partial<Record<SymptomId, Look>> = {
  "step-between-passes": (x) => ({ height: SET_HEIGHT + 0.036 * inPass(x) }),
  "step-within-unit": (x) => ({ height: 0.03 + (unitOf(x) === 0 ? 0.05 * (x / UNIT_METRES) : 0) }),
  "bands-between-units": (x) => ({ height: SET_HEIGHT + (unitOf(x) % 2 === 0 ? -0.012 : 0.012) }),
  "uncut-strip-inside": (x) => (isWithin(x, 0.17, 0.21) ? { height: UNCUT_HEIGHT } : {}),
  "uncut-strip-between-passes": (x) => (Math.abs(inPass(x)) > 0.465 ? { height: UNCUT_HEIGHT } : {}),
  "blade-width-uncut": (x, y, { smooth }) => (isWithin(x, -0.2, 0.2) ? { height: 0.1 + 0.008 * smooth(x, y, 0.05) } : {}),
  "torn-tips": () => ({ frayed: 1 }),
  browning: (x, y, { smooth }) => ({ brown: 0.75 + 0.2 * smooth(x, y, 0.3) }),
  stragglers: (x, y, { leaf }) => (leaf(x, y) > 0.965 ? { height: UNCUT_HEIGHT + 0.02 } : {}),
  "scalped-crests": (x, y, { smooth }) => {
    const ground = smooth(x, y, 0.62);
    return { height: SET_HEIGHT - 0.04 * Math.max(0, ground), bare: Math.max(0, ground - 0.28) * 3 };
  },
  "scalped-band": (x) => (isWithin(x, 0.24, 0.38) ? { height: 0.012, bare: 0.85 } : {}),
  ripples: (_, y) => ({ height: SET_HEIGHT + 0.012 * Math.sin((2 * Math.PI * y) / 0.12) }),
  "irregular-hop": (x, y, { smooth }) => {
    const hop = smooth(0, y, 0.19) + 0.4 * smooth(3.3, y, 0.07);
    return Math.abs(x) < SWATH_METRES / 2 ? { height: SET_HEIGHT + 0.03 * Math.max(0, hop), bare: hop < -0.55 ? 0.8 : 0 } : {};
  },
  "fine-streak": (x) => (isWithin(x, -0.21, -0.195) ? { height: 0.075 } : { height: 0.025 }),
  "roller-lines": (x) => ({ height: 0.02, lie: Math.sin((2 * Math.PI * x) / 0.4) > 0.55 ? 1 : -0.4 }),
  grain: (x, y, { smooth }) => ({ height: 0.03 + 0.012 * smooth(x * 6, y * 0.7, 0.25), lie: 0.8 * smooth(x * 7, y * 0.6, 0.2) }),
  clumps: (x, y, { smooth }) => ({ clippings: smooth(x, y, 0.2) + 0.5 * smooth(y, x, 0.06) > 0.52 ? 1 : 0 }),
  "poor-collection": (x, y, { smooth, leaf }) => {
    const row = Math.abs(inPass(x)) < 0.13 ? 0.62 : 0.05;
    return { clippings: leaf(x, y) < row ? 0.6 + 0.3 * smooth(x, y, 0.06) : 0 };
  },
  "cut-too-high": (x) => ({ height: x < -0.3 ? SET_HEIGHT : 0.1 }),
  "cut-too-low": (x) => (x < -0.3 ? { height: SET_HEIGHT } : { height: 0.02, bare: 0.22 }),
  "uneven-all-over": (x, y, { smooth }) => ({ height: SET_HEIGHT + 0.022 * smooth(x, y, 0.24) + 0.012 * smooth(y, x, 0.09) }),
};

/** The turf at a point under a look, over sound turf. */
export function turfAt(look: Look, x: number, y: number, noise: Noise): TurfPoint {
  const sound: TurfPoint = { height: SET_HEIGHT, frayed: 0, brown: 0, bare: 0, clippings: 0, lie: 0 };
  const shown = { ...sound, ...look(x, y, noise) };
  return { ...shown, height: shown.height + 0.0016 * noise.smooth(x, y, 0.02) };
}

/** Smooth value noise and single-leaf noise from a seed: the same picture each time. */
export function makeNoise(seed: number): Noise {
  const hash = (i: number, j: number) => {
    let mixed = Math.imul(i ^ seed, 374_761_393) + Math.imul(j, 668_265_263);
    mixed = Math.imul(mixed ^ (mixed >>> 13), 1_274_126_177);
    return ((mixed ^ (mixed >>> 16)) >>> 0) / 4294967296;
  };
  const ease = (t: number) => t * t * (3 - 2 * t);
  const smooth = (x: number, y: number, grain: number) => {
    const gx = x / grain;
    const gy = y / grain;
    const i = Math.floor(gx);
    const j = Math.floor(gy);
    const u = ease(gx - i);
    const v = ease(gy - j);
    const top = hash(i, j) * (1 - u) + hash(i + 1, j) * u;
    const bottom = hash(i, j + 1) * (1 - u) + hash(i + 1, j + 1) * u;
    return 2 * (top * (1 - v) + bottom * v) - 1;
  };
  const LEAF_METRES = 0.02;
  return { smooth, leaf: (x, y) => hash(Math.floor(x / LEAF_METRES) + 9001, Math.floor(y / LEAF_METRES)) };
}
