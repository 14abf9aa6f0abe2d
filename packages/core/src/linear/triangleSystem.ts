import { triangleEdges } from '../mesh/triangleEdges.ts';
import { type Context, heedStop } from '../progress.ts';
import { type Analysis, analyse, type Factor, factoriseFilled, solve } from './cholesky.ts';

/**
 * A quadratic form over the UVs of a triangle mesh, given as one matrix per triangle, with some vertices fixed: symmetric and 6 × 6, as
 * for Newton steps, or Hermitian and 3 × 3 with a UV as a complex number, as for conformal maps (`hermitianTriangles.ts`). Its ordering
 * and analysis depend only on connectivity and on which vertices are fixed.
 */
export interface TriangleSystem {
  readonly vertexCount: number;
  readonly triangles: Uint32Array;
  /** Running number of each free vertex, -1 where fixed. */
  readonly freeIndex: Int32Array;
  readonly freeCount: number;
  readonly analysis: Analysis;
  /**
   * Places in the factor of the six 2 × 2 blocks, or complex numbers, of each triangle, corner by corner and then the pairs (1, 0), (2, 0)
   * and (2, 1); `~place` where the block lands transposed, `NOWHERE` where one side is fixed.
   */
  readonly places: Int32Array;
  /** Places of the diagonal blocks. */
  readonly diagonal: Int32Array;
}

export const BLOCKS = 6;
export const NOWHERE = -0x80000000;
/** Corners of the blocks off the diagonal, and the corner whose side to the next joins them. */
export const HIGH = [1, 2, 2];
export const LOW = [0, 0, 1];
const SIDE = [0, 2, 1];

/** Lower entries of a 6 × 6 matrix, row by row: (0,0) (1,0) (1,1) (2,0) … (5,5). */
export const LOWER_ENTRIES = 21;
const lowerEntry = (row: number, column: number): number => (row * (row + 1)) / 2 + column;

/**
 * @param fixed  1 for each vertex that keeps its UV; at least one vertex must be free
 * @throws StoppedError, TooLargeError
 */
export function triangleSystem(
  triangles: Uint32Array,
  vertexCount: number,
  fixed: Uint8Array,
  { complex = false, signal }: { readonly complex?: boolean; readonly signal?: Context['signal'] } = {},
): TriangleSystem {
  heedStop(signal);
  const freeIndex = new Int32Array(vertexCount).fill(-1);
  let freeCount = 0;
  for (let v = 0; v < vertexCount; v++) if (!fixed[v]) freeIndex[v] = freeCount++;

  const edges = triangleEdges(triangles, vertexCount);
  heedStop(signal);
  // The graph of free vertices: its blocks or complex numbers are the matrix.
  const columnStart = new Uint32Array(freeCount + 1);
  const row = new Uint32Array(freeCount + edges.upper.length);
  const entryOf = new Int32Array(edges.upper.length).fill(-1);
  let entries = 0;
  for (let v = 0; v < vertexCount; v++) {
    if (freeIndex[v] < 0) continue;
    row[entries++] = freeIndex[v];
    for (let e = edges.start[v]; e < edges.start[v + 1]; e++) {
      const other = freeIndex[edges.upper[e]];
      if (other < 0 || edges.upper[e] === v) continue;
      entryOf[e] = entries;
      row[entries++] = other;
    }
    columnStart[freeIndex[v] + 1] = entries;
  }
  const pattern = { size: freeCount, columnStart, row: row.slice(0, entries) };
  const analysis = analyse(pattern, { ...(complex ? { complex } : { block: 2 }), signal });
  const { target } = analysis;
  const diagonal = new Int32Array(freeCount);
  for (let i = 0; i < freeCount; i++) diagonal[i] = target[columnStart[i]];

  heedStop(signal);
  const places = new Int32Array(BLOCKS * (triangles.length / 3)).fill(NOWHERE);
  for (let t = 0, at = 0; t < triangles.length; t += 3, at += BLOCKS) {
    for (let p = 0; p < 3; p++) {
      const i = freeIndex[triangles[t + p]];
      if (i >= 0) places[at + p] = diagonal[i];
    }
    for (let k = 0; k < 3; k++) {
      const entry = entryOf[edges.sideEdge[t + SIDE[k]]];
      if (entry < 0) continue;
      // The pattern keeps the greater index as the row.
      const isUpright = triangles[t + HIGH[k]] > triangles[t + LOW[k]];
      places[at + 3 + k] = isUpright ? target[entry] : ~target[entry];
    }
  }
  return { vertexCount, triangles, freeIndex, freeCount, analysis, places, diagonal };
}

export interface FactoriseOptions {
  /** Added to the whole diagonal, relative to its mean: keeps a matrix that leaves a motion free definite. */
  readonly shift?: number;
  /** Added to both diagonal entries of each vertex, `vertexCount`. */
  readonly diagonal?: Float64Array;
  readonly signal?: Context['signal'];
  /** An earlier factor of this system, spent by the call. */
  readonly reuse?: Factor;
}

/**
 * @param lower  the 21 lower entries of each triangle's matrix, `21 × triangleCount`
 * @throws NotPositiveDefiniteError, StoppedError
 */
export function factoriseTriangles(
  system: TriangleSystem,
  lower: Float64Array,
  { shift = 0, diagonal, signal, reuse }: FactoriseOptions = {},
): Factor {
  const { analysis, freeIndex } = system;
  const fill = (panels: Float64Array) => {
    const trace = addTriangles(system, lower, panels, signal);
    const everywhere = (shift * trace) / analysis.size;
    for (let v = 0; v < freeIndex.length; v++) {
      if (freeIndex[v] < 0) continue;
      const added = everywhere + (diagonal ? diagonal[v] : 0);
      const place = system.diagonal[freeIndex[v]];
      panels[place] += added;
      panels[place + 5] += added;
    }
  };
  return factoriseFilled(analysis, fill, signal, reuse);
}

/** Adds every triangle's matrix into the panels, where columns of a strip are four numbers apart; returns the trace. */
function addTriangles(
  { places }: TriangleSystem,
  lower: Float64Array,
  panels: Float64Array,
  signal: Context['signal'] | undefined,
): number {
  let trace = 0;
  for (let at = 0, first = 0; at < places.length; at += BLOCKS, first += LOWER_ENTRIES) {
    if (at % (BLOCKS << 15) === 0) heedStop(signal);
    for (let p = 0; p < 3; p++) {
      const place = places[at + p];
      if (place === NOWHERE) continue;
      const entry = first + DIAGONAL[p];
      const below = entry + 2 * p + 1;
      panels[place] += lower[entry];
      panels[place + 1] += lower[below];
      panels[place + 5] += lower[below + 1];
      trace += lower[entry] + lower[below + 1];
    }
    for (let k = 0; k < 3; k++) {
      const coded = places[at + 3 + k];
      if (coded === NOWHERE) continue;
      const entry = first + OFF_DIAGONAL[k];
      const below = entry + 2 * HIGH[k] + 1;
      const place = coded < 0 ? ~coded : coded;
      const down = coded < 0 ? 4 : 1;
      const across = 5 - down;
      panels[place] += lower[entry];
      panels[place + across] += lower[entry + 1];
      panels[place + down] += lower[below];
      panels[place + 5] += lower[below + 1];
    }
  }
  return trace;
}

/** First lower entry of each block. */
const DIAGONAL = [0, 1, 2].map((p) => lowerEntry(2 * p, 2 * p));
const OFF_DIAGONAL = [0, 1, 2].map((k) => lowerEntry(2 * HIGH[k], 2 * LOW[k]));

/** Solves for the free vertices; fixed ones get zero. Right-hand side and answer are `2 × vertexCount`. */
export function solveTriangles(
  system: TriangleSystem,
  factor: Factor,
  rightHand: Float64Array,
  signal?: Context['signal'],
): Float64Array {
  const { freeIndex } = system;
  const b = new Float64Array(2 * system.freeCount);
  for (let v = 0; v < freeIndex.length; v++) {
    const i = freeIndex[v];
    if (i < 0) continue;
    b[2 * i] = rightHand[2 * v];
    b[2 * i + 1] = rightHand[2 * v + 1];
  }
  const x = solve(factor, b, signal);
  const answer = new Float64Array(rightHand.length);
  for (let v = 0; v < freeIndex.length; v++) {
    const i = freeIndex[v];
    if (i < 0) continue;
    answer[2 * v] = x[2 * i];
    answer[2 * v + 1] = x[2 * i + 1];
  }
  return answer;
}

/** y = K x over all vertices, fixed ones too, with K given triangle by triangle. */
export function multiplyTriangles(
  triangles: Uint32Array,
  lower: Float64Array,
  x: Float64Array,
): Float64Array {
  const y = new Float64Array(x.length);
  for (let t = 0, i = 0; t < triangles.length; t += 3) {
    for (let row = 0; row < 6; row++) {
      const a = 2 * triangles[t + (row >> 1)] + (row & 1);
      for (let column = 0; column < row; column++, i++) {
        const b = 2 * triangles[t + (column >> 1)] + (column & 1);
        y[a] += lower[i] * x[b];
        y[b] += lower[i] * x[a];
      }
      y[a] += lower[i++] * x[a];
    }
  }
  return y;
}
