import { plainDocument, topologyOf } from '../document/document.ts';
import { about, choice, record } from '../params.ts';
import { acrossAxis } from '../symmetry/findSymmetry.ts';
import { middleEdges } from '../symmetry/middleEdges.ts';
import { selector } from './selector.ts';

/** Edges in the plane across which a model is symmetric. */
export const edgesInMiddle = selector({
  of: 'edges',
  key: 'middle',
  params: record({
    middle: about(
      'the plane: as it is found, or across an axis through the origin',
      choice('found', 'x', 'y', 'z'),
    ),
  }),
  words: ({ middle }) =>
    middle === 'found' ? 'edges in the mirror plane' : `edges in the mirror plane across ${middle}`,
  async resolve(document, { middle }, context) {
    const wanted = middle === 'found' ? ('mirror' as const) : acrossAxis(middle);
    const found = await context.jobs.run('symmetry', { document: plainDocument(document), wanted }, context);
    if (!found) return [];
    const { mesh, connectivity } = topologyOf(document.model);
    return middleEdges(mesh, connectivity, found.symmetry, found);
  },
});
