import { applyDelta, markChange } from '../../document/delta.ts';
import { shellsOf, topologyOf } from '../../document/document.ts';
import { HemError } from '../../errors.ts';
import type { Connectivity } from '../../mesh/connectivity.ts';
import { about, flag, indices, indicesOrNone, otherwise, record } from '../../params.ts';
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
    from: about(
      'the point at which each of the edges begins, so that the material runs on from there; what points up on the model decides where none is given',
      otherwise(indicesOrNone, []),
    ),
    anew: about('whether other grain lines of the same shells go', otherwise(flag(), false)),
  }),
  label: ({ edges, along }) =>
    along ? `Grain along ${plural(edges.length, 'edge')}` : `No grain along ${plural(edges.length, 'edge')}`,
  doing: 'Turning along the grain',
  run(document, { edges, along, from, anew }) {
    const { connectivity } = topologyOf(document.model);
    const known = knownEdges(document, edges);
    checkBeginnings(connectivity, known, from);
    if (along) {
      const cleared = anew ? shellsAtEdges(connectivity, shellsOf(document), known) : [];
      return withGrain(document, known, cleared, from);
    }
    const mark = markChange(document, 'grain', known, 0);
    if (mark.index.length === 0)
      return { changes: [], notes: ['Nothing was changed: the grain runs along none of these edges.'] };
    const after = applyDelta(document, { changes: [mark], notes: [] });
    const { change, notes } = onBoard(after, turnedAt(after, edges));
    return { changes: [mark, change], notes };
  },
});

function checkBeginnings(
  { edgeVertices }: Connectivity,
  edges: readonly number[],
  from: readonly number[],
): void {
  if (from.length === 0) return;
  if (from.length !== edges.length)
    throw new HemError(
      'bad-parameters',
      `There are ${plural(edges.length, 'edge')} but ${plural(from.length, 'point')} at which they begin.`,
    );
  edges.forEach((e, i) => {
    if (from[i] !== edgeVertices[2 * e] && from[i] !== edgeVertices[2 * e + 1])
      throw new HemError('bad-parameters', `Edge ${e} does not end at point ${from[i]}.`, [e]);
  });
}
