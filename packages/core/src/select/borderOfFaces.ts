import type { Connectivity } from '../mesh/connectivity.ts';

/** Edges with a chosen face on one side and another on the other. */
export function borderOfFaces(
  { joined, edgeCorners, edgeCornerStart, cornerFace }: Connectivity,
  faces: Iterable<number>,
): number[] {
  const chosen = new Set(faces);
  const found: number[] = [];
  for (let e = 0; e < joined.length; e++) {
    if (!joined[e]) continue;
    const first = edgeCornerStart[e];
    if (chosen.has(cornerFace[edgeCorners[first]]) !== chosen.has(cornerFace[edgeCorners[first + 1]]))
      found.push(e);
  }
  return found;
}
