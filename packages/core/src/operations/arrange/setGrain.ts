import { applyDelta, markChange } from '../../document/delta.ts';
import { shellsOf, topologyOf } from '../../document/document.ts';
import { about, flag, indices, otherwise, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { shellsAtEdges } from '../../surface/shells.ts';
import { knownEdges } from '../cut/seamChange.ts';
import { operation } from '../operation.ts';
import { onBoard } from './boardLayout.ts';
import { turnedAt, withGrain } from './withGrain.ts';

/** The material of a shell runs along some edges from now on, upwards on the texture, or along them no more. Shells that lie flat are turned so at once. */
export const setGrain = operation({
  name: 'set-grain',
  stage: 'arrange',
  params: record({
    edges: about('edges along which the material runs, by number', indices),
    along: about('whether it runs along them, or no longer does', flag()),
    anew: about('whether other grain lines of the same shells go', otherwise(flag(), false)),
  }),
  label: ({ edges, along }) =>
    along ? `Grain along ${plural(edges.length, 'edge')}` : `No grain along ${plural(edges.length, 'edge')}`,
  doing: 'Turning along the grain',
  run(document, { edges, along, anew }) {
    const { connectivity } = topologyOf(document.model);
    const known = knownEdges(document, edges);
    if (along)
      return withGrain(document, known, anew ? shellsAtEdges(connectivity, shellsOf(document), known) : []);
    const mark = markChange(document, 'grain', known, 0);
    if (mark.index.length === 0)
      return { changes: [], notes: ['Nothing was changed: the grain runs along none of these edges.'] };
    const after = applyDelta(document, { changes: [mark], notes: [] });
    const { change, notes } = onBoard(after, turnedAt(after, edges));
    return { changes: [mark, change], notes };
  },
});
