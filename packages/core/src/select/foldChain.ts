import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { signedDihedral } from '../surface/dihedral.ts';
import { edgeDirection } from './edgeDirection.ts';

/** A chain turns at most so much from an edge to the next, as the cosine. */
const STRAIGHT = Math.cos((60 * Math.PI) / 180);
/** It goes on while the surface folds at least this part of what it does at its first edge. */
const LESS = 0.5;

/**
 * The chain of edges along a fold or a ridge, both ways from one of them: at every vertex it goes on to the sharpest edge ahead, as long as
 * the surface bends there, and the same way.
 *
 * @param normals  of all faces
 * @returns edges in order, the given one among them
 */
export function foldChain(
  mesh: Mesh,
  connectivity: Connectivity,
  normals: Float64Array,
  edge: number,
): number[] {
  const { edgeVertices, vertexEdges, vertexEdgeStart } = connectivity;
  const first = signedDihedral(mesh, connectivity, normals, edge);
  const sign = Math.sign(first) || 1;
  const bend = (e: number) => sign * signedDihedral(mesh, connectivity, normals, e);
  const chain = [edge];
  const seen = new Set(chain);
  const walk = (from: number, add: (e: number) => void): void => {
    let at = from;
    let last = edge;
    for (;;) {
      const heading = edgeDirection(mesh, connectivity, last, at).map((x) => -x);
      let best = -1;
      let sharpest = LESS * Math.abs(first);
      for (let i = vertexEdgeStart[at]; i < vertexEdgeStart[at + 1]; i++) {
        const e = vertexEdges[i];
        if (seen.has(e) || bend(e) < sharpest) continue;
        const d = edgeDirection(mesh, connectivity, e, at);
        if (d[0] * heading[0] + d[1] * heading[1] + d[2] * heading[2] < STRAIGHT) continue;
        best = e;
        sharpest = bend(e);
      }
      if (best < 0) return;
      seen.add(best);
      add(best);
      at = edgeVertices[2 * best] + edgeVertices[2 * best + 1] - at;
      last = best;
    }
  };
  if (Math.abs(first) < 1e-3) return chain;
  walk(edgeVertices[2 * edge + 1], (e) => chain.push(e));
  walk(edgeVertices[2 * edge], (e) => chain.unshift(e));
  return chain;
}
