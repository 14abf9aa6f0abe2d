import type { WeightedTriangles } from '../surface/anyDiagonal.ts';

/** The triangles with a corner that may move, weighed as part of the whole; the rest cannot change. */
export function freeTriangles(whole: WeightedTriangles, fixed: Uint8Array): WeightedTriangles {
  const { triangles } = whole;
  return pickTriangles(
    whole,
    (t) => !fixed[triangles[3 * t]] || !fixed[triangles[3 * t + 1]] || !fixed[triangles[3 * t + 2]],
  );
}

/** Some of the triangles, weighed as part of the whole; itself where it is all of them. */
export function pickTriangles(
  whole: WeightedTriangles,
  wanted: (triangle: number) => boolean,
): WeightedTriangles {
  const { triangles, rest } = whole;
  const kept: number[] = [];
  for (let t = 0; t < rest.area.length; t++) if (wanted(t)) kept.push(t);
  if (kept.length === rest.area.length) return whole;
  const threes = <T extends Uint32Array | Float64Array>(from: T, to: T): T => {
    kept.forEach((t, i) => {
      for (let k = 0; k < 3; k++) to[3 * i + k] = from[3 * t + k];
    });
    return to;
  };
  return {
    triangles: threes(triangles, new Uint32Array(3 * kept.length)),
    rest: {
      local: threes(rest.local, new Float64Array(3 * kept.length)),
      area: Float64Array.from(kept, (t) => rest.area[t]),
      totalArea: rest.totalArea,
    },
  };
}
