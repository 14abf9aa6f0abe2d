import type { Connectivity } from '../mesh/connectivity.ts';
import { disjointSets, findRoot, unite } from '../mesh/disjointSets.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';

/**
 * All faces that hang together with some of them.
 *
 * @param isOpen  whether faces hang together over an edge
 */
export function connectedFaces(
  mesh: Mesh,
  { isInterior, edgeCorners, edgeCornerStart, cornerFace }: Connectivity,
  faces: Iterable<number>,
  isOpen: (edge: number) => boolean = (e) => isInterior[e] === 1,
): number[] {
  const sets = disjointSets(faceCount(mesh));
  for (let e = 0; e < isInterior.length; e++) {
    if (!isOpen(e)) continue;
    for (let i = edgeCornerStart[e] + 1; i < edgeCornerStart[e + 1]; i++)
      unite(sets, cornerFace[edgeCorners[edgeCornerStart[e]]], cornerFace[edgeCorners[i]]);
  }
  const roots = new Set([...faces].map((f) => findRoot(sets, f)));
  return Array.from({ length: faceCount(mesh) }, (_, f) => f).filter((f) => roots.has(findRoot(sets, f)));
}
