/** What one of several covers across the way of travel, metres. */
export type Span = { id: string; from: number; to: number };
/** What two next to each other share; negative: a strip that wide is missed. */
export type Shared = { between: readonly [string, string]; overlapMetres: number };

/** Overlap of each stretch with all that lies before it, from the lowest: what an earlier, longer one covers is covered. */
export function sharedBetween(spans: readonly Span[]): Shared[] {
  const [first, ...rest] = [...spans].sort((a, b) => a.from - b.from);
  if (!first) return [];
  let reach = first;
  return rest.map((next) => {
    const shared = { between: [reach.id, next.id] as const, overlapMetres: Math.min(reach.to - next.from, next.to - next.from) };
    if (next.to > reach.to) reach = next;
    return shared;
  });
}

/**
 * The least that neighbours share as a function of a way of travel, without names or allocations: thousands of ways are looked at. `cover` writes
 * what the k-th of `count` covers into `span`, from and to. Infinite for one alone.
 */
export function leastOver(count: number, cover: (k: number, at: number, span: Float64Array) => void): (at: number) => number {
  const from = new Float64Array(count);
  const to = new Float64Array(count);
  const span = new Float64Array(2);
  return (at) => {
    for (let k = 0; k < count; k++) {
      cover(k, at, span);
      const [begins, ends] = [span[0] as number, span[1] as number];
      let place = k;
      // Kept in order of where they begin, by insertion: there are nine at most.
      for (; place > 0 && (from[place - 1] as number) > begins; place--) {
        from[place] = from[place - 1] as number;
        to[place] = to[place - 1] as number;
      }
      from[place] = begins;
      to[place] = ends;
    }
    let least = Number.POSITIVE_INFINITY;
    let reach = to[0] ?? 0;
    for (let k = 1; k < count; k++) {
      const [begins, ends] = [from[k] as number, to[k] as number];
      least = Math.min(least, reach - begins, ends - begins);
      if (ends > reach) reach = ends;
    }
    return least;
  };
}

/** From a value where something does not hold to one where it does, by halving, to the last bits. */
export function halved(not: number, does: number, holds: (at: number) => boolean): number {
  let [a, b] = [not, does];
  for (let k = 0; k < 40; k++) {
    const middle = (a + b) / 2;
    if (holds(middle)) b = middle;
    else a = middle;
  }
  return (a + b) / 2;
}
