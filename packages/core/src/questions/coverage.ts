import { flatTask } from '../document/flatTask.ts';
import { record } from '../params.ts';
import { question } from './question.ts';

/** Part of the tile that the shells cover, 0 to 1. */
export const coverage = question({
  name: 'coverage',
  params: record({}),
  background: true,
  answer: (document, _, context): Promise<number> =>
    context.jobs.run('coverage', flatTask(document).flat, context),
});
