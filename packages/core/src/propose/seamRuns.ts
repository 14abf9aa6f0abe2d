import type { Connectivity } from '../mesh/connectivity.ts';
import { runsOfEdges } from '../select/orderedRun.ts';

/** A run of seam edges from one place to another, with no other seam between. */
export interface SeamRun {
  readonly edges: readonly number[];
  /** Vertices at its ends; one and the same where it closes. */
  readonly ends: readonly [first: number, last: number];
}

/**
 * Seams as runs between forks, ends and borders, cut where they are longer than is asked for.
 *
 * @param isSeam  whether an edge is one
 * @param isFixed  whether a vertex ends every run, such as on a border
 * @param lengthOf  of an edge, in the unit of `longest`
 */
export function seamRuns(
  connectivity: Connectivity,
  isSeam: (edge: number) => boolean,
  isFixed: (vertex: number) => boolean,
  lengthOf: (edge: number) => number = () => 1,
  longest = Infinity,
): SeamRun[] {
  const seams = [...connectivity.isInterior.keys()].filter(isSeam);
  return runsOfEdges(connectivity, seams, isFixed).flatMap(({ edges, vertices }) => {
    const total = edges.reduce((sum, e) => sum + lengthOf(e), 0);
    const pieces = Math.min(edges.length, Math.max(1, Math.round(total / longest)));
    const from = (piece: number) => Math.floor((piece * edges.length) / pieces);
    return Array.from({ length: pieces }, (_, p) => ({
      edges: edges.slice(from(p), from(p + 1)),
      ends: [vertices[from(p)], vertices[from(p + 1)]] as const,
    }));
  });
}
