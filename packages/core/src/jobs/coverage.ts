import type { HemDocument } from '../document/document.ts';
import { flatTask } from '../document/flatTask.ts';
import { tileCoverage } from '../measure/coverage.ts';
import { frameOf } from '../surface/tiles.ts';
import type { Job } from './job.ts';

/** Part of each tile of a document that its shells cover, 0 to 1. */
export const coverage: Job<'coverage', { readonly document: HemDocument }, number[]> = {
  name: 'coverage',
  run({ document }, { signal }) {
    const { flat } = flatTask(document);
    return document.tiles.map((tile) => tileCoverage(flat, frameOf(tile), signal));
  },
};
