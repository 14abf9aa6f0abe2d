import type { BestCut, BestCutOptions } from '../seams/bestCut.ts';
import { darts as find } from '../seams/darts.ts';
import type { Shell } from '../surface/shell.ts';
import type { Job } from './job.ts';

export interface DartsTask {
  readonly shell: Shell;
  /** A shell vertex. */
  readonly place: number;
  /** What is seen of every shell vertex, 0 to 1. */
  readonly visibility: Float32Array;
  readonly options: BestCutOptions;
}

/** How much a dart along the best seen ground costs beyond its length. */
const SEEN = 2;

/** Relief cuts from a place to the border, the best first. */
export const darts: Job<'darts', DartsTask, readonly BestCut[]> = {
  name: 'darts',
  run({ shell: { positions, ...shell }, place, visibility, options }, context) {
    const cost = (a: number, b: number) =>
      Math.hypot(...[0, 1, 2].map((k) => positions[3 * a + k] - positions[3 * b + k])) *
      (1 + SEEN * 0.5 * (visibility[a] + visibility[b]));
    return find({ positions, ...shell }, place, cost, context, options);
  },
};
