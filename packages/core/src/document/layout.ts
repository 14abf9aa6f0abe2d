import type { FlatShell } from '../arrange/packShells.ts';
import { areaOfTriangle } from '../surface/areas.ts';
import { boxesOfShells } from '../surface/boxesOfShells.ts';
import { facesOfShell } from '../surface/shells.ts';
import type { UvBox } from '../surface/uvBox.ts';
import { current, type HemDocument, shellsOf, topologyOf } from './document.ts';

/**
 * Where every shell lies; undefined for one with missing UVs.
 *
 * @param uv  of every corner, the current ones by default
 */
export function shellBoxes(document: HemDocument, uv = current(document).uv): (UvBox | undefined)[] {
  return boxesOfShells(document.model.mesh, shellsOf(document), uv);
}

/**
 * Triangles of one shell as they lie.
 *
 * @param uv  of every corner, the current ones by default
 */
export function flatTriangles(document: HemDocument, shell: number, uv = current(document).uv): FlatShell {
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

/** Flat length per model length over all shells that have UVs; undefined when none has. */
export function densityOf(document: HemDocument): number | undefined {
  const { uv } = current(document);
  const { mesh, triangulation } = topologyOf(document.model);
  const { triangleCorners, triangleFace } = triangulation;
  const { positions, cornerVertex } = mesh;
  const { shellCount, faceShell } = shellsOf(document);
  const solid = new Float64Array(shellCount);
  const flat = new Float64Array(shellCount);
  for (let t = 0; t < triangleFace.length; t++) {
    const i = triangleCorners[3 * t];
    const j = triangleCorners[3 * t + 1];
    const k = triangleCorners[3 * t + 2];
    const twice =
      (uv[2 * j] - uv[2 * i]) * (uv[2 * k + 1] - uv[2 * i + 1]) -
      (uv[2 * j + 1] - uv[2 * i + 1]) * (uv[2 * k] - uv[2 * i]);
    const s = faceShell[triangleFace[t]];
    // Flipped triangles count against their shell; one place that is missing leaves it without.
    flat[s] += 0.5 * twice;
    if (!Number.isNaN(twice))
      solid[s] += areaOfTriangle(positions, cornerVertex[i], cornerVertex[j], cornerVertex[k]);
  }
  let [area, flatArea] = [0, 0];
  for (let s = 0; s < shellCount; s++) {
    if (Number.isNaN(flat[s])) continue;
    area += solid[s];
    flatArea += Math.abs(flat[s]);
  }
  return flatArea > 0 && area > 0 ? Math.sqrt(flatArea / area) : undefined;
}
