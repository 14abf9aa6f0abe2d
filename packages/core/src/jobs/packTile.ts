import { type FlatShell, type PackOptions, type Placement, packShells } from '../arrange/packShells.ts';
import type { Job } from './job.ts';

/** Where shells go in the unit tile. */
export const packTile: Job<
  'pack',
  { readonly shells: readonly FlatShell[]; readonly options: PackOptions },
  readonly Placement[]
> = {
  name: 'pack',
  run: ({ shells, options }, context) => packShells(shells, options, context),
};
