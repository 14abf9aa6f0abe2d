import type { Connectivity } from '../mesh/connectivity.ts';
import { bucket } from '../mesh/connectivity.ts';

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
  { edgeVertices, vertexEdgeStart }: Connectivity,
  isSeam: (edge: number) => boolean,
  isFixed: (vertex: number) => boolean,
  lengthOf: (edge: number) => number = () => 1,
  longest = Infinity,
): SeamRun[] {
  const edgeCount = edgeVertices.length / 2;
  const marked: number[] = [];
  for (let e = 0; e < edgeCount; e++) if (isSeam(e)) marked.push(e);
  const ends = Uint32Array.from(marked.flatMap((e) => [edgeVertices[2 * e], edgeVertices[2 * e + 1]]));
  const { start, items } = bucket(ends, vertexEdgeStart.length - 1);
  const isNode = (v: number) => start[v + 1] - start[v] !== 2 || isFixed(v);
  const seen = new Set<number>();
  const runs: SeamRun[] = [];
  const add = (edges: number[], from: number, to: number): void => {
    const total = edges.reduce((sum, e) => sum + lengthOf(e), 0);
    const pieces = Math.min(edges.length, Math.max(1, Math.round(total / longest)));
    let at = from;
    for (let p = 0; p < pieces; p++) {
      const part = edges.slice(
        Math.floor((p * edges.length) / pieces),
        Math.floor(((p + 1) * edges.length) / pieces),
      );
      const first = at;
      for (const e of part) at = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - at;
      runs.push({ edges: part, ends: [first, p === pieces - 1 ? to : at] });
    }
  };
  const follow = (edge: number, from: number): void => {
    const edges: number[] = [];
    let v = from;
    for (let e = edge; ; ) {
      edges.push(e);
      seen.add(e);
      v = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v;
      if (isNode(v) || v === from) break;
      const next = [items[start[v]], items[start[v] + 1]]
        .map((i) => marked[i >> 1])
        .find((other) => other !== e);
      if (next === undefined || seen.has(next)) break;
      e = next;
    }
    add(edges, from, v);
  };
  for (const e of marked) {
    for (let k = 0; k < 2; k++) {
      const v = edgeVertices[2 * e + k];
      if (!seen.has(e) && isNode(v)) follow(e, v);
    }
  }
  for (const e of marked) if (!seen.has(e)) follow(e, edgeVertices[2 * e]);
  return runs;
}
