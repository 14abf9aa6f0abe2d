import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';

/**
 * The loop an edge belongs to, both ways: at a vertex where four edges meet it goes on to the one opposite; at
 * a border it follows the border; anywhere else, and where it meets a seam, it ends. A seam is followed to where it forks or ends.
 *
 * @param seams  1 for each edge that is cut; none when absent
 * @returns edges of the loop in order, the given one among them
 */
export function edgeLoop(mesh: Mesh, connectivity: Connectivity, edge: number, seams?: Uint8Array): number[] {
  const [a, b] = [connectivity.edgeVertices[2 * edge], connectivity.edgeVertices[2 * edge + 1]];
  const loop = [edge];
  const seen = new Set(loop);
  const next = (e: number, v: number): number => {
    if (!seams || !connectivity.isInterior[e]) return onward(mesh, connectivity, e, v);
    const cut = edgesAt(connectivity, v).filter((other) => seams[other] && connectivity.isInterior[other]);
    if (seams[e]) return cut.length === 2 ? cut[0] + cut[1] - e : -1;
    return cut.length === 0 ? onward(mesh, connectivity, e, v) : -1;
  };
  const walk = (from: number, add: (e: number) => void) => {
    let v = from;
    for (let e = next(edge, v); e >= 0 && !seen.has(e); e = next(e, v)) {
      seen.add(e);
      add(e);
      v = connectivity.edgeVertices[2 * e] + connectivity.edgeVertices[2 * e + 1] - v;
    }
  };
  walk(b, (e) => loop.push(e));
  walk(a, (e) => loop.unshift(e));
  return loop;
}

const edgesAt = ({ vertexEdges, vertexEdgeStart }: Connectivity, v: number): number[] => [
  ...vertexEdges.subarray(vertexEdgeStart[v], vertexEdgeStart[v + 1]),
];

/** The edge that goes on from `edge` beyond vertex `v`, or -1. */
function onward(mesh: Mesh, connectivity: Connectivity, edge: number, v: number): number {
  const around = edgesAt(connectivity, v);
  if (!connectivity.isInterior[edge]) {
    const borders = around.filter((e) => e !== edge && !connectivity.isInterior[e]);
    return borders.length === 1 ? borders[0] : -1;
  }
  if (around.length !== 4 || around.some((e) => !connectivity.isInterior[e])) return -1;
  const beside = new Set<number>();
  for (let i = connectivity.edgeCornerStart[edge]; i < connectivity.edgeCornerStart[edge + 1]; i++) {
    const f = connectivity.cornerFace[connectivity.edgeCorners[i]];
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) beside.add(connectivity.cornerEdge[c]);
  }
  return around.find((e) => !beside.has(e)) ?? -1;
}
