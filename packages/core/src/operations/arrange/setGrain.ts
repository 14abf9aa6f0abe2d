import { applyDelta, markChange } from '../../document/delta.ts';
import { shellOf, shellsOf, shellUv, topologyOf } from '../../document/document.ts';
import { turnedAlongGrain } from '../../document/grain.ts';
import { about, flag, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { shellsAtEdges } from '../../surface/shells.ts';
import { knownEdges } from '../cut/seamChange.ts';
import { operation } from '../operation.ts';
import { onBoard } from './boardLayout.ts';

/** The material of a shell runs along some edges from now on, upwards on the texture, or along them no more. Shells that lie flat are turned so at once. */
export const setGrain = operation({
  name: 'set-grain',
  stage: 'arrange',
  params: record({
    edges: about('edges along which the material runs, by number', indices),
    along: about('whether it runs along them, or no longer does', flag()),
  }),
  label: ({ edges, along }) =>
    along ? `Grain along ${plural(edges.length, 'edge')}` : `No grain along ${plural(edges.length, 'edge')}`,
  doing: 'Turning along the grain',
  run(document, { edges, along }) {
    const mark = markChange(document, 'grain', knownEdges(document, edges), along ? 1 : 0);
    if (mark.index.length === 0)
      return {
        changes: [],
        notes: [
          `Nothing was changed: the grain ${along ? 'runs along these edges already' : 'runs along none of these edges'}.`,
        ],
      };
    const after = applyDelta(document, { changes: [mark], notes: [] });
    const uvOf = new Map<number, Float64Array>();
    for (const s of shellsAtEdges(topologyOf(document.model).connectivity, shellsOf(document), edges)) {
      const shell = shellOf(after, s);
      const uv = shellUv(after, shell);
      if (uv) uvOf.set(s, turnedAlongGrain(after, s, shell, uv));
    }
    const { change, notes } = onBoard(after, uvOf);
    return { changes: [mark, change], notes };
  },
});
