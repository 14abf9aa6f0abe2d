import type { Shell } from './shell.ts';

/**
 * Distances at the faces of a shell from those at its vertices, in the mean over the corners of their triangles.
 *
 * @param far  per vertex of the shell
 * @param faces  how many the model has
 * @returns per face of the model; Infinity for those of other shells
 */
export function distanceToFaces(
  { triangles, triangleFace }: Shell,
  far: Float64Array,
  faces: number,
): Float64Array {
  const sum = new Float64Array(faces);
  const corners = new Uint32Array(faces);
  for (let c = 0; c < triangles.length; c++) {
    const f = triangleFace[(c / 3) | 0];
    sum[f] += far[triangles[c]];
    corners[f]++;
  }
  return sum.map((s, f) => (corners[f] ? s / corners[f] : Infinity));
}
