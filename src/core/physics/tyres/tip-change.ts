import type { Point } from "@/core/basics/geometry";
import { dropAt, type FrameOnTyres, settleFrame } from "./frame";

/** Predicted movement of one place against the frame at its reference pressures, metres, positive up, with its range. */
export type TipChange = Point & { change: number; least: number; most: number };

/** The stiffness rule is good to a factor of two (estimate), so is every difference drawn from it. */
export const RANGE_FACTOR = 2;

/**
 * How each tip of a frame-hung deck moves when the frame stands on the tyres `now` instead of `reference`.
 * Estimate: only differences, only as a range (half to double). Positive up. `undefined` where the supports carry no plane.
 */
export function predictTipChange(args: { now: FrameOnTyres; reference: FrameOnTyres; tips: readonly Point[] }): TipChange[] | undefined {
  const settledNow = settleFrame(args.now);
  const settledThen = settleFrame(args.reference);
  if (!settledNow || !settledThen) return undefined;
  return args.tips.map(({ x, y }) => {
    const change = -(dropAt(settledNow, { x, y }) - dropAt(settledThen, { x, y }));
    const ends = [change / RANGE_FACTOR, change * RANGE_FACTOR];
    return { x, y, change, least: Math.min(...ends), most: Math.max(...ends) };
  });
}
