import type { Context } from '../progress.ts';
import type { WeightedTriangles } from '../surface/anyDiagonal.ts';
import type { AreaTerm } from './distortion.ts';
import { freeTriangles } from './freeTriangles.ts';
import { growOverTriangles } from './growOverTriangles.ts';
import { newtonOverlapFree } from './newtonOverlapFree.ts';

/** Times the energy of a triangle without stretch that is bad. */
const BAD = 500;
/** Rings of triangles round bad ones that may move, and how long. */
const RINGS = 5;
const EASING = { steps: 150, tolerance: 1e-3 };

/**
 * Evens out a map round its worst triangles, with all else held: a few that are nearly collapsed take as many steps as all together, and each step of
 * theirs costs little.
 *
 * @param loops  borders of the map
 * @param uv  flip-free and not on itself, `2 × vertexCount`, at the scale of the model; itself where nothing is bad
 */
export function easeWorst(
  whole: WeightedTriangles,
  loops: readonly Uint32Array[],
  uv: Float64Array,
  term: AreaTerm,
  context: Context,
): Float64Array {
  const { triangles } = whole;
  const near = new Uint8Array(uv.length / 2);
  for (let t = 0; 3 * t < triangles.length; t++)
    if (energyOfTriangle(whole, uv, t) > 4 * BAD) for (let k = 0; k < 3; k++) near[triangles[3 * t + k]] = 1;
  if (!near.includes(1)) return uv;
  growOverTriangles(triangles, near, RINGS);
  const fixed = near.map((isNear) => 1 - isNear);
  return newtonOverlapFree(freeTriangles(whole, fixed), loops, uv, { term, fixed, ...EASING }, context).uv;
}

/** Symmetric Dirichlet energy of one triangle, 4 at best. */
function energyOfTriangle({ triangles, rest }: WeightedTriangles, uv: Float64Array, t: number): number {
  const [a, b, c] = [2 * triangles[3 * t], 2 * triangles[3 * t + 1], 2 * triangles[3 * t + 2]];
  const [x2, x3, y3] = [rest.local[3 * t], rest.local[3 * t + 1], rest.local[3 * t + 2]];
  const j0 = (uv[b] - uv[a]) / x2;
  const j2 = (uv[b + 1] - uv[a + 1]) / x2;
  const j1 = (uv[c] - uv[a] - j0 * x3) / y3;
  const j3 = (uv[c + 1] - uv[a + 1] - j2 * x3) / y3;
  const det = j0 * j3 - j1 * j2;
  return (j0 * j0 + j1 * j1 + j2 * j2 + j3 * j3) * (1 + 1 / (det * det));
}
