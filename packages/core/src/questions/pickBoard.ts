import { boardTree, inFlat } from '../derived/trees.ts';
import { shellsOf } from '../document/document.ts';
import { namedShells } from '../document/shellChoice.ts';
import { about, indicesOrNone, number, optional, record } from '../params.ts';
import { pickAlong } from './pick.ts';
import { question } from './question.ts';

/** What lies at a place of the Board. */
export const pickBoard = question({
  name: 'pick-board',
  params: record({
    u: about('where on the Board', number(), 'heights of a tile'),
    v: about('where on the Board', number(), 'heights of a tile'),
    shells: about('shells that count, each by one of its faces; all when absent', optional(indicesOrNone)),
  }),
  several: true,
  async answer(document, { u, v, shells }, { jobs }) {
    const tree = await boardTree(document, jobs);
    const counted = shells && new Set(namedShells(document, shells));
    const { faceShell } = shellsOf(document);
    return pickAlong(
      document,
      tree,
      inFlat(document),
      [u, v, 1],
      [0, 0, -1],
      counted && ((f) => counted.has(faceShell[f])),
    );
  },
});
