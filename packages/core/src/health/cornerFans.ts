import { disjointSets, findRoot, unite } from '../mesh/disjointSets.ts';
import type { Patient } from './check.ts';

/**
 * The fans of faces round vertices: corners of one vertex have the same number where faces lead from one to the other
 * across joined edges.
 *
 * @param vertices  those whose fans are told apart; all when absent. At the others every corner has the number of the vertex's
 *                  first corner
 */
export function cornerFans({ mesh, connectivity }: Patient, vertices?: ReadonlySet<number>): Uint32Array {
  const { cornerVertex } = mesh;
  const { edgeCornerStart, edgeCorners, isInterior, nextCorner } = connectivity;
  const sets = disjointSets(cornerVertex.length);
  for (let e = 0; e < isInterior.length; e++) {
    if (!isInterior[e]) continue;
    const [c, d] = [edgeCorners[edgeCornerStart[e]], edgeCorners[edgeCornerStart[e] + 1]];
    // The two faces run along the edge in opposite directions.
    unite(sets, c, nextCorner[d]);
    unite(sets, nextCorner[c], d);
  }
  if (vertices) {
    const first = new Map<number, number>();
    cornerVertex.forEach((v, c) => {
      if (vertices.has(v)) return;
      const before = first.get(v);
      if (before === undefined) first.set(v, c);
      else unite(sets, before, c);
    });
  }
  return Uint32Array.from(sets.parent, (_, c) => findRoot(sets, c));
}
