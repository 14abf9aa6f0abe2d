import { type HemDocument, topologyOf } from '../document/document.ts';
import { type Family, families } from '../symmetry/families.ts';
import type { Job } from './job.ts';

/** Part of the size of a piece by which lengths of copies may differ. */
export const SAME = 2e-3;

/** Pieces that are the same shape. */
export const copies: Job<'copies', { readonly document: HemDocument }, readonly Family[]> = {
  name: 'copies',
  run({ document }, context) {
    const { mesh, connectivity } = topologyOf(document.model);
    return families(mesh, connectivity, SAME, context.signal);
  },
};
