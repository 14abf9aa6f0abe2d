import { type Factor, release } from '../linear/cholesky.ts';
import {
  factoriseTriangles,
  multiplyTriangles,
  solveTriangles,
  triangleSystem,
} from '../linear/triangleSystem.ts';
import type { Context } from '../progress.ts';
import type { RestTriangles } from '../surface/restTriangles.ts';
import { quadratic } from './distortion.ts';
import { stepToCollapse } from './flipBarrier.ts';

const MOST_ROUNDS = 60;
/** Rounds that may each bring less than a hundredth of the way before giving up. */
const PATIENCE = 12;

/**
 * Takes some vertices of a valid map to given places without flipping a triangle on the way: Newton steps on the
 * symmetric Dirichlet energy in which those vertices move by what they lack, as far as the flip barrier lets them.
 *
 * @param uv  flip-free, `2 × vertexCount`
 * @param vertices  those to move
 * @param goal  their places, `2 × vertices.length`
 * @returns the map with all of them exactly there, or undefined when they cannot be brought there this way
 * @throws StoppedError
 */
export function pullVertices(
  triangles: Uint32Array,
  rest: RestTriangles,
  uv: Float64Array,
  vertices: ArrayLike<number>,
  goal: ArrayLike<number>,
  context: Context,
): Float64Array | undefined {
  const handle = new Uint8Array(uv.length / 2);
  for (let i = 0; i < vertices.length; i++) handle[vertices[i]] = 1;
  const target = uv.slice();
  for (let i = 0; i < vertices.length; i++) {
    target[2 * vertices[i]] = goal[2 * i];
    target[2 * vertices[i] + 1] = goal[2 * i + 1];
  }
  if (!handle.includes(0)) {
    return stepToCollapse(triangles, uv, difference(target, uv)) > 1 ? target : undefined;
  }
  const { signal } = context;
  const system = triangleSystem(triangles, handle.length, handle, { signal });
  let now: Float64Array = uv;
  let factor: Factor | undefined;
  let slow = 0;
  try {
    for (let round = 0; round < MOST_ROUNDS && slow < PATIENCE; round++) {
      context.report({ fraction: round / MOST_ROUNDS, uv: now });
      const { gradient, hessian } = quadratic(triangles, rest, now, undefined, signal);
      const lack = difference(target, now);
      for (let i = 0; i < lack.length; i++) if (!handle[i >> 1]) lack[i] = 0;
      const pull = multiplyTriangles(triangles, hessian, lack);
      factor = factoriseTriangles(system, hessian, { shift: 1e-9, signal, reuse: factor });
      const follow = solveTriangles(
        system,
        factor,
        pull.map((x, i) => -x - gradient[i]),
        signal,
      );
      const direction = lack.map((x, i) => x + follow[i]);
      const step = Math.min(1, 0.8 * stepToCollapse(triangles, now, direction));
      const moved = now.map((x, i) => x + step * direction[i]);
      if (step === 1) return moved.map((x, i) => (handle[i >> 1] ? target[i] : x));
      slow = step < 0.01 ? slow + 1 : 0;
      now = moved;
    }
    return undefined;
  } finally {
    if (factor) release(factor);
  }
}

const difference = (a: Float64Array, b: Float64Array): Float64Array => a.map((x, i) => x - b[i]);
