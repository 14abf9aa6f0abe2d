import type { Connectivity } from '../mesh/connectivity.ts';
import type { Counterparts } from './counterparts.ts';

/** Whether edges and their images touch without being the same: between them there would be slivers. */
export function meetsImage(
  { edgeVertices }: Connectivity,
  pairs: Counterparts,
  edges: readonly number[],
): boolean {
  const own = new Set(edges.flatMap((e) => [edgeVertices[2 * e], edgeVertices[2 * e + 1]]));
  const images = edges.map((e) => pairs.edges[e]);
  if (images.every((e) => edges.includes(e))) return false;
  return images.some((e) => e < 0 || own.has(edgeVertices[2 * e]) || own.has(edgeVertices[2 * e + 1]));
}
