import { topologyOf } from '../document/document.ts';
import { densityOf } from '../document/layout.ts';
import { frameOf, projectedUv, projectParams } from '../operations/unfold/project.ts';
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
    const { uv, projected, outside } = projectedUv(document, params);
    const { collapsed, mirrored } = spoiltFaces(mesh, projected, uv);
    const triangles: number[] = [];
    for (const f of projected)
      for (let t = triangleStart[f]; t < triangleStart[f + 1]; t++) triangles.push(t);
    const flat = new Float32Array(6 * triangles.length);
    let [minU, minV, maxU, maxV] = [Infinity, Infinity, -Infinity, -Infinity];
    triangles.forEach((t, i) => {
      for (let k = 0; k < 3; k++) {
        const c = triangulation.triangleCorners[3 * t + k];
        const [u, v] = [uv[2 * c], uv[2 * c + 1]];
        flat[6 * i + 2 * k] = u;
        flat[6 * i + 2 * k + 1] = v;
        [minU, minV] = [Math.min(minU, u), Math.min(minV, v)];
        [maxU, maxV] = [Math.max(maxU, u), Math.max(maxV, v)];
      }
    });
    const fit = 0.9 / Math.max(maxU - minU, maxV - minV, 1e-12);
    const scale = document.placed ? (densityOf(document) ?? fit) * params.size : fit;
    const [cu, cv] = [(minU + maxU) / 2, (minV + maxV) / 2];
    for (let i = 0; i < flat.length; i += 2) {
      flat[i] = 0.5 + scale * (flat[i] - cu);
      flat[i + 1] = 0.5 + scale * (flat[i + 1] - cv);
    }
    const { origin, toward, up } = frameOf(document, params.faces, params);
    return {
      triangles: Uint32Array.from(triangles),
      uv: flat,
      collapsed: collapsed.length,
      mirrored: mirrored.length,
      outside: outside.length,
      frame: { origin, toward, up },
    };
  },
});
