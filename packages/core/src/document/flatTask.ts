import { current, type HemDocument, topologyOf } from './document.ts';

export interface FlatTask {
  /** UV of the three corners of each triangle that has them: `6 × triangleCount`. */
  readonly flat: Float64Array;
  /** Face of each of those triangles. */
  readonly faceOf: Uint32Array;
}

/** The triangles of a document that have UVs, as looking for overlaps and measuring coverage want them. */
export function flatTask(document: HemDocument): FlatTask {
  const { triangleCorners, triangleFace } = topologyOf(document.model).triangulation;
  const { uv } = current(document);
  const flat = new Float64Array(6 * triangleFace.length);
  const faceOf = new Uint32Array(triangleFace.length);
  let count = 0;
  for (let t = 0; t < triangleFace.length; t++) {
    let sum = 0;
    for (let k = 0; k < 3; k++) {
      const c = triangleCorners[3 * t + k];
      flat[6 * count + 2 * k] = uv[2 * c];
      flat[6 * count + 2 * k + 1] = uv[2 * c + 1];
      sum += uv[2 * c];
    }
    if (!Number.isNaN(sum)) faceOf[count++] = triangleFace[t];
  }
  return { flat: flat.slice(0, 6 * count), faceOf: faceOf.slice(0, count) };
}
