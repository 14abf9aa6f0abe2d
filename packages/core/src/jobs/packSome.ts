import { packSome as pack } from '../pack/packFirst.ts';
import type { PackOptions, PackShell } from '../pack/packShell.ts';
import type { Placement } from '../pack/placement.ts';
import type { Job } from './job.ts';

/** As many shells as go into a tile at a scale; undefined for each that does not. */
export const packSome: Job<
  'pack-some',
  { readonly shells: readonly PackShell[]; readonly options: PackOptions & { readonly most: number } },
  readonly (Placement | undefined)[]
> = {
  name: 'pack-some',
  run: ({ shells, options }, context) => pack(shells, options, context),
};
