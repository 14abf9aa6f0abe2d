import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';

/**
 * Faces round some of them as far as the surface stays level: over edges at which it turns by no more than an angle.
 *
 * @param normals  of all faces, `3 × faceCount`
 * @param angle  radians
 * @param isBarred  whether an edge may not be passed over, such as a seam
 */
export function levelFaces(
  { faceStart }: Mesh,
  { cornerEdge, cornerFace, edgeCorners, edgeCornerStart, isInterior }: Connectivity,
  normals: Float64Array,
  faces: Iterable<number>,
  angle: number,
  isBarred: (edge: number) => boolean = () => false,
): number[] {
  const least = Math.cos(angle);
  const found = new Set(faces);
  const left = [...found];
  for (let f = left.pop(); f !== undefined; f = left.pop()) {
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      const e = cornerEdge[c];
      if (!isInterior[e] || isBarred(e)) continue;
      for (let i = edgeCornerStart[e]; i < edgeCornerStart[e + 1]; i++) {
        const g = cornerFace[edgeCorners[i]];
        if (found.has(g)) continue;
        let cosine = 0;
        for (let k = 0; k < 3; k++) cosine += normals[3 * f + k] * normals[3 * g + k];
        if (cosine < least) continue;
        found.add(g);
        left.push(g);
      }
    }
  }
  return [...found];
}
