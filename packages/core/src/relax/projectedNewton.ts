import { StoppedError } from '../errors.ts';
import { type Factor, NotPositiveDefiniteError, release } from '../linear/cholesky.ts';
import {
  factoriseTriangles,
  solveTriangles,
  type TriangleSystem,
  triangleSystem,
} from '../linear/triangleSystem.ts';
import { type Context, heedStop } from '../progress.ts';
import type { WeightedTriangles } from '../surface/anyDiagonal.ts';
import { type AreaTerm, energy, quadratic } from './distortion.ts';
import { stepToCollapse } from './flipBarrier.ts';
import { lineSearch } from './lineSearch.ts';
import { moveRigidly, type RigidMotion, rigidDirection } from './rigidGroups.ts';

/** Added to the diagonal, relative to its mean; more where triangles of very different sizes drown each other. */
const SHIFTS = [1e-9, 1e-6, 1e-3];

export interface NewtonOptions {
  readonly term?: AreaTerm;
  /** 1 for each vertex that must stay. */
  readonly fixed?: Uint8Array;
  /** Sets of vertices that keep their shape; no vertex in two of them. */
  readonly rigid?: readonly Uint32Array[];
  readonly steps: number;
  /** Stop when a step promises to lower the energy by less than this part of it. */
  readonly tolerance: number;
  /** Energy of what cannot change, counted in. */
  readonly unchanging?: number;
}

export interface Minimised {
  /** `2 × vertexCount`. */
  readonly uv: Float64Array;
  readonly energy: number;
  readonly steps: number;
  readonly converged: boolean;
  /** Part of the energy that the last `RECENT` steps took off. */
  readonly lately: number;
}

/**
 * Lowers the energy of `distortion.ts` by projected Newton with a step that never reaches a collapse (Smith and Schaefer 2015).
 * Every map on the way is flip-free and no worse than the one before; when stopped, the last one is the answer.
 *
 * @param start  flip-free, `2 × vertexCount`
 */
export function projectedNewton(
  { triangles, rest }: WeightedTriangles,
  start: Float64Array,
  { term, fixed, rigid = [], steps, tolerance, unchanging = 0 }: NewtonOptions,
  { signal, report }: Context,
): Minimised {
  let uv = start;
  let current = energy(triangles, rest, uv, term);
  const energies = [current + unchanging];
  const held = fixed?.slice() ?? new Uint8Array(uv.length / 2);
  for (const group of rigid) for (const v of group) held[v] = 1;
  const result = (step: number, converged: boolean): Minimised => ({
    uv,
    energy: current + unchanging,
    steps: step,
    converged,
    lately: takenLately(energies),
  });
  let factor: Factor | undefined;
  let step = 0;
  try {
    const system = held.includes(0) ? triangleSystem(triangles, held.length, held, { signal }) : undefined;
    for (; step < steps; step++) {
      report({ fraction: step / steps, figure: current + unchanging, uv });
      if (signal.aborted) return result(step, false);
      const { gradient, hessian } = quadratic(triangles, rest, uv, term, signal);
      const solve = (rightHand: Float64Array) =>
        system && factor
          ? solveTriangles(system, factor, rightHand, signal)
          : new Float64Array(rightHand.length);
      if (system) factor = factorised(system, hessian, signal, factor);
      let direction = solve(gradient.map((x) => -x));
      let motions: readonly RigidMotion[] = [];
      if (rigid.length > 0) {
        ({ direction, motions } = rigidDirection(
          triangles,
          uv,
          rigid,
          fixed ?? new Uint8Array(held.length),
          gradient,
          hessian,
          direction,
          solve,
        ));
      }
      let slope = 0;
      for (let i = 0; i < gradient.length; i++) slope += gradient[i] * direction[i];
      if (-slope < tolerance * current) return result(step, true);

      const reach = 0.95 * stepToCollapse(triangles, uv, direction);
      const found = lineSearch(Math.min(1, reach), slope, current, (length) => {
        const trial = uv.map((x, i) => x + length * direction[i]);
        heedStop(signal);
        for (const motion of motions) moveRigidly(motion, uv, length, trial);
        return { trial, value: energy(triangles, rest, trial, term) };
      });
      if (!found) return result(step, true);
      uv = found.trial;
      current = found.value;
      energies.push(current + unchanging);
    }
    return result(steps, false);
  } catch (error) {
    factor = undefined;
    // Where the numbers give out, the last map is the answer as well.
    if (error instanceof StoppedError || error instanceof NotPositiveDefiniteError)
      return result(step, false);
    throw error;
  } finally {
    if (factor) release(factor);
  }
}

/** Steps by which it is told how fast the energy still falls. */
export const RECENT = 10;

/** Part of the energy that the last steps took off. */
export function takenLately(energies: readonly number[]): number {
  const last = energies[energies.length - 1];
  const before = energies[Math.max(0, energies.length - 1 - RECENT)];
  return before > 0 && before < Infinity ? (before - last) / before : 0;
}

/** @throws NotPositiveDefiniteError, StoppedError */
function factorised(
  system: TriangleSystem,
  hessian: Float64Array,
  signal: Context['signal'],
  reuse: Factor | undefined,
): Factor {
  for (const shift of SHIFTS.slice(0, -1)) {
    try {
      return factoriseTriangles(system, hessian, { shift, signal, reuse });
    } catch (error) {
      if (!(error instanceof NotPositiveDefiniteError)) throw error;
    }
  }
  return factoriseTriangles(system, hessian, { shift: SHIFTS[SHIFTS.length - 1], signal });
}
