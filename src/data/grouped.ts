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
