import { packFrom as pack } from '../pack/packFrom.ts';
import type { PackShell } from '../pack/packShell.ts';
import type { Placement } from '../pack/placement.ts';
import type { SearchOptions } from '../pack/searchShells.ts';
import type { Job } from './job.ts';

/** Shells of a tile laid clear of one another near where they are; undefined where they come clear at no scale that is of use. */
export const packFrom: Job<
  'pack-from',
  {
    readonly shells: readonly PackShell[];
    readonly start: readonly Placement[];
    readonly options: Omit<SearchOptions, 'rounds'>;
  },
  readonly Placement[] | undefined
> = {
  name: 'pack-from',
  run: ({ shells, start, options }, context) => pack(shells, start, options, context),
};
