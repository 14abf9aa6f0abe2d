import { triangleEdges } from '../mesh/triangleEdges.ts';

/** The borders of a triangle mesh. */
export interface Borders {
  /** Vertices of each border loop in the direction of the triangles beside it, longest loop first. */
  readonly loops: readonly Uint32Array[];
  /** How many edges there are, borders and joined ones. */
  readonly edgeCount: number;
  /** True when some edge has more than two triangles, or two that disagree in winding. */
  readonly nonManifold: boolean;
}

const known = new WeakMap<Uint32Array, Borders>();

/**
 * Worked out once for a list of triangles, which must not be changed afterwards.
 *
 * @param triangles  three vertices each
 * @param vertexCount  one more than the greatest vertex
 */
export function borders(triangles: Uint32Array, vertexCount: number): Borders {
  let found = known.get(triangles);
  if (!found) {
    found = findBorders(triangles, vertexCount);
    known.set(triangles, found);
  }
  return found;
}

function findBorders(triangles: Uint32Array, vertexCount: number): Borders {
  const { upper, sideEdge } = triangleEdges(triangles, vertexCount);
  const end = (side: number): number => triangles[side % 3 === 2 ? side - 2 : side + 1];
  /** Sides of each edge, and those of them that go from its lower vertex. */
  const sides = new Uint32Array(upper.length);
  const rising = new Uint32Array(upper.length);
  for (let i = 0; i < triangles.length; i++) {
    sides[sideEdge[i]]++;
    if (triangles[i] < end(i)) rising[sideEdge[i]]++;
  }
  const next = new Int32Array(vertexCount).fill(-1);
  let nonManifold = false;
  for (let i = 0; i < triangles.length; i++) {
    const e = sideEdge[i];
    if (sides[e] === DONE || (sides[e] === 2 && rising[e] === 1)) continue;
    const from = triangles[i];
    if (sides[e] > 1 || next[from] >= 0) nonManifold = true;
    next[from] = end(i);
    sides[e] = DONE;
  }
  return { loops: chained(next), edgeCount: upper.length, nonManifold };
}

/** In the place of a number of sides: the edge has its place in a loop. */
const DONE = 0;

/** Loops from a list that names the vertex after each one, -1 for none. */
function chained(next: Int32Array): Uint32Array[] {
  const loops: Uint32Array[] = [];
  for (let start = 0; start < next.length; start++) {
    const loop: number[] = [];
    for (let v = start, to = next[v]; to >= 0; v = to, to = next[v]) {
      loop.push(v);
      next[v] = -1;
    }
    if (loop.length > 0) loops.push(Uint32Array.from(loop));
  }
  return loops.sort((a, b) => b.length - a.length);
}
