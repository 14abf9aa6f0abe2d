import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';

/**
 * The edges that lie side by side with one across a strip of quads, both ways: from each to the one opposite in the next quad. It ends at
 * borders, at faces that are no quads, and where it comes round.
 *
 * @returns edges in order, the given one among them
 */
export function edgeRing({ faceStart }: Mesh, connectivity: Connectivity, edge: number): number[] {
  const { edgeCorners, edgeCornerStart, cornerFace, cornerEdge } = connectivity;
  const ring = [edge];
  const seen = new Set(ring);
  const walk = (corner: number, add: (e: number) => void): void => {
    for (let c = corner; ; ) {
      const f = cornerFace[c];
      if (faceStart[f + 1] - faceStart[f] !== 4) return;
      const e = cornerEdge[faceStart[f] + ((c - faceStart[f] + 2) % 4)];
      if (seen.has(e)) return;
      seen.add(e);
      add(e);
      let next = -1;
      for (let i = edgeCornerStart[e]; i < edgeCornerStart[e + 1]; i++)
        if (cornerFace[edgeCorners[i]] !== f) next = edgeCorners[i];
      if (next < 0 || !connectivity.isInterior[e]) return;
      c = next;
    }
  };
  const first = edgeCornerStart[edge];
  if (edgeCornerStart[edge + 1] > first) walk(edgeCorners[first], (e) => ring.push(e));
  if (connectivity.isInterior[edge]) walk(edgeCorners[first + 1], (e) => ring.unshift(e));
  return ring;
}
