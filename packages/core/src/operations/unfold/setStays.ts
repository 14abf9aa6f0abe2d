import { staysOf } from '../../document/constraints.ts';
import { applyDelta, markChange } from '../../document/delta.ts';
import { shellOf, shellsOf, topologyOf } from '../../document/document.ts';
import { HemError } from '../../errors.ts';
import { about, flag, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { anyDiagonal } from '../../surface/anyDiagonal.ts';
import { shellsAtEdges } from '../../surface/shells.ts';
import { checkBends } from '../../unfold/stay.ts';
import { reflatten } from '../cut/reflatten.ts';
import { knownEdges } from '../cut/seamChange.ts';
import { operation } from '../operation.ts';
import { laidAnew } from './laidAnew.ts';

/** Chains of edges lie straight at true length from now on, or bend again. Shells of theirs that lie flat are laid flat anew. */
export const setStays = operation({
  name: 'set-stays',
  stage: 'unfold',
  params: record({
    edges: about('edges of chains, by number', indices),
    straight: about('whether they lie straight at true length, or as they will', flag()),
  }),
  label: ({ edges, straight }) =>
    straight
      ? `Make a stay of ${plural(edges.length, 'edge')}`
      : `Let go of a stay of ${plural(edges.length, 'edge')}`,
  doing: 'Setting a stay',
  followUps: reflatten,
  run(document, { edges, straight }) {
    const mark = markChange(document, 'stays', knownEdges(document, edges), straight ? 1 : 0);
    if (mark.index.length === 0) {
      const why = straight
        ? 'Nothing was changed: these edges are of a stay already.'
        : 'Nothing was changed: none of these edges is of a stay.';
      return { changes: [], notes: [why] };
    }
    const shells = shellsAtEdges(topologyOf(document.model).connectivity, shellsOf(document), edges);
    if (straight) {
      const after = applyDelta(document, { changes: [mark], notes: [] });
      for (const s of shells) {
        const runs = staysOf(after, s);
        checkStays(runs, edges);
        const shell = shellOf(document, s);
        const { triangles } = shell.polygons ? anyDiagonal(shell) : shell;
        checkBends(
          triangles,
          runs.map(({ vertices }) => Uint32Array.from(vertices)),
        );
      }
    }
    return { changes: [mark, laidAnew(document, shells)], notes: [] };
  },
});

function checkStays(runs: ReturnType<typeof staysOf>, edges: readonly number[]): void {
  if (runs.some(({ closed }) => closed))
    throw new HemError(
      'closed-stay',
      'A stay that closes cannot lie straight: leave one of its edges out.',
      edges,
    );
  const met = new Map<number, number>();
  for (const { vertices } of runs) for (const v of new Set(vertices)) met.set(v, (met.get(v) ?? 0) + 1);
  if ([...met.values()].some((count) => count > 1))
    throw new HemError(
      'crossing-stays',
      'Two stays meet at a point, and both cannot lie straight there: end one of them before it.',
      edges,
    );
}
