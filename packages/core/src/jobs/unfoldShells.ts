import type { Context } from '../progress.ts';
import type { Shell } from '../surface/shell.ts';
import type { ShellTopology } from '../surface/shellTopology.ts';
import {
  CannotUnfoldError,
  type Method,
  type Unfolded,
  type UnfoldOptions,
  unfoldShell,
} from '../unfold/unfold.ts';
import type { Job } from './job.ts';

export interface UnfoldTask {
  readonly shell: Shell;
  readonly method: Method;
  readonly options?: UnfoldOptions;
}

/** How a shell came out, or why it cannot lie flat as it is cut. */
export type Laid = Unfolded | { readonly refused: ShellTopology };

/** Lays shells flat, one after the other. */
export const unfoldShells: Job<'unfold', readonly UnfoldTask[], readonly Laid[]> = {
  name: 'unfold',
  run: (tasks, context: Context) =>
    tasks.map(({ shell, method, options }) => {
      try {
        return unfoldShell(shell, method, context, options);
      } catch (error) {
        if (error instanceof CannotUnfoldError) return { refused: error.topology };
        throw error;
      }
    }),
};
