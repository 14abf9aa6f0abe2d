import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import type { Run } from '../select/orderedRun.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { straightenPath } from '../select/straightenPath.ts';

/** How far, in edges, a way over triangles may leave the run. */
const REACH = 1;

/** The same run without the zigzag that the border of some faces has over triangles, clear of seams. Halves of a closed one are straightened in turn. */
export function straightRun(
  { mesh, links, seams }: { readonly mesh: Mesh; readonly links: Connectivity; readonly seams: Uint8Array },
  run: Run,
): number[] {
  const isFree = (v: number): boolean => {
    for (let i = links.vertexEdgeStart[v]; i < links.vertexEdgeStart[v + 1]; i++) {
      const e = links.vertexEdges[i];
      if (!links.joined[e] || seams[e]) return false;
    }
    return true;
  };
  const cost = (e: number) => (links.joined[e] && !seams[e] ? edgeLength(mesh, links, e) : Infinity);
  const line = (start: number, edges: readonly number[]) =>
    straightenPath(mesh, links, start, edges, cost, { reach: REACH, isFree });
  if (!run.closed) return line(run.vertices[0], run.edges);
  let edges = [...run.edges];
  for (const turn of [0, 0.25]) {
    const vertices = verticesAlong(links, run.vertices[0], edges);
    const by = Math.floor(turn * edges.length);
    const turned = [...edges.slice(by), ...edges.slice(0, by)];
    const half = turned.length >> 1;
    const middle = vertices[(by + half) % edges.length];
    edges = [...line(vertices[by], turned.slice(0, half)), ...line(middle, turned.slice(half))];
  }
  return [...new Set(edges)];
}

function verticesAlong({ edgeVertices }: Connectivity, start: number, edges: readonly number[]): number[] {
  const vertices = [start];
  for (const e of edges) {
    const v = vertices[vertices.length - 1];
    vertices.push(edgeVertices[2 * e] + edgeVertices[2 * e + 1] - v);
  }
  return vertices;
}
