import { packInto as pack } from '../pack/packInto.ts';
import type { PackShell } from '../pack/packShell.ts';
import type { Placement } from '../pack/placement.ts';
import type { SearchOptions } from '../pack/searchShells.ts';
import type { Job } from './job.ts';

/** One more shell laid into a tile at the scale of those there; undefined where no room was found. */
export const packInto: Job<
  'pack-into',
  {
    readonly shells: readonly PackShell[];
    readonly start: readonly Placement[];
    readonly options: SearchOptions & { readonly most: number };
  },
  readonly Placement[] | undefined
> = {
  name: 'pack-into',
  run: ({ shells, start, options }, context) => pack(shells, start, options, context),
};
