import type { WeightedTriangles } from '../surface/anyDiagonal.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import { outerTriangles } from './outerTriangles.ts';
import { withGuards } from './withGuards.ts';

/** A map with what is empty round it filled, over its vertices and some more, which are fixed. */
export interface FilledMap {
  readonly whole: WeightedTriangles;
  /** `2 × vertexCount`, those of the map first. */
  readonly uv: Float64Array;
  /** 1 for each vertex that must stay. */
  readonly fixed: Uint8Array;
}

/** What the outside counts, as a part of the map. */
const GUARD = 0.003;

/**
 * A map together with the triangles of its outside, each with the shape that it has: as long as none flips, the map does not lie on itself.
 *
 * @param loops  borders of the map, each in the direction of the triangles beside it
 * @param uv  not on itself, `2 × vertexCount`
 * @param fixed  1 for each vertex of the map that must stay
 * @returns undefined where borders cross or touch
 */
export function withOutside(
  whole: WeightedTriangles,
  loops: readonly Uint32Array[],
  uv: Float64Array,
  fixed: Uint8Array = new Uint8Array(uv.length / 2),
): FilledMap | undefined {
  const outer = outerTriangles(uv, loops);
  if (!outer) return undefined;
  const all = new Float64Array(uv.length + outer.added.length);
  all.set(uv);
  all.set(outer.added, uv.length);
  const places = new Float64Array(1.5 * all.length);
  all.forEach((x, i) => {
    places[3 * (i >> 1) + (i & 1)] = x;
  });
  const held = new Uint8Array(all.length / 2).fill(1, fixed.length);
  held.set(fixed);
  const { local, area, totalArea } = restTriangles(places, outer.triangles);
  // Narrow ones guard as well as wide ones.
  const even = { local, area: area.fill(totalArea / area.length), totalArea };
  return {
    whole: withGuards(whole, { triangles: outer.triangles, rest: even }, GUARD),
    uv: all,
    fixed: held,
  };
}
