import simplify from 'simplify-js';
import type { Chain } from './outline.ts';

/** A chain with fewer points, from which the others lie less far than a tolerance (Douglas and Peucker 1973). */
export function simplifyChain({ points, closed }: Chain, tolerance: number): Chain {
  const all = Array.from({ length: points.length / 2 }, (_, i) => ({
    x: points[2 * i],
    y: points[2 * i + 1],
  }));
  if (closed) all.push(all[0]);
  const kept = simplify(all, tolerance, true);
  if (closed) kept.pop();
  return { points: Float64Array.from(kept.flatMap(({ x, y }) => [x, y])), closed };
}
