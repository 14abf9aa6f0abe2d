import type { WeightedTriangles } from '../surface/anyDiagonal.ts';
import type { IntrinsicTriangles } from '../surface/coarsen.ts';
import type { RestTriangles } from '../surface/restTriangles.ts';
import { apexOver } from './placeInStar.ts';

/** Part of a shell by vertices of its own. */
export interface Part extends WeightedTriangles {
  readonly positions: Float64Array;
}

/** Gives a part of the shell vertices without gaps, and takes back what is made of their UVs. */
export function onItsOwn(
  positions: Float64Array,
  { triangles, lengths }: IntrinsicTriangles,
  uv: Float64Array,
  make: (part: Part, uv: Float64Array) => Float64Array,
): void {
  const number = new Int32Array(positions.length / 3).fill(-1);
  const vertices: number[] = [];
  const own = triangles.map((v) => {
    if (number[v] < 0) number[v] = vertices.push(v) - 1;
    return number[v];
  });
  const places = new Float64Array(3 * vertices.length);
  const flat = new Float64Array(2 * vertices.length);
  vertices.forEach((v, i) => {
    for (let k = 0; k < 3; k++) places[3 * i + k] = positions[3 * v + k];
    for (let k = 0; k < 2; k++) flat[2 * i + k] = uv[2 * v + k];
  });
  const made = make({ positions: places, triangles: own, rest: restOf(lengths) }, flat);
  vertices.forEach((v, i) => {
    for (let k = 0; k < 2; k++) uv[2 * v + k] = made[2 * i + k];
  });
}

/** Triangles by the lengths of their sides, each in its own plane. */
function restOf(lengths: Float64Array): RestTriangles {
  const local = new Float64Array(lengths.length);
  const area = new Float64Array(lengths.length / 3);
  let totalArea = 0;
  for (let t = 0; t < area.length; t++) {
    const [x, y, height] = apexOver(lengths[3 * t], lengths[3 * t + 1], lengths[3 * t + 2]);
    local.set([x, y, height], 3 * t);
    area[t] = 0.5 * x * height;
    totalArea += area[t];
  }
  return { local, area, totalArea };
}
