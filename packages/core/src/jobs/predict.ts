import { heedStop } from '../progress.ts';
import { type Predicted, predict as predictOne } from '../propose/predict.ts';
import type { Shell } from '../surface/shell.ts';
import type { Job } from './job.ts';

export interface PredictTask {
  readonly shells: readonly Shell[];
  /** Whether a coarse look will do. */
  readonly hastily?: boolean;
}

/** What shells would be like, unfolded and relaxed. */
export const predict: Job<'predict', PredictTask, readonly Predicted[]> = {
  name: 'predict',
  run: ({ shells, hastily }, context) =>
    shells.map((shell) => {
      heedStop(context.signal);
      return predictOne(shell, context, hastily);
    }),
};
