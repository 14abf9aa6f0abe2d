import { tileCoverage } from '../measure/coverage.ts';
import type { UvBox } from '../surface/uvBox.ts';
import type { Job } from './job.ts';

export interface CoverageTask {
  /** UV of the three corners of each triangle, `6 × triangleCount`. */
  readonly flat: Float64Array;
  /** Where the tiles lie. */
  readonly frames: readonly UvBox[];
}

/** Part of each tile that flat triangles cover, 0 to 1. */
export const coverage: Job<'coverage', CoverageTask, number[]> = {
  name: 'coverage',
  run: ({ flat, frames }, { signal }) => frames.map((frame) => tileCoverage(flat, frame, signal)),
};
