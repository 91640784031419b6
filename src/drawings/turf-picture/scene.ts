import { type Look, makeNoise, PATCH, type TurfPoint, turfAt } from "@/core/physics/turf";

const SEED = 4711;
/** How much of the light comes from the left and how much from the far side. */
const FROM_LEFT = 0.85;
const FROM_FAR = 0.55;
/** Light rakes in low from the far left: a slope of this size is fully lit or fully dark. */
const FULL_SLOPE = 0.55;

type Colour = readonly [number, number, number];
const GREEN: Colour = [98, 132, 66];
const DEEP: Colour = [44, 82, 40];
const PALE: Colour = [214, 220, 190];
const BROWN: Colour = [164, 134, 80];
const SOIL: Colour = [203, 186, 138];
const CUTTINGS: Colour = [48, 62, 26];

const mix = (a: Colour, b: Colour, share: number): Colour => {
  const s = Math.min(1, Math.max(0, share));
  return [a[0] + (b[0] - a[0]) * s, a[1] + (b[1] - a[1]) * s, a[2] + (b[2] - a[2]) * s];
};

/** Turf from above as red, green, blue, alpha bytes, row by row from the far left; heights lit from the left. */
export function turfPixels(look: Look, width: number, height: number): Uint8ClampedArray<ArrayBuffer> {
  const noise = makeNoise(SEED);
  const step = PATCH.widthMetres / width;
  const grid: TurfPoint[] = [];
  for (let row = 0; row < height; row++) {
    for (let column = 0; column < width; column++) {
      const x = (column + 0.5) * step - PATCH.widthMetres / 2;
      const y = (height - row - 0.5) * (PATCH.lengthMetres / height);
      grid.push(turfAt(look, x, y, noise));
    }
  }
  const pixels = new Uint8ClampedArray(new ArrayBuffer(width * height * 4));
  grid.forEach((point, k) => {
    const before = k % width === 0 ? point : (grid[k - 1] as TurfPoint);
    const beyond = k < width ? point : (grid[k - width] as TurfPoint);
    const slope = (FROM_LEFT * (point.height - before.height) + FROM_FAR * (point.height - beyond.height)) / step;
    const [red, green, blue] = colourOf(point, slope, noise.leaf((k % width) * 0.021, Math.floor(k / width) * 0.021));
    pixels.set([red, green, blue, 255], k * 4);
  });
  return pixels;
}

function colourOf(point: TurfPoint, slope: number, grain: number): Colour {
  const tall = mix(GREEN, DEEP, (point.height - 0.045) / 0.06);
  const short = point.height < 0.045 ? mix(tall, PALE, (0.045 - point.height) / 0.11) : tall;
  const dried = mix(short, BROWN, point.brown);
  const frayed = mix(dried, PALE, point.frayed * (grain > 0.5 ? 0.75 : 0.1));
  const bare = mix(frayed, SOIL, point.bare);
  const covered = mix(bare, CUTTINGS, point.clippings * 0.9);
  const lain = mix(covered, point.lie > 0 ? DEEP : PALE, Math.abs(point.lie) * 0.42);
  const light = 1 + 0.62 * Math.max(-1, Math.min(1, slope / FULL_SLOPE)) + 0.14 * (grain - 0.5);
  return [lain[0] * light, lain[1] * light, lain[2] * light];
}
