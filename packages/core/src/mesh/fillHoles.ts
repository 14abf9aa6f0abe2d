import type { Connectivity } from './connectivity.ts';
import { faceCount, type Mesh } from './mesh.ts';

/**
 * A mesh with one more face over every hole that is wanted filled; the faces before keep their numbers, and no vertex comes to it. Borders that touch
 * themselves are left open.
 *
 * @param isWanted  told the vertices of a border in the direction of the faces beside it
 */
export function fillHoles(
  mesh: Mesh,
  { isInterior, edgeCorners, edgeCornerStart, nextCorner }: Connectivity,
  isWanted: (loop: readonly number[]) => boolean,
): Mesh {
  const { cornerVertex, faceStart, positions } = mesh;
  /** The vertex after each along a border; −2 where several go on. */
  const next = new Int32Array(positions.length / 3).fill(-1);
  for (let e = 0; e < isInterior.length; e++) {
    if (isInterior[e]) continue;
    for (let i = edgeCornerStart[e]; i < edgeCornerStart[e + 1]; i++) {
      const from = cornerVertex[edgeCorners[i]];
      next[from] = next[from] === -1 ? cornerVertex[nextCorner[edgeCorners[i]]] : -2;
    }
  }
  const corners: number[] = [];
  const starts: number[] = [];
  for (let start = 0; start < next.length; start++) {
    const loop: number[] = [];
    let v = start;
    while (next[v] >= 0) {
      loop.push(v);
      const to = next[v];
      next[v] = -1;
      v = to;
    }
    if (v !== start || loop.length < 3 || !isWanted(loop)) continue;
    starts.push(cornerVertex.length + corners.length);
    corners.push(...loop.reverse());
  }
  if (starts.length === 0) return mesh;
  const filled = new Uint32Array(faceStart.length + starts.length);
  filled.set(faceStart.subarray(0, faceCount(mesh)));
  filled.set([...starts, cornerVertex.length + corners.length], faceCount(mesh));
  const all = new Uint32Array(cornerVertex.length + corners.length);
  all.set(cornerVertex);
  all.set(corners, cornerVertex.length);
  return { positions, faceStart: filled, cornerVertex: all };
}
