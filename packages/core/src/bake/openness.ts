import type { RayCaster } from '../surface/rays.ts';
import type { Vector } from './vectors.ts';

/** Rays start this part of the model's size above the surface, so as not to meet it. */
const LIFT = 1e-4;

/** Directions over a half-sphere about z, the more of them the nearer to z (`cosine`), or evenly. On a spiral (González 2010). */
export function directionsOver(count: number, how: 'cosine' | 'even'): readonly Vector[] {
  return Array.from({ length: count }, (_, i) => {
    const part = (i + 0.5) / count;
    const z = how === 'cosine' ? Math.sqrt(1 - part) : 1 - part;
    const r = Math.sqrt(Math.max(0, 1 - z * z));
    const round = i * Math.PI * (3 - Math.sqrt(5));
    return [r * Math.cos(round), r * Math.sin(round), z];
  });
}

/** Distances at which rays from a point meet a surface, Infinity where they do not. */
export function castOver(
  cast: RayCaster,
  at: Vector,
  normal: Vector,
  size: number,
  directions: readonly Vector[],
  turn: number,
): number[] {
  const [x, y] = across(normal);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const origin = at.map((p, k) => p + LIFT * size * normal[k]);
  return directions.map(([a, b, z]) => {
    const [p, q] = [c * a - s * b, s * a + c * b];
    const way = normal.map((n, k) => p * x[k] + q * y[k] + z * n);
    return cast(origin, way)?.distance ?? Infinity;
  });
}

/** Two unit vectors across a unit vector and each other (Duff et al. 2017). */
function across([x, y, z]: Vector): readonly [Vector, Vector] {
  const sign = z < 0 ? -1 : 1;
  const a = -1 / (sign + z);
  const b = x * y * a;
  return [
    [1 + sign * x * x * a, sign * b, -sign * x],
    [b, sign + y * y * a, -y],
  ];
}

/** The part of some distances that is beyond a reach: of the sky that is open. */
export const openPart = (distances: readonly number[], reach: number): number =>
  distances.reduce((sum, distance) => sum + (distance > reach ? 1 : 0), 0) / distances.length;

/** The mean of the distances at which something was met, none of them more than a reach; the reach where nothing was. */
export function meanDistance(distances: readonly number[], reach: number): number {
  const met = distances.filter((distance) => distance < Infinity);
  if (met.length === 0) return reach;
  return met.reduce((sum, distance) => sum + Math.min(distance, reach), 0) / met.length;
}
