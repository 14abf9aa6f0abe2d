import { nearGroups } from '../measure/nearness.ts';
import type { Job } from './job.ts';

export interface NearTask {
  /** Borders of shells: u and v of both ends of every edge, and the shell it is of. */
  readonly segments: Float64Array;
  readonly shells: Uint32Array;
  readonly gap: number;
}

/** Pairs of shells that lie nearer to one another than a gap. */
export const nearShells: Job<'near-shells', NearTask, Uint32Array> = {
  name: 'near-shells',
  run: ({ segments, shells, gap }, { signal }) => nearGroups(segments, shells, gap, signal),
};
