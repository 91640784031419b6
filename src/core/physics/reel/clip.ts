const SECONDS = 60;

/** What decides a reel's clip: how far the machine travels from one blade's cut to the next. */
export type Reel = { blades: number; revolutionsPerMinute: number };

/**
 * Clip in metres (published: the standard turf-equipment formula, from memory): ground speed / (blades × turns a second).
 * @example 4 mph, 11 blades, 1,000 r/min: 9.754 mm = 0.384 in; 3.6 mph, 14 blades, 2,000: 0.136 in.
 */
export const clipOf = (args: { groundMetresPerSecond: number } & Reel): number =>
  (args.groundMetresPerSecond * SECONDS) / (args.blades * args.revolutionsPerMinute);

/** The speed at which a reel has this clip, metres a second. */
export const speedForClip = (args: { clipMetres: number } & Reel): number =>
  (args.clipMetres * args.blades * args.revolutionsPerMinute) / SECONDS;

/** The reel speed that gives this clip, r/min. */
export const turnsForClip = (args: { clipMetres: number; groundMetresPerSecond: number; blades: number }): number =>
  (args.groundMetresPerSecond * SECONDS) / (args.clipMetres * args.blades);

/** Clip as a share of the height of cut: longer ripples; best from half of it up (common practice); under a third the same leaf is hit again (estimate). */
export const CLIP_SHARE = { browns: 1 / 3, bestFrom: 0.5, ripples: 1 } as const;

export type ClipCall = "ripples" | "best" | "short" | "browns";

export function callClip(clipMetres: number, heightMetres: number): ClipCall {
  const share = clipMetres / heightMetres;
  if (share > CLIP_SHARE.ripples * (1 + 1e-9)) return "ripples";
  if (share < CLIP_SHARE.browns * (1 - 1e-9)) return "browns";
  return share < CLIP_SHARE.bestFrom * (1 - 1e-9) ? "short" : "best";
}

/** Leaves are drawn to the nearer of two cuts, half a clip off at most (physics); a whole clip off is what one-way drawing would bound. */
export const DRAW = { usual: 0.5, bound: 1 } as const;

/**
 * Height of the ripples a clip leaves, metres (physics): a leaf rooted s ahead of the shear point is cut at √(H² + (κs)²), 0 ≤ s < clip.
 * @example H 12.7, clip 9.754 mm: 3.31 at κ 1, 0.90 at ½.
 */
export const rippleRise = (args: { heightMetres: number; clipMetres: number; draw?: number }): number =>
  Math.hypot(args.heightMetres, (args.draw ?? DRAW.bound) * args.clipMetres) - args.heightMetres;

/**
 * Height of the ripples that the reel's own round leaves between two cuts, metres (physics, clip² / 8R): the least there are, where no leaf is drawn.
 * @example clip 1.25 in, R 2.5 in: 0.078 in.
 */
export const rippleCusp = (args: { clipMetres: number; reelRadiusMetres: number }): number =>
  args.clipMetres ** 2 / (8 * args.reelRadiusMetres);

/** Mean of the same over a clip, metres: √(H² + k²)/2 + H²/(2k)·asinh(k/H) − H, k = κ·clip. */
export function meanRise(args: { heightMetres: number; clipMetres: number; draw?: number }): number {
  const [height, k] = [args.heightMetres, (args.draw ?? DRAW.bound) * args.clipMetres];
  return k === 0 ? 0 : Math.hypot(height, k) / 2 + (height ** 2 / (2 * k)) * Math.asinh(k / height) - height;
}

/** Blades a reel should have for a height (common practice): up to 8 over half an inch, from 11 under. */
export const HALF_INCH_METRES = 0.0127;
export function bladesSuit(blades: number, heightMetres: number): "suits" | "too-many" | "too-few" {
  // Half an inch as it was reckoned is half an inch.
  if (heightMetres > HALF_INCH_METRES + 1e-6) return blades > 8 ? "too-many" : "suits";
  return blades < 11 ? "too-few" : "suits";
}

export type Known = { groundMetresPerSecond?: number; revolutionsPerMinute?: number; blades?: number; heightMetres?: number };
export type Window = { least: number; most: number };

/**
 * The fourth of speed, r/min, blades and height from the other three, as the range between browning and ripples: clip from a third of the height
 * to the whole of it. Blades as whole numbers, at least one of them. `undefined` unless exactly three are known.
 */
export function fourthOf(known: Known): { of: keyof Known; window: Window } | undefined {
  const keys = ["groundMetresPerSecond", "revolutionsPerMinute", "blades", "heightMetres"] as const;
  const missing = keys.filter((key) => known[key] === undefined);
  const [of] = missing;
  if (missing.length !== 1 || of === undefined) return undefined;
  const { groundMetresPerSecond: speed = 0, revolutionsPerMinute: turns = 0, blades = 0, heightMetres: height = 0 } = known;
  const at = (share: number) => share * height;
  switch (of) {
    case "groundMetresPerSecond":
      return {
        of,
        window: {
          least: speedForClip({ clipMetres: at(CLIP_SHARE.browns), blades, revolutionsPerMinute: turns }),
          most: speedForClip({ clipMetres: at(CLIP_SHARE.ripples), blades, revolutionsPerMinute: turns }),
        },
      };
    case "revolutionsPerMinute":
      return {
        of,
        window: {
          least: turnsForClip({ clipMetres: at(CLIP_SHARE.ripples), groundMetresPerSecond: speed, blades }),
          most: turnsForClip({ clipMetres: at(CLIP_SHARE.browns), groundMetresPerSecond: speed, blades }),
        },
      };
    case "blades": {
      const exact = (share: number) => (speed * SECONDS) / (at(share) * turns);
      return {
        of,
        window: {
          least: Math.max(1, Math.ceil(exact(CLIP_SHARE.ripples) - 1e-9)),
          most: Math.max(1, Math.floor(exact(CLIP_SHARE.browns) + 1e-9)),
        },
      };
    }
    default: {
      const clip = clipOf({ groundMetresPerSecond: speed, blades, revolutionsPerMinute: turns });
      return { of, window: { least: clip / CLIP_SHARE.ripples, most: clip / CLIP_SHARE.browns } };
    }
  }
}
