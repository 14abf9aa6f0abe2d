import { type Relaxed, type RelaxOptions, relax } from '../relax/relax.ts';
import type { Shell } from '../surface/shell.ts';
import type { Job } from './job.ts';

export interface RelaxTask {
  readonly shell: Shell;
  readonly start: Float64Array;
  readonly options: RelaxOptions;
}

/** Relaxes shells, one after the other. */
export const relaxShells: Job<'relax', readonly RelaxTask[], readonly Relaxed[]> = {
  name: 'relax',
  run: (tasks, context) => tasks.map(({ shell, start, options }) => relax(shell, start, options, context)),
};
