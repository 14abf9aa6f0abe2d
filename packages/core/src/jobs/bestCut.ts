import { type BestCut, type BestCutOptions, bestCut as find } from '../seams/bestCut.ts';
import type { Shell } from '../surface/shell.ts';
import type { Job } from './job.ts';

export interface BestCutTask {
  readonly shell: Shell;
  readonly options: BestCutOptions;
}

/** The single cut that helps a shell most. */
export const bestCut: Job<'best-cut', BestCutTask, BestCut | undefined> = {
  name: 'best-cut',
  run: ({ shell, options }, context) => find(shell, context, options),
};
