/** The solution of a small square system by elimination with row exchange, or `undefined` where it has none. */
export function solveSquare(matrix: readonly (readonly number[])[], right: readonly number[]): number[] | undefined {
  const size = right.length;
  const rows = matrix.map((row, i) => [...row, right[i] ?? 0]);
  for (let k = 0; k < size; k++) {
    const pivot = largestBelow(rows, k);
    [rows[k], rows[pivot]] = [rows[pivot] as number[], rows[k] as number[]];
    const head = rows[k]?.[k] ?? 0;
    if (Math.abs(head) < 1e-12 * scaleOf(matrix)) return undefined;
    for (let i = 0; i < size; i++) {
      if (i === k) continue;
      const share = (rows[i]?.[k] ?? 0) / head;
      for (let j = k; j <= size; j++) (rows[i] as number[])[j] = (rows[i]?.[j] ?? 0) - share * (rows[k]?.[j] ?? 0);
    }
  }
  return rows.map((row, i) => (row[size] ?? 0) / (row[i] ?? 1));
}

function largestBelow(rows: readonly (readonly number[])[], k: number): number {
  let best = k;
  for (let i = k + 1; i < rows.length; i++) if (Math.abs(rows[i]?.[k] ?? 0) > Math.abs(rows[best]?.[k] ?? 0)) best = i;
  return best;
}

function scaleOf(matrix: readonly (readonly number[])[]): number {
  return Math.max(...matrix.flat().map(Math.abs), 1e-300);
}
