import { topologyOf } from '../document/document.ts';
import { densityOf } from '../document/layout.ts';
import { projectedUv, projectParams } from '../operations/unfold/project.ts';
import { spoiltFaces } from '../projections/projectFaces.ts';
import { question } from './question.ts';

/** How faces would lie by a projection, before it is taken. */
export interface ProjectionPreview {
  readonly triangles: Uint32Array;
  /** u and v of their corners, tile units, in the middle of the tile: `6 × triangles.length`. */
  readonly uv: Float32Array;
  readonly collapsed: number;
  readonly mirrored: number;
  readonly outside: number;
  /** Where the projection stands; of the first group where each has its own. */
  readonly frame: {
    readonly origin: readonly number[];
    readonly toward: readonly number[];
    readonly up: readonly number[];
  };
}

export const projection = question({
  name: 'projection',
  params: projectParams,
  answer(document, params): ProjectionPreview {
    const { mesh, triangulation, triangleStart } = topologyOf(document.model);
    const { uv, projected, outside, frame } = projectedUv(document, params);
    const { collapsed, mirrored } = spoiltFaces(mesh, projected, uv);
    const triangles = trianglesOf(projected, triangleStart);
    const flat = new Float32Array(6 * triangles.length);
    let [minU, minV, maxU, maxV] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = 0; i < flat.length / 2; i++) {
      const c = triangulation.triangleCorners[3 * triangles[Math.floor(i / 3)] + (i % 3)];
      const u = uv[2 * c];
      const v = uv[2 * c + 1];
      flat[2 * i] = u;
      flat[2 * i + 1] = v;
      minU = Math.min(minU, u);
      minV = Math.min(minV, v);
      maxU = Math.max(maxU, u);
      maxV = Math.max(maxV, v);
    }
    const fit = 0.9 / Math.max(maxU - minU, maxV - minV, 1e-12);
    const scale = document.placed ? (densityOf(document) ?? fit) * params.size : fit;
    const [cu, cv] = [(minU + maxU) / 2, (minV + maxV) / 2];
    for (let i = 0; i < flat.length; i += 2) {
      flat[i] = 0.5 + scale * (flat[i] - cu);
      flat[i + 1] = 0.5 + scale * (flat[i + 1] - cv);
    }
    const { origin, toward, up } = frame;
    return {
      triangles,
      uv: flat,
      collapsed: collapsed.length,
      mirrored: mirrored.length,
      outside: outside.length,
      frame: { origin, toward, up },
    };
  },
});

function trianglesOf(faces: readonly number[], triangleStart: Uint32Array): Uint32Array {
  let count = 0;
  for (const f of faces) count += triangleStart[f + 1] - triangleStart[f];
  const triangles = new Uint32Array(count);
  let at = 0;
  for (const f of faces) for (let t = triangleStart[f]; t < triangleStart[f + 1]; t++) triangles[at++] = t;
  return triangles;
}
