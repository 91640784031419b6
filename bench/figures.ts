/** The value below which this share of the values lies. */
export function seenIn(values: readonly number[], share: number): number {
  return [...values].sort((a, b) => a - b)[Math.floor((values.length - 1) * share)] ?? Number.NaN;
}
