import { type CutsToPack, wastefulShells as find, type PackedShell } from '../inspect/wastefulShells.ts';
import type { PackOptions } from '../pack/packShell.ts';
import type { Job } from './job.ts';

/** Shells that are in the way of a full tile, with the cuts that help. */
export const wastefulShells: Job<
  'wasteful-shells',
  { readonly shells: readonly PackedShell[]; readonly options: PackOptions },
  CutsToPack | undefined
> = {
  name: 'wasteful-shells',
  run: ({ shells, options }, context) => find(shells, options, context),
};
