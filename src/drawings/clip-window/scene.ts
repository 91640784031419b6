import { CLIP_SHARE } from "@/core/physics/reel";

/** Clip against speed: for each unit a line through nought; between browning and ripples is where the point should lie. */
export type ClipScene = { mostSpeed: number; mostClip: number; browns: number; ripples: number; bestFrom: number };

/** Room above the higher of limit and reading. */
const ROOM = 1.35;

export function clipScene(args: { heightMetres: number; clips: readonly number[]; speeds: readonly number[] }): ClipScene {
  const { heightMetres, clips, speeds } = args;
  return {
    mostSpeed: Math.max(...speeds) * ROOM,
    mostClip: Math.max(heightMetres * CLIP_SHARE.ripples, ...clips) * ROOM,
    browns: heightMetres * CLIP_SHARE.browns,
    bestFrom: heightMetres * CLIP_SHARE.bestFrom,
    ripples: heightMetres * CLIP_SHARE.ripples,
  };
}
