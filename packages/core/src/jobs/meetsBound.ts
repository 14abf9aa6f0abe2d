import { overlapsWithin } from '../measure/overlap.ts';
import { measureStretch } from '../measure/stretch.ts';
import { heedStop } from '../progress.ts';
import type { Shell } from '../surface/shell.ts';
import type { Job } from './job.ts';

export interface BoundTask {
  readonly shells: readonly { readonly shell: Shell; readonly uv: Float64Array }[];
  /** Most L2 stretch. */
  readonly most: number;
}

/** Whether shells lie as flat as is asked for: within a bound of stretch, nothing flipped, and clear of themselves. */
export const meetsBound: Job<'meets-bound', BoundTask, readonly boolean[]> = {
  name: 'meets-bound',
  run: ({ shells, most }, context) =>
    shells.map(({ shell, uv }) => {
      heedStop(context.signal);
      const { l2, flipped, collapsed } = measureStretch(shell, uv);
      if (!(l2 <= most) || flipped > 0 || collapsed > 0) return false;
      return overlapsWithin(shell.triangles, uv, 1).length === 0;
    }),
};
