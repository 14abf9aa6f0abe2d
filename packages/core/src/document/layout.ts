import type { FlatShell } from '../arrange/packShells.ts';
import { facesOfShell } from '../surface/shells.ts';
import type { UvBox } from '../surface/uvBox.ts';
import { type HemDocument, shellsOf, topologyOf } from './document.ts';

/**
 * Where every shell lies; undefined for one with missing UVs.
 *
 * @param uv  of every corner, the current ones by default
 */
export function shellBoxes(
  document: HemDocument,
  uv = document.uvSets[document.currentUv].uv,
): (UvBox | undefined)[] {
  const { mesh } = document.model;
  const { shellCount, faceShell } = shellsOf(document);
  const box = new Float64Array(4 * shellCount);
  for (let s = 0; s < shellCount; s++) box.set([Infinity, Infinity, -Infinity, -Infinity], 4 * s);
  for (let f = 0; f < faceShell.length; f++) {
    const at = 4 * faceShell[f];
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
      const [u, v] = [uv[2 * c], uv[2 * c + 1]];
      // NaN wins every such comparison, and stays.
      box[at] = Math.min(box[at], u);
      box[at + 1] = Math.min(box[at + 1], v);
      box[at + 2] = Math.max(box[at + 2], u);
      box[at + 3] = Math.max(box[at + 3], v);
    }
  }
  return Array.from({ length: shellCount }, (_, s) => {
    const [a, b, c, d] = box.subarray(4 * s, 4 * s + 4);
    return Number.isNaN(a + b) ? undefined : ([a, b, c, d] as const);
  });
}

/**
 * Triangles of one shell as they lie.
 *
 * @param uv  of every corner, the current ones by default
 */
export function flatTriangles(
  document: HemDocument,
  shell: number,
  uv = document.uvSets[document.currentUv].uv,
): FlatShell {
  const { triangulation, triangleStart } = topologyOf(document.model);
  const faces = facesOfShell(shellsOf(document), shell);
  let count = 0;
  for (const f of faces) count += triangleStart[f + 1] - triangleStart[f];
  const flat = new Float64Array(6 * count);
  let at = 0;
  for (const f of faces) {
    for (let i = 3 * triangleStart[f]; i < 3 * triangleStart[f + 1]; i++) {
      const c = triangulation.triangleCorners[i];
      flat[at++] = uv[2 * c];
      flat[at++] = uv[2 * c + 1];
    }
  }
  return flat;
}

/** Area on the model and in the flat of every shell, flipped triangles counted against it; NaN where UVs are missing. */
export function shellAreas(document: HemDocument): {
  readonly solid: Float64Array;
  readonly flat: Float64Array;
} {
  const { mesh, triangulation } = topologyOf(document.model);
  const { triangleCorners, triangleFace } = triangulation;
  const { positions: p, cornerVertex } = mesh;
  const { uv } = document.uvSets[document.currentUv];
  const { shellCount, faceShell } = shellsOf(document);
  const solid = new Float64Array(shellCount);
  const flat = new Float64Array(shellCount);
  for (let t = 0; t < triangleFace.length; t++) {
    const s = faceShell[triangleFace[t]];
    const [i, j, k] = [triangleCorners[3 * t], triangleCorners[3 * t + 1], triangleCorners[3 * t + 2]];
    const [a, b, c] = [3 * cornerVertex[i], 3 * cornerVertex[j], 3 * cornerVertex[k]];
    const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    solid[s] += 0.5 * Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx);
    flat[s] +=
      0.5 *
      ((uv[2 * j] - uv[2 * i]) * (uv[2 * k + 1] - uv[2 * i + 1]) -
        (uv[2 * j + 1] - uv[2 * i + 1]) * (uv[2 * k] - uv[2 * i]));
  }
  return { solid, flat };
}

/** Flat length per model length over all shells that have UVs; undefined when none has. */
export function densityOf(document: HemDocument): number | undefined {
  const { solid, flat } = shellAreas(document);
  let [area, flatArea] = [0, 0];
  for (let s = 0; s < solid.length; s++) {
    if (Number.isNaN(flat[s])) continue;
    area += solid[s];
    flatArea += Math.abs(flat[s]);
  }
  return flatArea > 0 && area > 0 ? Math.sqrt(flatArea / area) : undefined;
}
