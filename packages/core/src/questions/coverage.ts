import { plainDocument } from '../document/document.ts';
import { record } from '../params.ts';
import { question } from './question.ts';

/** Part of each tile that the shells cover, 0 to 1, in the order of the tiles. */
export const coverage = question({
  name: 'coverage',
  params: record({}),
  background: true,
  answer: (document, _, context): Promise<number[]> =>
    context.jobs.run('coverage', { document: plainDocument(document) }, context),
});
