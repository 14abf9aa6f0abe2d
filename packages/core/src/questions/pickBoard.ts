import { boardTree, inFlat } from '../derived/trees.ts';
import { number, record } from '../params.ts';
import { pickAlong } from './pick.ts';
import { question } from './question.ts';

/** What lies at a place of the Board. */
export const pickBoard = question({
  name: 'pick-board',
  params: record({ u: number(), v: number() }),
  several: true,
  answer: async (document, { u, v }, { jobs }) =>
    pickAlong(document, await boardTree(document, jobs), inFlat(document), [u, v, 1], [0, 0, -1]),
});
