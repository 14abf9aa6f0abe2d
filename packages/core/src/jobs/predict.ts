import { heedStop } from '../progress.ts';
import { type Predicted, predict as predictOne } from '../propose/predict.ts';
import type { Shell } from '../surface/shell.ts';
import type { Job } from './job.ts';

/** What shells would be like, unfolded and relaxed. */
export const predict: Job<'predict', readonly Shell[], readonly Predicted[]> = {
  name: 'predict',
  run: (shells, context) =>
    shells.map((shell) => {
      heedStop(context.signal);
      return predictOne(shell, context);
    }),
};
