import type { Context } from '../progress.ts';
import type { WeightedTriangles } from '../surface/anyDiagonal.ts';
import { type AreaTerm, jacobian } from './distortion.ts';
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
  const J = new Float64Array(4);
  for (let t = 0; 3 * t < triangles.length; t++) {
    jacobian(triangles, whole.rest.local, uv, t, J);
    const det = J[0] * J[3] - J[1] * J[2];
    // Symmetric Dirichlet, which is 4 at best.
    const energy = (J[0] ** 2 + J[1] ** 2 + J[2] ** 2 + J[3] ** 2) * (1 + 1 / det ** 2);
    if (energy > 4 * BAD) for (let k = 0; k < 3; k++) near[triangles[3 * t + k]] = 1;
  }
  if (!near.includes(1)) return uv;
  growOverTriangles(triangles, near, RINGS);
  const fixed = near.map((isNear) => 1 - isNear);
  return newtonOverlapFree(freeTriangles(whole, fixed), loops, uv, { term, fixed, ...EASING }, context).uv;
}
