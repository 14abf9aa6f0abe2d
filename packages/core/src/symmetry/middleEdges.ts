import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { edgeLength } from '../select/shortestPath.ts';
import type { Counterparts } from './counterparts.ts';
import type { Symmetry } from './findSymmetry.ts';

/** An edge lies in the plane where its ends are nearer to it than this part of its length: one across it has them half its length away. */
const NEAR = 0.25;

/**
 * Joined edges that lie in the mirror plane of a mesh, each its own image.
 *
 * @returns numbers of edges; none where the symmetry is a turn
 */
export function middleEdges(
  mesh: Mesh,
  connectivity: Connectivity,
  { kind, direction, through }: Symmetry,
  { edges }: Pick<Counterparts, 'edges'>,
): number[] {
  if (kind !== 'mirror') return [];
  const distance = (vertex: number): number =>
    Math.abs(direction.reduce((sum, d, k) => sum + d * (mesh.positions[3 * vertex + k] - through[k]), 0));
  const found: number[] = [];
  for (let e = 0; e < edges.length; e++) {
    if (!connectivity.isInterior[e] || edges[e] !== e) continue;
    const near = NEAR * edgeLength(mesh, connectivity, e);
    if (
      distance(connectivity.edgeVertices[2 * e]) <= near &&
      distance(connectivity.edgeVertices[2 * e + 1]) <= near
    )
      found.push(e);
  }
  return found;
}
