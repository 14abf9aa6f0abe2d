import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';

/** The middle of an edge on the model. */
export function edgeMidpoint({ positions }: Mesh, { edgeVertices }: Connectivity, edge: number): number[] {
  const [a, b] = [edgeVertices[2 * edge], edgeVertices[2 * edge + 1]];
  return [0, 1, 2].map((k) => (positions[3 * a + k] + positions[3 * b + k]) / 2);
}
