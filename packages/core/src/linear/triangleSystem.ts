import type { Context } from '../progress.ts';
import { type Analysis, analyseBlocks, type Factor, factorise, solve } from './cholesky.ts';
import { minimumDegree } from './minimumDegree.ts';
import { gatherPattern, type Pattern } from './sparse.ts';

/**
 * A quadratic form over the UVs of a triangle mesh, given as one symmetric 6 × 6 matrix per triangle, with
 * some vertices fixed. Conformal maps and Newton steps both are of this form, so both share its ordering and
 * analysis, which depend only on connectivity and on which vertices are fixed.
 */
export interface TriangleSystem {
  readonly vertexCount: number;
  readonly triangles: Uint32Array;
  /** Running number of each free vertex, -1 where fixed. */
  readonly freeIndex: Int32Array;
  readonly pattern: Pattern;
  readonly analysis: Analysis;
  /** Place in the values of each of the 21 lower entries of each triangle; -1 where one side is fixed. */
  readonly slot: Int32Array;
}

/** Lower entries of a 6 × 6 matrix, row by row: (0,0) (1,0) (1,1) (2,0) … (5,5). */
const LOWER_ROWS = Uint8Array.from([0, 1, 1, 2, 2, 2, 3, 3, 3, 3, 4, 4, 4, 4, 4, 5, 5, 5, 5, 5, 5]);
const LOWER_COLUMNS = Uint8Array.from([0, 0, 1, 0, 1, 2, 0, 1, 2, 3, 0, 1, 2, 3, 4, 0, 1, 2, 3, 4, 5]);
export const LOWER_ENTRIES = 21;

/**
 * @param fixed  1 for each vertex that keeps its UV; at least one vertex must be free
 */
export function triangleSystem(
  triangles: Uint32Array,
  vertexCount: number,
  fixed: Uint8Array,
): TriangleSystem {
  const freeIndex = new Int32Array(vertexCount).fill(-1);
  let free = 0;
  for (let v = 0; v < vertexCount; v++) if (!fixed[v]) freeIndex[v] = free++;

  // The graph of free vertices, an entry a triangle side; its 2 × 2 blocks are the matrix.
  const rows = new Uint32Array(triangles.length);
  const columns = new Uint32Array(triangles.length);
  const listed = new Int32Array(triangles.length).fill(-1);
  let sides = 0;
  for (let i = 0; i < triangles.length; i++) {
    const a = freeIndex[triangles[i]];
    const b = freeIndex[triangles[i % 3 === 2 ? i - 2 : i + 1]];
    if (a < 0 || b < 0) continue;
    rows[sides] = a;
    columns[sides] = b;
    listed[i] = sides++;
  }
  const graph = gatherPattern(free, rows.subarray(0, sides), columns.subarray(0, sides));
  const pattern = inBlocks(graph.pattern);
  const slot = blockSlots(triangles, freeIndex, graph.pattern, (i) =>
    listed[i] < 0 ? -1 : graph.slot[listed[i]],
  );
  const analysis = analyseBlocks(pattern, graph.pattern, minimumDegree(graph.pattern));
  return { vertexCount, triangles, freeIndex, pattern, analysis, slot };
}

/** The pattern with a full 2 × 2 block, u and v, for every entry of the graph. */
function inBlocks(graph: Pattern): Pattern {
  const size = 2 * graph.size;
  const columnStart = new Uint32Array(size + 1);
  const row = new Uint32Array(4 * graph.row.length - graph.size);
  let at = 0;
  for (let j = 0; j < graph.size; j++) {
    for (let half = 0; half < 2; half++) {
      for (let k = graph.columnStart[j]; k < graph.columnStart[j + 1]; k++) {
        const onDiagonal = k === graph.columnStart[j];
        if (!(onDiagonal && half === 1)) row[at++] = 2 * graph.row[k];
        row[at++] = 2 * graph.row[k] + 1;
      }
      columnStart[2 * j + half + 1] = at;
    }
  }
  return { size, columnStart, row };
}

/**
 * @param sideEntry  entry of the graph for the side from corner i of the triangle list to the next corner; -1 for none
 */
function blockSlots(
  triangles: Uint32Array,
  freeIndex: Int32Array,
  graph: Pattern,
  sideEntry: (i: number) => number,
): Int32Array {
  const slot = new Int32Array((triangles.length / 3) * LOWER_ENTRIES).fill(-1);
  // Sides between corners (1, 0), (2, 0), (2, 1) begin at corners 0, 2, 1.
  const SIDE = [-1, 0, 2, 1];
  for (let t = 0; t < triangles.length; t += 3) {
    for (let k = 0; k < LOWER_ENTRIES; k++) {
      const [p, q] = [LOWER_ROWS[k] >> 1, LOWER_COLUMNS[k] >> 1];
      const a = freeIndex[triangles[t + p]];
      const b = freeIndex[triangles[t + q]];
      if (a < 0 || b < 0) continue;
      const swapped = a < b;
      const column = swapped ? a : b;
      const row = 2 * (p === q ? 0 : sideEntry(t + SIDE[p + q]) - graph.columnStart[column]);
      const height = graph.columnStart[column + 1] - graph.columnStart[column];
      const [high, low] = swapped
        ? [LOWER_COLUMNS[k] & 1, LOWER_ROWS[k] & 1]
        : [LOWER_ROWS[k] & 1, LOWER_COLUMNS[k] & 1];
      // Columns 2j and 2j + 1 hold 2h and 2h − 1 entries, so block column j begins at 4 Σh − j.
      const first = 4 * graph.columnStart[column] - column;
      slot[(t / 3) * LOWER_ENTRIES + k] = first + row + high + (low === 1 ? 2 * height - 1 : 0);
    }
  }
  return slot;
}

/**
 * @param lower  the 21 lower entries of each triangle's matrix, `21 × triangleCount`
 * @param shift  added to the diagonal, relative to its mean; keeps a matrix that leaves a motion free definite
 * @param reuse  an earlier factor of this system, spent by this call
 */
export function factoriseTriangles(
  system: TriangleSystem,
  lower: Float64Array,
  shift = 0,
  signal?: Context['signal'],
  reuse?: Factor,
): Factor {
  const { slot, pattern } = system;
  const values = new Float64Array(pattern.row.length);
  for (let i = 0; i < slot.length; i++) if (slot[i] >= 0) values[slot[i]] += lower[i];
  if (shift > 0) {
    let trace = 0;
    for (let j = 0; j < pattern.size; j++) trace += values[pattern.columnStart[j]];
    const added = (shift * trace) / pattern.size;
    for (let j = 0; j < pattern.size; j++) values[pattern.columnStart[j]] += added;
  }
  return factorise(system.analysis, values, signal, reuse);
}

/** Solves for the free vertices; fixed ones get zero. Right-hand side and answer are `2 × vertexCount`. */
export function solveTriangles(
  system: TriangleSystem,
  factor: Factor,
  rightHand: Float64Array,
): Float64Array {
  const { freeIndex } = system;
  const b = new Float64Array(system.pattern.size);
  for (let v = 0; v < freeIndex.length; v++) {
    const i = freeIndex[v];
    if (i < 0) continue;
    b[2 * i] = rightHand[2 * v];
    b[2 * i + 1] = rightHand[2 * v + 1];
  }
  const x = solve(factor, b);
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
  for (let i = 0; i < lower.length; i++) {
    const t = 3 * Math.floor(i / LOWER_ENTRIES);
    const k = i % LOWER_ENTRIES;
    const a = 2 * triangles[t + (LOWER_ROWS[k] >> 1)] + (LOWER_ROWS[k] & 1);
    const b = 2 * triangles[t + (LOWER_COLUMNS[k] >> 1)] + (LOWER_COLUMNS[k] & 1);
    y[a] += lower[i] * x[b];
    if (a !== b) y[b] += lower[i] * x[a];
  }
  return y;
}
