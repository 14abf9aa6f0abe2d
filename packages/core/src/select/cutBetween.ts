import type { Connectivity } from '../mesh/connectivity.ts';
import type { Context } from '../progress.ts';
import { minimumCut } from './minimumCut.ts';

/** What a face is to a cut: on the one side, on the other, or wherever the cut leaves it. */
export const [ONE_SIDE, OTHER_SIDE, EITHER_SIDE, OUTSIDE] = [0, 1, 2, 3] as const;

/**
 * The cheapest edges that part some faces from others: a minimum cut of the faces, which hang together by what their common edges cost.
 *
 * @param side  of each face; `OUTSIDE` for those that are not to be looked at
 * @param isOpen  whether faces hang together over an edge
 * @param costOf  cost of an edge, at least 0
 * @throws StoppedError
 */
export function cutBetween(
  { isInterior, edgeCorners, edgeCornerStart, cornerFace }: Connectivity,
  side: Uint8Array,
  isOpen: (edge: number) => boolean,
  costOf: (edge: number) => number,
  signal?: Context['signal'],
): number[] {
  let nodes = 2;
  const node = Uint32Array.from(side, (s) => (s === EITHER_SIDE ? nodes++ : s));
  const edges: number[] = [];
  const ends: number[] = [];
  for (let e = 0; e < isInterior.length; e++) {
    if (!isInterior[e] || !isOpen(e)) continue;
    const [f, g] = [0, 1].map((k) => cornerFace[edgeCorners[edgeCornerStart[e] + k]]);
    if (side[f] === OUTSIDE || side[g] === OUTSIDE || node[f] === node[g]) continue;
    edges.push(e);
    ends.push(node[f], node[g]);
  }
  const capacity = Float64Array.from(edges, costOf);
  const isOne = minimumCut({ nodes, ends: Uint32Array.from(ends), capacity, source: 0, sink: 1 }, signal);
  return edges.filter((_, i) => isOne[ends[2 * i]] !== isOne[ends[2 * i + 1]]);
}
