import { type HemDocument, topologyOf } from '../document/document.ts';
import { boundingBox } from '../mesh/mesh.ts';
import { type RayTree, rayCaster } from '../surface/rays.ts';
import { type View, vertexVisibility } from '../surface/visibility.ts';
import type { Job } from './job.ts';

export interface VisibilityTask {
  readonly document: HemDocument;
  /** Over all of its faces. */
  readonly tree: RayTree;
  readonly view: View;
}

/** How much is seen of every vertex of a model, 0 to 1. */
export const visibility: Job<'visibility', VisibilityTask, Float32Array> = {
  name: 'visibility',
  run({ document, tree, view }, context) {
    const { mesh, connectivity } = topologyOf(document.model);
    const box = boundingBox(mesh.positions);
    const size = Math.hypot(box[3] - box[0], box[4] - box[1], box[5] - box[2]) || 1;
    return vertexVisibility(mesh, connectivity, rayCaster(tree), size, view, document, context);
  },
};
