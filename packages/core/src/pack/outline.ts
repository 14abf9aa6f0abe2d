import { triangleEdges } from '../mesh/triangleEdges.ts';

/** A flat shell, of any number of parts and holes. */
export interface FlatMesh {
  /** Three vertices each. */
  readonly triangles: Uint32Array;
  /** Per vertex, `2 × vertexCount`. */
  readonly uv: Float64Array;
}

/**
 * The borders of a flat shell as chains of points: round its outside and round each hole. A chain closes unless the shell is not manifold there.
 *
 * @returns points of each chain, u and v; the last point is joined to the first where `closed`
 */
export function outlineOf({ triangles, uv }: FlatMesh): Chain[] {
  const { upper, sideEdge } = triangleEdges(triangles, uv.length / 2);
  const sides = new Uint32Array(upper.length);
  for (const e of sideEdge) sides[e]++;
  const leaving = new Map<number, number[]>();
  for (let side = 0; side < triangles.length; side++) {
    if (sides[sideEdge[side]] !== 1) continue;
    const to = triangles[side % 3 === 2 ? side - 2 : side + 1];
    const more = leaving.get(triangles[side]);
    if (more) more.push(to);
    else leaving.set(triangles[side], [to]);
  }
  const chains: Chain[] = [];
  for (const [start, ways] of leaving) {
    while (ways.length > 0) {
      const points: number[] = [];
      let at = start;
      for (let next = ways.pop(); next !== undefined; next = leaving.get(at)?.pop()) {
        points.push(uv[2 * at], uv[2 * at + 1]);
        at = next;
        if (at === start) break;
      }
      const closed = at === start;
      if (!closed) points.push(uv[2 * at], uv[2 * at + 1]);
      chains.push({ points: Float64Array.from(points), closed });
    }
  }
  return chains;
}

export interface Chain {
  /** u and v of each point. */
  readonly points: Float64Array;
  /** Whether the last point is joined to the first. */
  readonly closed: boolean;
}

/** The two ends of each segment of chains, u and v of both, `4 × count`. */
export function segmentsOf(chains: readonly Chain[]): Float64Array {
  const segments: number[] = [];
  for (const { points, closed } of chains) {
    const count = points.length / 2;
    for (let i = 0; i + (closed ? 0 : 1) < count; i++) {
      const j = (i + 1) % count;
      segments.push(points[2 * i], points[2 * i + 1], points[2 * j], points[2 * j + 1]);
    }
  }
  return Float64Array.from(segments);
}
