import { wholeTree } from '../derived/trees.ts';
import { changesModel } from '../document/delta.ts';
import { plainDocument } from '../document/document.ts';
import { record } from '../params.ts';
import { question } from './question.ts';

/** How the sky falls on the model and on the ground it stands on. */
export const ambientOcclusion = question({
  name: 'ambient-occlusion',
  params: record({}),
  background: true,
  idle: true,
  lapses: (patch) => changesModel(patch) || patch.changes.some(({ kind }) => kind === 'value'),
  async answer(document, _, context) {
    const { tree } = await wholeTree(document, context.jobs);
    return context.jobs.run('ambient-occlusion', { document: plainDocument(document), tree }, context);
  },
});
