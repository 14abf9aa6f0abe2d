import { tileCoverage } from '../measure/coverage.ts';
import type { Job } from './job.ts';

/** Part of the tile that flat triangles cover, `6 × triangleCount`. */
export const coverage: Job<'coverage', Float64Array, number> = {
  name: 'coverage',
  run: (flat, context) => tileCoverage(flat, context.signal),
};
