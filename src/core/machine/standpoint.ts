import type { Point } from "@/core/basics/geometry";

/** Where the mechanic stands, looking at the machine; underneath: lying under it, head to the rear, looking up. */
export type Standpoint = "behind" | "front" | "left" | "right" | "underneath";

export const STANDPOINT_LABELS: Record<Standpoint, string> = {
  behind: "From behind",
  front: "From the front",
  left: "From the left",
  right: "From the right",
  underneath: "From underneath",
};

/** A place on the machine as that person sees it: x to their right, y away from them (underneath: towards the front), metres. */
export function seenFrom(standpoint: Standpoint, { x, y }: Point): Point {
  switch (standpoint) {
    case "behind":
      return { x, y };
    case "front":
      return { x: -x, y: -y };
    case "left":
      return { x: -y, y: x };
    case "right":
      return { x: y, y: -x };
    case "underneath":
      return { x: -x, y };
  }
}

/** A turn named from above, as that person sees it: from underneath it goes the other way round. */
export function turnSeenFrom(standpoint: Standpoint, fromAbove: "clockwise" | "anticlockwise"): "clockwise" | "anticlockwise" {
  if (standpoint !== "underneath") return fromAbove;
  return fromAbove === "clockwise" ? "anticlockwise" : "clockwise";
}
