import type { Connectivity } from '../mesh/connectivity.ts';

/** Edges with a chosen face on one side and another on the other. */
export function borderOfFaces(
  { isInterior, edgeCorners, edgeCornerStart, cornerFace }: Connectivity,
  faces: Iterable<number>,
): number[] {
  const chosen = new Set(faces);
  const found: number[] = [];
  for (let e = 0; e < isInterior.length; e++) {
    if (!isInterior[e]) continue;
    const first = edgeCornerStart[e];
    if (chosen.has(cornerFace[edgeCorners[first]]) !== chosen.has(cornerFace[edgeCorners[first + 1]]))
      found.push(e);
  }
  return found;
}
