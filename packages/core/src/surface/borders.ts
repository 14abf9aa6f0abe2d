import { bucket } from '../mesh/connectivity.ts';

/** The borders of a triangle mesh. */
export interface Borders {
  /** Vertices of each border loop in the direction of the triangles beside it, longest loop first. */
  readonly loops: readonly Uint32Array[];
  /** How many edges there are, borders and joined ones. */
  readonly edgeCount: number;
  /** True when some edge has more than two triangles, or two that disagree in winding. */
  readonly tangled: boolean;
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
  const sides = triangles.length;
  const lower = new Uint32Array(sides);
  const end = (side: number): number => triangles[side % 3 === 2 ? side - 2 : side + 1];
  for (let i = 0; i < sides; i++) lower[i] = Math.min(triangles[i], end(i));
  const { start, items } = bucket(lower, vertexCount);

  const next = new Int32Array(vertexCount).fill(-1);
  let edgeCount = 0;
  let tangled = false;
  for (let v = 0; v < vertexCount; v++) {
    for (let k = start[v]; k < start[v + 1]; k++) {
      // A side already matched is marked by its complement.
      const side = items[k];
      if (side === MATCHED) continue;
      edgeCount++;
      const from = triangles[side];
      const to = end(side);
      let others = 0;
      let opposed = true;
      for (let m = k + 1; m < start[v + 1]; m++) {
        const other = items[m];
        if (other === MATCHED) continue;
        const a = triangles[other];
        if (a + end(other) !== from + to || (a !== from && a !== to)) continue;
        others++;
        if (a === from) opposed = false;
        items[m] = MATCHED;
      }
      if (others === 1 && opposed) continue;
      if (others > 0 || next[from] >= 0) tangled = true;
      next[from] = to;
    }
  }
  return { loops: chained(next), edgeCount, tangled };
}

const MATCHED = 0xffffffff;

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
