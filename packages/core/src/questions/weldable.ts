import { weldableEdges } from '../document/weldable.ts';
import { knownEdges } from '../operations/cut/seamChange.ts';
import { about, indices, number, optional, record } from '../params.ts';
import { question } from './question.ts';

/** Seams whose two sides lie so near each other on the Board that they would be welded. */
export const weldable = question({
  name: 'weldable',
  params: record({
    edges: about('the seams that are meant; all when absent', optional(indices)),
    within: about('how far both sides may lie from each other at most', number(0, 4096), 'texels'),
  }),
  answer(document, { edges, within }): readonly number[] {
    const meant = edges ? knownEdges(document, edges) : undefined;
    return weldableEdges(document, meant, within / document.tiles[0].height).map(({ edge }) => edge);
  },
});
