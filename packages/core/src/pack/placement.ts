import { transformUv } from '../surface/similarity.ts';
import { boxOf } from '../surface/uvBox.ts';
import { type Places, placesFor } from './places.ts';

/** Where a shell goes: turned and scaled about the middle of its box, which is brought to a place. */
export interface Placement {
  readonly u: number;
  readonly v: number;
  /** Radians, anticlockwise. */
  readonly angle: number;
  readonly scale: number;
}

/** The placement that leaves a shell where it is. */
export function asItLies(uv: Float64Array): Placement {
  const [minU, minV, maxU, maxV] = boxOf(uv);
  return { u: (minU + maxU) / 2, v: (minV + maxV) / 2, angle: 0, scale: 1 };
}

/** UVs where a placement brings them. */
export function placedUv(uv: Float64Array, { u, v, angle, scale }: Placement): Float64Array {
  const { u: x, v: y } = asItLies(uv);
  const [c, s] = [scale * Math.cos(angle), scale * Math.sin(angle)];
  return transformUv(uv, [c, s, -s, c, u - c * x + s * y, v - s * x - c * y]);
}

/** Placements of a list of four numbers each: u, v, angle and scale. */
export const placementsIn = (list: Float64Array): Placement[] =>
  Array.from({ length: list.length / 4 }, (_, i) => {
    const [u, v, angle, scale] = list.subarray(4 * i, 4 * i + 4);
    return { u, v, angle, scale };
  });

export const placementsOf = ({ u, v, angle, scale }: Places): Placement[] =>
  Array.from(u, (_, i) => ({ u: u[i], v: v[i], angle: angle[i], scale: scale[i] }));

export function placesOf(placements: readonly Placement[]): Places {
  const places = placesFor(placements.length);
  placements.forEach(({ u, v, angle, scale }, i) => {
    places.u[i] = u;
    places.v[i] = v;
    places.angle[i] = angle;
    places.scale[i] = scale;
  });
  return places;
}
