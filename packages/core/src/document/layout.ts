import type { Mesh } from '../mesh/mesh.ts';
import { triangleAreas } from '../surface/areas.ts';
import { boxesOfShells } from '../surface/boxesOfShells.ts';
import type { FlatShell } from '../surface/flatShell.ts';
import { facesOfShell } from '../surface/shells.ts';
import type { UvBox } from '../surface/uvBox.ts';
import { current, type HemDocument, shellsOf, type Topology, topologyOf } from './document.ts';

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

const areas = new WeakMap<Mesh, Float64Array>();

/** Area of each triangle of a mesh, worked out once. */
function areasOf({ mesh, triangulation: { triangleCorners } }: Topology): Float64Array {
  let found = areas.get(mesh);
  if (!found) {
    found = triangleAreas(
      mesh.positions,
      triangleCorners.map((c) => mesh.cornerVertex[c]),
    );
    areas.set(mesh, found);
  }
  return found;
}

const densities = new WeakMap<HemDocument, number | undefined>();

/** Flat length per model length over all shells that have UVs, worked out once; undefined when none has. */
export function densityOf(document: HemDocument): number | undefined {
  if (!densities.has(document)) densities.set(document, measureDensity(document));
  return densities.get(document);
}

function measureDensity(document: HemDocument): number | undefined {
  const { uv } = current(document);
  const topology = topologyOf(document.model);
  const { triangleCorners, triangleFace } = topology.triangulation;
  const area3 = areasOf(topology);
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
    if (!Number.isNaN(twice)) solid[s] += area3[t];
  }
  let [area, flatArea] = [0, 0];
  for (let s = 0; s < shellCount; s++) {
    if (Number.isNaN(flat[s])) continue;
    area += solid[s];
    flatArea += Math.abs(flat[s]);
  }
  return flatArea > 0 && area > 0 ? Math.sqrt(flatArea / area) : undefined;
}
