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
  const basis = columnsOf(design, columns);
  const upper = new Float64Array(columns * columns);
  const dependent = orthogonalise(basis, upper, columns, rows);
  if (dependent !== undefined) return { kind: "refused", issue: { code: "not-independent", column: dependent } };
  const right = Float64Array.from({ length: columns }, (_, k) => dot(basis, k * rows, observed, rows));
  const coefficients = backSubstitute(upper, right, columns);
  const residuals = new Array<number>(rows);
  let residualSumOfSquares = 0;
  for (let i = 0; i < rows; i++) {
    const row = design[i] as readonly number[];
    let residual = observed[i] as number;
    for (let k = 0; k < columns; k++) residual -= (row[k] as number) * (coefficients[k] as number);
    residuals[i] = residual;
    residualSumOfSquares += residual * residual;
  }
  return { kind: "fitted", fit: { coefficients, inverseNormal: inverseNormalFrom(upper, columns), residuals, residualSumOfSquares } };
}

/** The design column by column in one run of numbers: the fit is done with each keystroke. */
function columnsOf(design: readonly (readonly number[])[], columns: number): Float64Array {
  const rows = design.length;
  const flat = new Float64Array(columns * rows);
  for (let i = 0; i < rows; i++) for (let k = 0; k < columns; k++) flat[k * rows + i] = design[i]?.[k] ?? 0;
  return flat;
}

function dot(columns: Float64Array, start: number, other: ArrayLike<number>, count: number, otherStart = 0): number {
  let sum = 0;
  for (let i = 0; i < count; i++) sum += (columns[start + i] as number) * (other[otherStart + i] as number);
  return sum;
}

/** A column that keeps this much of itself beside those before it lost no figures: it need not be cleared of them again. */
const CLEAR_SHARE = 0.5;

/** Turns the columns into an orthonormal basis in place and fills the triangle; answers the first dependent column, if any. */
function orthogonalise(basis: Float64Array, upper: Float64Array, columns: number, rows: number): number | undefined {
  for (let k = 0; k < columns; k++) {
    const here = k * rows;
    const size = Math.sqrt(dot(basis, here, basis, rows, here));
    let left = size;
    for (let pass = 0; pass < 2; pass++) {
      for (let j = 0; j < k; j++) {
        const share = dot(basis, j * rows, basis, rows, here);
        upper[j * columns + k] = (upper[j * columns + k] as number) + share;
        for (let i = 0; i < rows; i++) basis[here + i] = (basis[here + i] as number) - share * (basis[j * rows + i] as number);
      }
      left = Math.sqrt(dot(basis, here, basis, rows, here));
      if (left > CLEAR_SHARE * size) break;
    }
    if (!(left > DEPENDENT_SHARE * size)) return k;
    upper[k * columns + k] = left;
    for (let i = 0; i < rows; i++) basis[here + i] = (basis[here + i] as number) / left;
  }
  return undefined;
}

function backSubstitute(upper: Float64Array, right: Float64Array, size: number): number[] {
  const solution = new Array<number>(size).fill(0);
  for (let k = size - 1; k >= 0; k--) {
    let sum = right[k] as number;
    for (let j = k + 1; j < size; j++) sum -= (upper[k * size + j] as number) * (solution[j] as number);
    solution[k] = sum / (upper[k * size + k] as number);
  }
  return solution;
}

function inverseNormalFrom(upper: Float64Array, size: number): number[][] {
  const inverse: number[][] = [];
  for (let k = 0; k < size; k++) {
    const unit = new Float64Array(size);
    unit[k] = 1;
    inverse.push(backSubstitute(upper, unit, size));
  }
  const normal: number[][] = [];
  for (let i = 0; i < size; i++) {
    const row: number[] = [];
    for (let j = 0; j < size; j++) {
      let sum = 0;
      for (const column of inverse) sum += (column[i] as number) * (column[j] as number);
      row.push(sum);
    }
    normal.push(row);
  }
  return normal;
}
