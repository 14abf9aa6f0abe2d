import type { Context } from '../progress.ts';
import { coarsen } from './coarsen.ts';
import { restTriangles } from './restTriangles.ts';

/**
 * Fewer triangles of even shape over some of the same vertices, of the same topology.
 *
 * @param positions  `3 × vertexCount`
 * @param triangles  of a manifold surface, three vertices each
 * @param count  triangles that are enough; fewer are left as they are, and of more so many remain, or one less, as far as topology allows
 * @returns three vertices each
 * @throws StoppedError
 */
export function coarseTriangles(
  positions: Float64Array,
  triangles: Uint32Array,
  count: number,
  signal?: Context['signal'],
): Uint32Array {
  if (triangles.length <= 3 * count) return triangles;
  const rest = restTriangles(positions, triangles);
  return coarsen(triangles, rest, positions.length / 3, signal, count).base.triangles;
}
