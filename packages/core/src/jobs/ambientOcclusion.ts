import { type HemDocument, topologyOf } from '../document/document.ts';
import { boundingBox } from '../mesh/mesh.ts';
import { occlusionAt, vertexOcclusion } from '../surface/ambientOcclusion.ts';
import { type RayTree, rayCaster } from '../surface/rays.ts';
import type { Job } from './job.ts';

export interface OcclusionTask {
  readonly document: HemDocument;
  /** Over all of its faces. */
  readonly tree: RayTree;
}

/** How the sky falls on a model and on the ground it stands on, 0 hidden to 255 open. */
export interface AmbientOcclusion {
  /** Of every vertex. */
  readonly vertices: Uint8Array;
  /** Of a square of the ground, `GROUND × GROUND`, row by row: x to the right, and away from the viewer. */
  readonly ground: Uint8Array;
  /** The middle of the square on the ground, in the model's own axes, and its side. */
  readonly middle: readonly [number, number, number];
  readonly side: number;
}

/** Points along a side of the ground. */
export const GROUND = 40;
/** How much farther than the model the ground reaches. */
const ROUND = 2;

export const ambientOcclusion: Job<'ambient-occlusion', OcclusionTask, AmbientOcclusion> = {
  name: 'ambient-occlusion',
  run({ document, tree }, context) {
    const { mesh, connectivity } = topologyOf(document.model);
    const cast = rayCaster(tree);
    const box = boundingBox(mesh.positions);
    const size = Math.hypot(box[3] - box[0], box[4] - box[1], box[5] - box[2]) || 1;
    const seen = vertexOcclusion(mesh, connectivity, cast, size, context);
    const [up, away] = document.upAxis === 1 ? [2, 1] : [1, 2];
    const side = ROUND * Math.max(box[3] - box[0], box[3 + away] - box[away], 0.2 * size);
    const middle = [0, 1, 2].map((k) => (box[k] + box[k + 3]) / 2) as [number, number, number];
    middle[up] = box[up];
    const normal = [0, 0, 0];
    normal[up] = 1;
    const ground = new Uint8Array(GROUND * GROUND);
    for (let i = 0; i < ground.length; i++) {
      const at = middle.slice();
      at[0] += side * ((i % GROUND) / (GROUND - 1) - 0.5);
      // Away from the viewer is −z where y is up, and y where z is.
      at[away] += (up === 1 ? -1 : 1) * side * (Math.floor(i / GROUND) / (GROUND - 1) - 0.5);
      ground[i] = Math.round(255 * occlusionAt(cast, at, normal, size));
    }
    return { vertices: Uint8Array.from(seen, (value) => Math.round(255 * value)), ground, middle, side };
  },
};
