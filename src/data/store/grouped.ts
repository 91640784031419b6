/** Items by a key, in their order; each item may have several keys. */
export function grouped<T>(items: readonly T[], keysOf: (item: T) => Iterable<string>): Map<string, T[]> {
  const found = new Map<string, T[]>();
  for (const item of items)
    for (const key of keysOf(item)) {
      const own = found.get(key);
      if (own) own.push(item);
      else found.set(key, [item]);
    }
  return found;
}

/** In the order of their letters, for days and hours as the record writes them: of one length, and digits. */
export const byLetters = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
