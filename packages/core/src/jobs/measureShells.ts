import { measureStretch, type ShellStretch } from '../measure/stretch.ts';
import { heedStop } from '../progress.ts';
import type { Shell } from '../surface/shell.ts';
import { type ShellTopology, shellTopology } from '../surface/shellTopology.ts';
import type { Job } from './job.ts';

export interface MeasureTask {
  readonly shell: Shell;
  /** Undefined while the shell has no UVs. */
  readonly uv: Float64Array | undefined;
}

export interface Measured {
  readonly topology: ShellTopology;
  readonly stretch: ShellStretch | undefined;
}

/** What shells are, and how they are stretched. */
export const measureShells: Job<'measure', readonly MeasureTask[], readonly Measured[]> = {
  name: 'measure',
  run: (tasks, context) =>
    tasks.map(({ shell, uv }) => {
      heedStop(context.signal);
      return { topology: shellTopology(shell), stretch: uv && measureStretch(shell, uv) };
    }),
};
