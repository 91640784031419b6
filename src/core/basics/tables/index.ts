/** A table looked up by what people type or send: a key that is not in it has nothing, be it called `constructor` or `toString`. */
export function table<V>(rows: Readonly<Record<string, V>>): Readonly<Record<string, V>> {
  return Object.freeze(Object.assign(Object.create(null) as Record<string, V>, rows));
}

/** An empty one to be filled by such keys. */
export function emptyTable<V>(): Record<string, V> {
  return Object.create(null) as Record<string, V>;
}
