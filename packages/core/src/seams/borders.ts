import { connectivity } from '../mesh/connectivity.ts';

/** The borders of a triangle mesh. */
export interface Borders {
  /** Vertices of each border loop in the direction of the triangles beside it, longest loop first. */
  readonly loops: readonly Uint32Array[];
  /** How many edges there are, borders and joined ones. */
  readonly edgeCount: number;
  /** True when some edge has more than two triangles, or two that disagree in winding. */
  readonly tangled: boolean;
}

/**
 * @param triangles  three vertices each
 * @param vertexCount  one more than the greatest vertex
 */
export function borders(triangles: Uint32Array, vertexCount: number): Borders {
  const faceStart = Uint32Array.from({ length: triangles.length / 3 + 1 }, (_, t) => 3 * t);
  const links = connectivity({
    positions: new Float64Array(3 * vertexCount),
    faceStart,
    cornerVertex: triangles,
  });
  const { joined, edgeCorners, edgeCornerStart, nextCorner } = links;
  let tangled = false;
  const next = new Map<number, number>();
  for (let e = 0; e < joined.length; e++) {
    if (joined[e]) continue;
    const first = edgeCornerStart[e];
    if (edgeCornerStart[e + 1] - first > 1) tangled = true;
    const from = triangles[edgeCorners[first]];
    if (next.has(from)) tangled = true;
    next.set(from, triangles[nextCorner[edgeCorners[first]]]);
  }
  return { loops: chained(next), edgeCount: joined.length, tangled };
}

/** Loops from a map that leads from each vertex to the one after it. */
function chained(next: Map<number, number>): Uint32Array[] {
  const loops: Uint32Array[] = [];
  for (const start of next.keys()) {
    const loop: number[] = [];
    let v = start;
    for (let to = next.get(v); to !== undefined; to = next.get(v)) {
      loop.push(v);
      next.delete(v);
      v = to;
    }
    loops.push(Uint32Array.from(loop));
  }
  return loops.sort((a, b) => b.length - a.length);
}
