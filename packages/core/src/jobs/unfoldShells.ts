import type { Context } from '../progress.ts';
import type { Shell } from '../surface/shell.ts';
import { type Method, type Unfolded, type UnfoldOptions, unfoldShell } from '../unfold/unfold.ts';
import type { Job } from './job.ts';

export interface UnfoldTask {
  readonly shell: Shell;
  readonly method: Method;
  readonly options?: UnfoldOptions;
}

/** Lays shells flat, one after the other. */
export const unfoldShells: Job<'unfold', readonly UnfoldTask[], readonly Unfolded[]> = {
  name: 'unfold',
  run: (tasks, context: Context) =>
    tasks.map(({ shell, method, options }) => unfoldShell(shell, method, context, options)),
};
