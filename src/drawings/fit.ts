import type { Point } from "@/core/basics/geometry";

/** Metres to picture units: one scale for both ways, the middle of `bounds` in the middle of the box, y upwards on the page. */
export type Fit = { scale: number; toPage: (p: Point) => { x: number; y: number } };

export function fitInto(args: {
  bounds: { left: number; right: number; near: number; far: number };
  width: number;
  height: number;
  margin: number;
}): Fit {
  const { bounds, width, height, margin } = args;
  const across = Math.max(bounds.right - bounds.left, 0.1);
  const along = Math.max(bounds.far - bounds.near, 0.1);
  const scale = Math.min((width - 2 * margin) / across, (height - 2 * margin) / along);
  const middleX = (bounds.left + bounds.right) / 2;
  const middleY = (bounds.near + bounds.far) / 2;
  return { scale, toPage: ({ x, y }) => ({ x: width / 2 + (x - middleX) * scale, y: height / 2 - (y - middleY) * scale }) };
}
