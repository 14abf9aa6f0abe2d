import type { Connectivity } from '../mesh/connectivity.ts';

/** Edges one after the other, so that what is drawn along them can run on from each to the next; `breaks[i]` is 1 where one begins anew. */
export interface EdgeChains {
  readonly edges: Uint32Array;
  readonly breaks: Uint8Array;
}

/** Orders the marked edges into chains that go on from end to end, in time linear in the mesh. */
export function edgeChains(
  { edgeVertices, vertexEdgeStart, vertexEdges }: Connectivity,
  isMarked: (edge: number) => boolean,
): EdgeChains {
  const edgeCount = edgeVertices.length / 2;
  const left = new Uint8Array(edgeCount);
  let total = 0;
  for (let e = 0; e < edgeCount; e++) {
    if (!isMarked(e)) continue;
    left[e] = 1;
    total++;
  }
  const edges = new Uint32Array(total);
  const breaks = new Uint8Array(total);
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
  const vertices = vertexEdgeStart.length - 1;
  const marked = left.slice();
  for (let v = 0; v < vertices; v++) {
    let here = 0;
    for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++) here += marked[vertexEdges[i]];
    if (here === 0 || here === 2) continue;
    for (let e = nextAt(v); e >= 0; e = nextAt(v)) follow(e, v);
  }
  for (let e = 0; e < edgeCount; e++) if (left[e]) follow(e, edgeVertices[2 * e]);
  return { edges, breaks };
}
