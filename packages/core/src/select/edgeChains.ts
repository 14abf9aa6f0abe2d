import type { Connectivity } from '../mesh/connectivity.ts';

/** Edges one after the other, so that what is drawn along them can run on from each to the next; `breaks[i]` is 1 where one begins anew. */
export interface EdgeChains {
  readonly edges: Uint32Array;
  readonly breaks: Uint8Array;
}

/**
 * Orders edges into chains that go on from end to end, in time linear in their number.
 *
 * @param marked  numbers of edges, each once
 */
export function edgeChains(
  { edgeVertices, vertexEdgeStart, vertexEdges }: Connectivity,
  marked: Uint32Array,
): EdgeChains {
  const left = new Uint8Array(edgeVertices.length / 2);
  const meeting = new Uint8Array(vertexEdgeStart.length - 1);
  for (const e of marked) {
    left[e] = 1;
    for (let k = 2 * e; k < 2 * e + 2; k++)
      meeting[edgeVertices[k]] = Math.min(3, meeting[edgeVertices[k]] + 1);
  }
  const edges = new Uint32Array(marked.length);
  const breaks = new Uint8Array(marked.length);
  let count = 0;
  const nextAt = (v: number): number => {
    for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++)
      if (left[vertexEdges[i]]) return vertexEdges[i];
    return -1;
  };
  const follow = (first: number, from: number): void => {
    breaks[count] = 1;
    for (let e = first, v = from; e >= 0; e = nextAt(v)) {
      left[e] = 0;
      edges[count++] = e;
      v = edgeVertices[2 * e] === v ? edgeVertices[2 * e + 1] : edgeVertices[2 * e];
    }
  };
  // From ends and crossings first, then round what is closed.
  for (const e of marked)
    for (let k = 2 * e; k < 2 * e + 2; k++) {
      const v = edgeVertices[k];
      if (meeting[v] !== 2) for (let next = nextAt(v); next >= 0; next = nextAt(v)) follow(next, v);
    }
  for (const e of marked) if (left[e]) follow(e, edgeVertices[2 * e]);
  return { edges, breaks };
}
