import { NotPositiveDefiniteError } from '../src/linear/cholesky.ts';
import type { Pattern } from '../src/linear/sparse.ts';

/**
 * The plain twin of the kernel, small and slow, which tests hold it against: sparse Cholesky L Lᵀ = P A Pᵀ row by
 * row (Davis, *Direct Methods for Sparse Linear Systems*, 2006, chapter 4).
 */
export interface ReferenceAnalysis {
  readonly size: number;
  /** `order[k]` is the row of A eliminated k-th. */
  readonly order: Uint32Array;
  /** Upper triangle of P A Pᵀ by columns, and the place in A's values of each entry. */
  readonly upperStart: Uint32Array;
  readonly upperRow: Uint32Array;
  readonly upperSource: Uint32Array;
  /** Elimination tree; -1 at roots. */
  readonly parent: Int32Array;
  /** First entry of each column of L; `size + 1`. */
  readonly factorStart: Uint32Array;
}

export interface ReferenceFactor {
  readonly analysis: ReferenceAnalysis;
  /** Row of each entry of L, the diagonal first in every column. */
  readonly row: Uint32Array;
  readonly values: Float64Array;
}

/**
 * @param order  elimination order of all rows, as from `minimumDegree`
 */
export function analyseReference(pattern: Pattern, order: Uint32Array): ReferenceAnalysis {
  const n = pattern.size;
  const position = new Uint32Array(n);
  for (let k = 0; k < n; k++) position[order[k]] = k;

  // Entry (i, j) of A lands in the column of whichever is eliminated later.
  const upperStart = new Uint32Array(n + 1);
  for (let j = 0; j < n; j++) {
    for (let k = pattern.columnStart[j]; k < pattern.columnStart[j + 1]; k++) {
      upperStart[Math.max(position[pattern.row[k]], position[j]) + 1]++;
    }
  }
  for (let k = 0; k < n; k++) upperStart[k + 1] += upperStart[k];
  const next = upperStart.slice(0, n);
  const upperRow = new Uint32Array(pattern.row.length);
  const upperSource = new Uint32Array(pattern.row.length);
  for (let j = 0; j < n; j++) {
    for (let k = pattern.columnStart[j]; k < pattern.columnStart[j + 1]; k++) {
      const i = position[pattern.row[k]];
      const at = next[Math.max(i, position[j])]++;
      upperRow[at] = Math.min(i, position[j]);
      upperSource[at] = k;
    }
  }

  const parent = new Int32Array(n).fill(-1);
  const ancestor = new Int32Array(n).fill(-1);
  for (let k = 0; k < n; k++) {
    for (let p = upperStart[k]; p < upperStart[k + 1]; p++) {
      for (let i = upperRow[p]; i < k; ) {
        const up = ancestor[i];
        ancestor[i] = k;
        if (up < 0) {
          parent[i] = k;
          break;
        }
        if (up === k) break;
        i = up;
      }
    }
  }

  const counts = new Uint32Array(n).fill(1);
  const mark = new Int32Array(n).fill(-1);
  for (let k = 0; k < n; k++) {
    mark[k] = k;
    for (let p = upperStart[k]; p < upperStart[k + 1]; p++) {
      for (let i = upperRow[p]; mark[i] !== k; i = parent[i]) {
        mark[i] = k;
        counts[i]++;
      }
    }
  }
  const factorStart = new Uint32Array(n + 1);
  for (let k = 0; k < n; k++) factorStart[k + 1] = factorStart[k] + counts[k];
  return { size: n, order, upperStart, upperRow, upperSource, parent, factorStart };
}

/**
 * @param values  of the pattern that was analysed, in its order
 * @throws NotPositiveDefiniteError
 */
export function factoriseReference(analysis: ReferenceAnalysis, values: Float64Array): ReferenceFactor {
  const { size: n, upperStart, upperRow, upperSource, parent, factorStart } = analysis;
  const row = new Uint32Array(factorStart[n]);
  const L = new Float64Array(factorStart[n]);
  const next = factorStart.slice(0, n);
  const x = new Float64Array(n);
  const mark = new Int32Array(n).fill(-1);
  const reach = new Int32Array(n);
  const path = new Int32Array(n);

  for (let k = 0; k < n; k++) {
    // The columns that row k touches, in elimination order, ending at reach[n - 1].
    let top = n;
    mark[k] = k;
    let diagonal = 0;
    for (let p = upperStart[k]; p < upperStart[k + 1]; p++) {
      const i = upperRow[p];
      const value = values[upperSource[p]];
      if (i === k) {
        diagonal = value;
        continue;
      }
      x[i] = value;
      let length = 0;
      for (let a = i; mark[a] !== k; a = parent[a]) {
        path[length++] = a;
        mark[a] = k;
      }
      while (length > 0) reach[--top] = path[--length];
    }
    for (; top < n; top++) {
      const j = reach[top];
      const first = factorStart[j];
      const end = next[j];
      const value = x[j] / L[first];
      x[j] = 0;
      subtractColumn(x, row, L, first + 1, end, value);
      diagonal -= value * value;
      row[end] = k;
      L[end] = value;
      next[j] = end + 1;
    }
    if (!(diagonal > 0)) throw new NotPositiveDefiniteError(analysis.order[k]);
    row[next[k]] = k;
    L[next[k]++] = Math.sqrt(diagonal);
  }
  return { analysis, row, values: L };
}

/** The hot loop, in a function of its own so that it is compiled early: x −= value · L[from … to]. */
function subtractColumn(
  x: Float64Array,
  row: Uint32Array,
  L: Float64Array,
  from: number,
  to: number,
  value: number,
): void {
  for (let p = from; p < to; p++) x[row[p]] -= L[p] * value;
}

/** x with A x = b. */
export function solveReference(factor: ReferenceFactor, b: Float64Array): Float64Array {
  const { analysis, row, values: L } = factor;
  const { size: n, order, factorStart } = analysis;
  const y = new Float64Array(n);
  for (let k = 0; k < n; k++) y[k] = b[order[k]];
  for (let j = 0; j < n; j++) {
    const first = factorStart[j];
    y[j] /= L[first];
    const value = y[j];
    for (let p = first + 1; p < factorStart[j + 1]; p++) y[row[p]] -= L[p] * value;
  }
  for (let j = n - 1; j >= 0; j--) {
    const first = factorStart[j];
    let sum = y[j];
    for (let p = first + 1; p < factorStart[j + 1]; p++) sum -= L[p] * y[row[p]];
    y[j] = sum / L[first];
  }
  const x = new Float64Array(n);
  for (let k = 0; k < n; k++) x[order[k]] = y[k];
  return x;
}
