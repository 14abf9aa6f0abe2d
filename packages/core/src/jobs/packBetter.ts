import { type Better, packBetter as pack } from '../pack/packBetter.ts';
import type { PackShell } from '../pack/packShell.ts';
import type { Placement } from '../pack/placement.ts';
import type { SearchOptions } from '../pack/searchShells.ts';
import type { Job } from './job.ts';

/** A layout of a tile made better for some rounds. */
export const packBetter: Job<
  'pack-better',
  {
    readonly shells: readonly PackShell[];
    readonly start: readonly Placement[];
    readonly options: SearchOptions;
  },
  Better
> = {
  name: 'pack-better',
  run: ({ shells, start, options }, context) => pack(shells, start, options, context),
};
