export type LeastSquaresFit = {
  /** One per column of the design, in its order. */
  coefficients: number[];
  /** (AᵀA)⁻¹, square, order of the columns. */
  inverseNormal: number[][];
  /** Observed − fitted, order of the rows. */
  residuals: number[];
  residualSumOfSquares: number;
};

export type LeastSquaresResult =
  | { kind: "fitted"; fit: LeastSquaresFit }
  | { kind: "refused"; issue: { code: "too-few-readings"; needed: number; given: number } | { code: "not-independent"; column: number } };

/** A column whose part not explained by those before it is smaller than this share of itself counts as dependent. */
const DEPENDENT_SHARE = 1e-7;

/**
 * Ordinary least squares by modified Gram–Schmidt with one re-orthogonalisation (physics of nothing: textbook algebra).
 * `design` is n rows of p numbers, `observed` n numbers. Refused with n < p or dependent columns; never hands back NaN.
 */
export function solveLeastSquares(design: readonly (readonly number[])[], observed: readonly number[]): LeastSquaresResult {
  const rows = design.length;
  const columns = design[0]?.length ?? 0;
  if (observed.length !== rows) throw new Error("design and observations differ in length");
  if (rows < columns || columns === 0) return { kind: "refused", issue: { code: "too-few-readings", needed: columns, given: rows } };
  const factored = orthogonalise(design, columns);
  if ("dependent" in factored) return { kind: "refused", issue: { code: "not-independent", column: factored.dependent } };
  const { basis, upper } = factored;
  const coefficients = backSubstitute(
    upper,
    basis.map((column) => dot(column, observed)),
  );
  const residuals = observed.map((value, row) => value - dot(design[row] ?? [], coefficients));
  return {
    kind: "fitted",
    fit: {
      coefficients,
      inverseNormal: inverseNormalFrom(upper),
      residuals,
      residualSumOfSquares: dot(residuals, residuals),
    },
  };
}

function orthogonalise(
  design: readonly (readonly number[])[],
  columns: number,
): { dependent: number } | { basis: number[][]; upper: number[][] } {
  const basis: number[][] = [];
  const upper = Array.from({ length: columns }, () => new Array<number>(columns).fill(0));
  for (let k = 0; k < columns; k++) {
    const column = design.map((row) => row[k] ?? 0);
    const size = Math.sqrt(dot(column, column));
    for (let pass = 0; pass < 2; pass++) {
      basis.forEach((unit, j) => {
        const share = dot(unit, column);
        (upper[j] as number[])[k] = (upper[j]?.[k] ?? 0) + share;
        for (let i = 0; i < column.length; i++) column[i] = (column[i] ?? 0) - share * (unit[i] ?? 0);
      });
    }
    const left = Math.sqrt(dot(column, column));
    if (!(left > DEPENDENT_SHARE * size)) return { dependent: k };
    (upper[k] as number[])[k] = left;
    basis.push(column.map((value) => value / left));
  }
  return { basis, upper };
}

function backSubstitute(upper: readonly (readonly number[])[], right: readonly number[]): number[] {
  const solution = new Array<number>(right.length).fill(0);
  for (let k = right.length - 1; k >= 0; k--) {
    let sum = right[k] ?? 0;
    for (let j = k + 1; j < right.length; j++) sum -= (upper[k]?.[j] ?? 0) * (solution[j] ?? 0);
    solution[k] = sum / (upper[k]?.[k] ?? 1);
  }
  return solution;
}

function inverseNormalFrom(upper: readonly (readonly number[])[]): number[][] {
  const size = upper.length;
  const inverse = Array.from({ length: size }, (_, k) => {
    const unit = new Array<number>(size).fill(0);
    unit[k] = 1;
    return backSubstitute(upper, unit);
  });
  return Array.from({ length: size }, (_, i) =>
    Array.from({ length: size }, (_, j) => inverse.reduce((sum, column) => sum + (column[i] ?? 0) * (column[j] ?? 0), 0)),
  );
}

function dot(a: readonly number[], b: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i] ?? 0) * (b[i] ?? 0);
  return sum;
}
