import { changesModel } from '../document/delta.ts';
import { plainModel } from '../document/document.ts';
import { tolerance } from '../operations/intake/repair.ts';
import { record } from '../params.ts';
import { question } from './question.ts';

/** What the health check finds, and what the model is made of. */
export const examination = question({
  name: 'examination',
  params: record({ tolerance }),
  lapses: changesModel,
  background: true,
  answer: ({ model }, options, context) =>
    context.jobs.run('examine', { model: plainModel(model), options }, context),
});
