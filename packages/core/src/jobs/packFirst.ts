import { packFirst as pack } from '../pack/packFirst.ts';
import type { PackOptions, PackShell } from '../pack/packShell.ts';
import type { Placement } from '../pack/placement.ts';
import type { Job } from './job.ts';

/** A first layout of a tile; undefined where the shells do not fit. */
export const packFirst: Job<
  'pack-first',
  { readonly shells: readonly PackShell[]; readonly options: PackOptions },
  readonly Placement[] | undefined
> = {
  name: 'pack-first',
  run: ({ shells, options }, context) => pack(shells, options, context),
};
