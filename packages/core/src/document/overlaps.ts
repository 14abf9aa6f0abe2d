import { overlappingTriangles } from '../measure/overlap.ts';
import { type HemDocument, topologyOf } from './document.ts';

/** Most pairs that are counted; beyond it the figure reads “at least”. */
export const OVERLAP_LIMIT = 10_000;

/** Faces that lie on each other in the current UV set, two a pair; a pair of faces counts once. */
export function overlappingFaces(document: HemDocument): Uint32Array {
  const { triangulation } = topologyOf(document.model);
  const { triangleCorners, triangleFace } = triangulation;
  const { uv } = document.uvSets[document.currentUv];
  const flat: number[] = [];
  const faceOf: number[] = [];
  for (let t = 0; t < triangleFace.length; t++) {
    const corners = [triangleCorners[3 * t], triangleCorners[3 * t + 1], triangleCorners[3 * t + 2]];
    if (corners.some((c) => Number.isNaN(uv[2 * c]))) continue;
    for (const c of corners) flat.push(uv[2 * c], uv[2 * c + 1]);
    faceOf.push(triangleFace[t]);
  }
  const pairs = overlappingTriangles(Float64Array.from(flat), OVERLAP_LIMIT);
  const faces: number[] = [];
  const seen = new Set<string>();
  for (let i = 0; i < pairs.length; i += 2) {
    const [a, b] = [faceOf[pairs[i]], faceOf[pairs[i + 1]]].sort((p, q) => p - q);
    if (a === b || seen.has(`${a} ${b}`)) continue;
    seen.add(`${a} ${b}`);
    faces.push(a, b);
  }
  return Uint32Array.from(faces);
}
