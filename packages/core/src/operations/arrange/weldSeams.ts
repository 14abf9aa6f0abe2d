import { markChange } from '../../document/delta.ts';
import { current, type HemDocument, shellsOf } from '../../document/document.ts';
import { type WeldableEdge, weldableEdges } from '../../document/weldable.ts';
import { type DisjointSets, disjointSets, numberSets, unite } from '../../mesh/disjointSets.ts';
import { about, indices, number, optional, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { knownEdges } from '../cut/seamChange.ts';
import { operation } from '../operation.ts';
import { laidAs } from './movedPoints.ts';

/** Joins seams whose two sides lie within a distance of each other on the Board: both come to the middle between them, and nothing is laid anew. */
export const weldSeams = operation({
  name: 'weld-seams',
  stage: 'arrange',
  params: record({
    edges: about('the seams that are meant; all when absent', optional(indices)),
    within: about('how far both sides may lie from each other at most', number(0, 4096), 'texels'),
  }),
  label: ({ within }) => `Weld seams within ${within} px`,
  doing: 'Welding',
  run(document, { edges, within }) {
    const meant = edges ? knownEdges(document, edges) : undefined;
    const found = weldableEdges(document, meant, within / document.tiles[0].height);
    const sewn = markChange(
      document,
      'seams',
      found.map(({ edge }) => edge),
      0,
    );
    if (sewn.index.length === 0)
      return { changes: [], notes: [`No seam has both sides within ${within} px of each other.`] };
    const { changes, notes } = laidAs(document, welded(document, found));
    const left = meant ? meant.filter((e) => document.seams[e]).length - found.length : 0;
    return {
      changes: [sewn, ...changes],
      notes: [
        ...(left > 0 ? [`${plural(left, 'seam')} left: the sides lie farther from each other.`] : []),
        ...notes,
      ],
    };
  },
});

/** UVs of all corners with those that come together in the middle of where they lie. */
function welded(document: HemDocument, found: readonly WeldableEdge[]): Float64Array {
  const { cornerWedge, wedgeStart, shellCount } = shellsOf(document);
  const { uv } = current(document);
  const wedges: DisjointSets = disjointSets(wedgeStart[shellCount]);
  const touched = new Set<number>();
  for (const { ends } of found)
    for (const [one, other] of ends) {
      unite(wedges, one, other);
      touched.add(one).add(other);
    }
  const { label } = numberSets(wedges);
  // A place counts once, however many faces meet there.
  const sums = new Map<number, { u: number; v: number; count: number }>();
  const counted = new Set<number>();
  cornerWedge.forEach((w, c) => {
    if (!touched.has(w) || counted.has(w)) return;
    counted.add(w);
    const sum = sums.get(label[w]) ?? { u: 0, v: 0, count: 0 };
    sum.u += uv[2 * c];
    sum.v += uv[2 * c + 1];
    sum.count++;
    sums.set(label[w], sum);
  });
  const next = uv.slice();
  cornerWedge.forEach((w, c) => {
    const sum = touched.has(w) ? sums.get(label[w]) : undefined;
    if (!sum) return;
    next[2 * c] = sum.u / sum.count;
    next[2 * c + 1] = sum.v / sum.count;
  });
  return next;
}
