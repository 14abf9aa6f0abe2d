import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';

/**
 * The loop an edge belongs to, both ways: at a vertex where four edges meet it goes on to the one opposite; at
 * a border it follows the border; anywhere else it ends.
 *
 * @returns edges of the loop in order, the given one among them
 */
export function edgeLoop(mesh: Mesh, links: Connectivity, edge: number): number[] {
  const [a, b] = [links.edgeVertices[2 * edge], links.edgeVertices[2 * edge + 1]];
  const loop = [edge];
  const seen = new Set(loop);
  const walk = (from: number, add: (e: number) => void) => {
    let v = from;
    for (let e = onward(mesh, links, edge, v); e >= 0 && !seen.has(e); e = onward(mesh, links, e, v)) {
      seen.add(e);
      add(e);
      v = links.edgeVertices[2 * e] + links.edgeVertices[2 * e + 1] - v;
    }
  };
  walk(b, (e) => loop.push(e));
  walk(a, (e) => loop.unshift(e));
  return loop;
}

/** The edge that goes on from `edge` beyond vertex `v`, or -1. */
function onward(mesh: Mesh, links: Connectivity, edge: number, v: number): number {
  const first = links.vertexEdgeStart[v];
  const count = links.vertexEdgeStart[v + 1] - first;
  const around = Array.from({ length: count }, (_, i) => links.vertexEdges[first + i]);
  if (!links.joined[edge]) {
    const borders = around.filter((e) => e !== edge && !links.joined[e]);
    return borders.length === 1 ? borders[0] : -1;
  }
  if (count !== 4 || around.some((e) => !links.joined[e])) return -1;
  const beside = new Set<number>();
  for (let i = links.edgeCornerStart[edge]; i < links.edgeCornerStart[edge + 1]; i++) {
    const f = links.cornerFace[links.edgeCorners[i]];
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) beside.add(links.cornerEdge[c]);
  }
  return around.find((e) => !beside.has(e)) ?? -1;
}
