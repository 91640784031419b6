/** A number from nought to under one at each call, the same again for the same seed (mulberry32, published; from memory). */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** A stream of its own for each name: what is drawn from one moves no other (FNV-1a, published; from memory). */
export function namedRandom(name: string): () => number {
  let hash = 0x811c9dc5;
  for (let k = 0; k < name.length; k++) hash = Math.imul(hash ^ name.charCodeAt(k), 0x01000193);
  // A bit of one letter reaches every bit of the seed.
  hash = Math.imul(hash ^ (hash >>> 16), 0x45d9f3b);
  return seededRandom(hash ^ (hash >>> 16));
}

/** Normal deviate by Box and Muller. */
export function gaussian(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/** Gamma deviate of a whole shape and mean 1: the mean of so many exponential ones (physics). */
export function gammaOfMeanOne(shape: number, random: () => number): number {
  let sum = 0;
  for (let k = 0; k < shape; k++) sum -= Math.log(1 - random());
  return sum / shape;
}

/** One of several. */
export function pickOne<T>(items: readonly T[], random: () => number): T {
  return items[Math.min(items.length - 1, Math.floor(random() * items.length))] as T;
}
