import { boardTree, inFlat } from '../derived/trees.ts';
import { about, number, record } from '../params.ts';
import { pickAlong } from './pick.ts';
import { question } from './question.ts';

/** What lies at a place of the Board. */
export const pickBoard = question({
  name: 'pick-board',
  params: record({
    u: about('where on the Board', number(), 'heights of a tile'),
    v: about('where on the Board', number(), 'heights of a tile'),
  }),
  several: true,
  answer: async (document, { u, v }, { jobs }) =>
    pickAlong(document, await boardTree(document, jobs), inFlat(document), [u, v, 1], [0, 0, -1]),
});
