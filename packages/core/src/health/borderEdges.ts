import type { Patient } from './check.ts';

/** Edges with one face. */
export function borderEdges({ connectivity }: Patient): number[] {
  const edges: number[] = [];
  for (let e = 0; e < connectivity.isInterior.length; e++) {
    if (connectivity.edgeCornerStart[e + 1] - connectivity.edgeCornerStart[e] === 1) edges.push(e);
  }
  return edges;
}

/** Mean length of some edges; 0 for none. */
export function meanLength({ mesh, connectivity }: Patient, edges: readonly number[]): number {
  let sum = 0;
  for (const e of edges) sum += edgeLength(mesh.positions, connectivity.edgeVertices, e);
  return edges.length > 0 ? sum / edges.length : 0;
}

export function edgeLength(positions: Float64Array, edgeVertices: Uint32Array, e: number): number {
  const a = 3 * edgeVertices[2 * e];
  const b = 3 * edgeVertices[2 * e + 1];
  return Math.hypot(
    positions[a] - positions[b],
    positions[a + 1] - positions[b + 1],
    positions[a + 2] - positions[b + 2],
  );
}
