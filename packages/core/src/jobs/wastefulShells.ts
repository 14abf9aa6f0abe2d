import { type CutToPack, wastefulShells as find, type PackedShell } from '../inspect/wastefulShells.ts';
import type { PackOptions } from '../pack/packShell.ts';
import type { Job } from './job.ts';

/** Shells that are in the way of a full tile, with the cut that helps. */
export const wastefulShells: Job<
  'wasteful-shells',
  { readonly shells: readonly PackedShell[]; readonly options: PackOptions },
  readonly CutToPack[]
> = {
  name: 'wasteful-shells',
  run: ({ shells, options }, context) => find(shells, options, context),
};
