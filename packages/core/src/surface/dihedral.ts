import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';

/**
 * By how much the surface turns over a joined edge, radians: 0 flat, above 0 over a ridge, below 0 in a fold, up to ±π.
 *
 * @param normals  unit normals of all faces, `3 × faceCount`
 * @returns 0 at an edge that is not joined
 */
export function signedDihedral(
  mesh: Pick<Mesh, 'positions' | 'cornerVertex'>,
  { edgeCorners, edgeCornerStart, cornerFace, nextCorner, isInterior }: Connectivity,
  normals: Float64Array,
  edge: number,
): number {
  if (!isInterior[edge]) return 0;
  const { positions: p, cornerVertex } = mesh;
  const a = edgeCorners[edgeCornerStart[edge]];
  const b = edgeCorners[edgeCornerStart[edge] + 1];
  const m = 3 * cornerFace[a];
  const n = 3 * cornerFace[b];
  const cosine = normals[m] * normals[n] + normals[m + 1] * normals[n + 1] + normals[m + 2] * normals[n + 2];
  // Along the edge as the first face goes round it: over a ridge the normals turn with it.
  const i = 3 * cornerVertex[a];
  const j = 3 * cornerVertex[nextCorner[a]];
  const [x, y, z] = [p[j] - p[i], p[j + 1] - p[i + 1], p[j + 2] - p[i + 2]];
  const length = Math.hypot(x, y, z) || 1;
  const sine =
    (x * (normals[m + 1] * normals[n + 2] - normals[m + 2] * normals[n + 1]) +
      y * (normals[m + 2] * normals[n] - normals[m] * normals[n + 2]) +
      z * (normals[m] * normals[n + 1] - normals[m + 1] * normals[n])) /
    length;
  return Math.atan2(sine, cosine);
}
