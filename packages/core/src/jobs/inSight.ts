import { heedStop } from '../progress.ts';
import { type RayTree, rayCaster } from '../surface/rays.ts';
import type { Job } from './job.ts';

export interface SightTask {
  readonly tree: RayTree;
  readonly eye: readonly [number, number, number];
  /** Places to look at, xyz each. */
  readonly targets: Float64Array;
}

/** Nearer to its target than this part of the way, what a ray meets is the target itself. */
const THERE = 1e-3;

/** 1 for each place that nothing hides from the eye. */
export const inSight: Job<'in-sight', SightTask, Uint8Array> = {
  name: 'in-sight',
  run({ tree, eye, targets }, context) {
    const cast = rayCaster(tree);
    const seen = new Uint8Array(targets.length / 3);
    const direction = [0, 0, 0];
    for (let i = 0; i < seen.length; i++) {
      if ((i & 1023) === 0) heedStop(context.signal);
      for (let k = 0; k < 3; k++) direction[k] = targets[3 * i + k] - eye[k];
      const hit = cast(eye, direction);
      if (!hit || hit.distance >= Math.hypot(...direction) * (1 - THERE)) seen[i] = 1;
    }
    return seen;
  },
};
