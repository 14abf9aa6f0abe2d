import type { Connectivity } from '../mesh/connectivity.ts';
import { shortestPath } from './shortestPath.ts';

export interface Way {
  readonly start: number;
  /** In order from the start. */
  readonly edges: readonly number[];
  /** Whether it comes back to its start. */
  readonly closed: boolean;
}

/**
 * The way along edges from each vertex to the next, by the cheapest one, without going back on itself.
 *
 * @param vertices  in order; the first again as the last for a way that closes
 */
export function wayThrough(
  connectivity: Connectivity,
  vertices: readonly number[],
  costOf: (edge: number) => number,
): Way {
  const { edgeVertices } = connectivity;
  const places = vertices.filter((v, i) => v !== vertices[i - 1]);
  const start = places[0];
  if (places.length < 2) return { start, edges: [], closed: false };
  const closes = places[places.length - 1] === start;
  const way: number[] = [];
  const passed = new Map([[start, 0]]);
  let at = start;
  for (const [i, to] of places.entries()) {
    if (i === 0) continue;
    const isLast = closes && i === places.length - 1;
    for (const e of shortestPath(connectivity, at, to, costOf).edgesTo(to)) {
      const next = edgeVertices[2 * e] + edgeVertices[2 * e + 1] - at;
      const before = passed.get(next);
      way.push(e);
      if (before !== undefined && !(isLast && next === start)) {
        way.length = before;
        for (const [v, k] of passed) if (k > before) passed.delete(v);
      } else passed.set(next, way.length);
      at = next;
    }
  }
  return { start, edges: way, closed: closes && at === start && way.length > 2 };
}
