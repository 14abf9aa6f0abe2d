import type { RayCaster } from '../surface/rays.ts';
import { cornerOf, dot, minus, mixedAt, negative, unit, type Vector, type Weights } from './vectors.ts';

/** The place of another surface that lies over a place of this one; undefined where there is none. */
export type Projection = (triangle: number, weights: Weights) => readonly [number, Weights] | undefined;

/**
 * Looks along smoothed normals, from a distance above the surface to as far below it: the first that is met counts.
 *
 * @param points  xyz of the corners of every triangle of this surface, `9 × triangleCount`
 * @param normals  unit normals there, the same on both sides of every edge
 * @param cast  at the other surface
 * @param others  xyz of the corners of its triangles
 * @param distance  more than the two lie apart anywhere
 */
export function projectionOnto(
  points: ArrayLike<number>,
  normals: ArrayLike<number>,
  cast: RayCaster,
  others: ArrayLike<number>,
  distance: number,
): Projection {
  return (triangle, weights) => {
    const normal = unit(mixedAt(normals, triangle, weights));
    const origin = mixedAt(points, triangle, weights).map((p, k) => p + distance * normal[k]);
    const hit = cast(origin, negative(normal));
    if (!hit || hit.distance > 2 * distance) return undefined;
    return [hit.triangle, weightsIn(others, hit.triangle, hit.point)];
  };
}

/** Barycentric coordinates of a point of a triangle in space (Ericson 2005). */
function weightsIn(points: ArrayLike<number>, triangle: number, at: Vector): Weights {
  const corner = cornerOf(points, triangle, 0);
  const [b, c] = [1, 2].map((k) => minus(cornerOf(points, triangle, k), corner));
  const p = minus(at, corner);
  const [bb, bc, cc, pb, pc] = [dot(b, b), dot(b, c), dot(c, c), dot(p, b), dot(p, c)];
  const area = bb * cc - bc * bc;
  if (!(area > 0)) return [1, 0, 0];
  const [wb, wc] = [(pb * cc - pc * bc) / area, (pc * bb - pb * bc) / area];
  return [1 - wb - wc, wb, wc];
}
