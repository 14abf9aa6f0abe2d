import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';

/** Unit vector along an edge away from one of its ends. */
export function edgeDirection(
  { positions }: Pick<Mesh, 'positions'>,
  { edgeVertices }: Pick<Connectivity, 'edgeVertices'>,
  edge: number,
  from: number,
): [number, number, number] {
  const to = edgeVertices[2 * edge] + edgeVertices[2 * edge + 1] - from;
  const d = [0, 1, 2].map((k) => positions[3 * to + k] - positions[3 * from + k]);
  const length = Math.hypot(...d) || 1;
  return [d[0] / length, d[1] / length, d[2] / length];
}
