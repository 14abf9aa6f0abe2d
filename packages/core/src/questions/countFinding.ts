import { changesModel } from '../document/delta.ts';
import { plainModel } from '../document/document.ts';
import { CHECKS } from '../health/examine.ts';
import { tolerance } from '../operations/intake/repair.ts';
import { about, choice, record } from '../params.ts';
import { question } from './question.ts';

/** How many one check of the health check counts. */
export const countFinding = question({
  name: 'count-finding',
  params: record({ kind: about('the finding', choice(...CHECKS.map(({ kind }) => kind))), tolerance }),
  lapses: changesModel,
  background: true,
  answer: ({ model }, { kind, tolerance: distance }, context) =>
    context.jobs.run(
      'count-finding',
      { model: plainModel(model), kind, options: { tolerance: distance } },
      context,
    ),
});
