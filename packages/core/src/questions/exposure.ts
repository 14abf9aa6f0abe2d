import { changesModel } from '../document/patch.ts';
import { choice, otherwise, record } from '../params.ts';
import { VIEWS } from '../surface/viewExposure.ts';
import { exposuresOf } from './exposures.ts';
import { question } from './question.ts';

/** How much is seen of every vertex, 0 hidden to 1 seen best of all. */
export const exposure = question({
  name: 'exposure',
  params: record({ view: otherwise(choice(...VIEWS), 'all round') }),
  background: true,
  lapses: (patch) => changesModel(patch) || patch.changes.some(({ kind }) => kind === 'value'),
  answer: async (document, { view }, context): Promise<Float32Array> =>
    (await exposuresOf(document, view, context)).vertices.slice(),
});
