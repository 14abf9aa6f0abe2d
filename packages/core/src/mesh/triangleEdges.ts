import { bucket } from './connectivity.ts';

/** The edges of a triangle mesh, numbered by their lower vertex and then by their upper one. */
export interface TriangleEdges {
  /** Edges whose lower vertex is v: `start[v] … start[v + 1]`. */
  readonly start: Uint32Array;
  /** Upper vertex of each edge. */
  readonly upper: Uint32Array;
  /** Edge of each side: side 3 t + k goes from corner k of triangle t to the next. */
  readonly sideEdge: Uint32Array;
}

const known = new WeakMap<Uint32Array, TriangleEdges>();

/**
 * Worked out once for a list of triangles, which must not be changed afterwards. A triangle that names a vertex twice has an edge
 * from it to itself.
 *
 * @param triangles  three vertices each
 * @param vertexCount  one more than the greatest vertex
 */
export function triangleEdges(triangles: Uint32Array, vertexCount: number): TriangleEdges {
  let edges = known.get(triangles);
  if (!edges) {
    edges = numberEdges(triangles, vertexCount);
    known.set(triangles, edges);
  }
  return edges;
}

function numberEdges(triangles: Uint32Array, vertexCount: number): TriangleEdges {
  const lower = new Uint32Array(triangles.length);
  const upperOfSide = new Uint32Array(triangles.length);
  for (let t = 0; t < triangles.length; t += 3) {
    for (let k = 0; k < 3; k++) {
      const a = triangles[t + k];
      const b = triangles[k === 2 ? t : t + k + 1];
      lower[t + k] = Math.min(a, b);
      upperOfSide[t + k] = Math.max(a, b);
    }
  }
  const { start: sideStart, items } = bucket(lower, vertexCount);
  const start = new Uint32Array(vertexCount + 1);
  const upper = new Uint32Array(triangles.length);
  const sideEdge = new Uint32Array(triangles.length);
  let count = 0;
  for (let v = 0; v < vertexCount; v++) {
    const first = count;
    const from = sideStart[v];
    const to = sideStart[v + 1];
    if (to - from > FEW) {
      const all = Uint32Array.from(items.subarray(from, to), (side) => upperOfSide[side]).sort();
      for (const end of all) if (count === first || upper[count - 1] !== end) upper[count++] = end;
    } else {
      // Kept in order while they come in.
      for (let i = from; i < to; i++) {
        const end = upperOfSide[items[i]];
        let at = count;
        while (at > first && upper[at - 1] > end) at--;
        if (at > first && upper[at - 1] === end) continue;
        for (let j = count++; j > at; j--) upper[j] = upper[j - 1];
        upper[at] = end;
      }
    }
    for (let i = from; i < to; i++) sideEdge[items[i]] = placeOf(upper, upperOfSide[items[i]], first, count);
    start[v + 1] = count;
  }
  return { start, upper: upper.slice(0, count), sideEdge };
}

/** Sides at a vertex that are sorted one by one. */
const FEW = 32;

/** Where a number stands in an ascending run that has it. */
function placeOf(ascending: Uint32Array, value: number, from: number, to: number): number {
  let low = from;
  let high = to - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (ascending[middle] < value) low = middle + 1;
    else high = middle;
  }
  return low;
}
