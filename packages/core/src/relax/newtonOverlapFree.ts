import type { Context } from '../progress.ts';
import type { WeightedTriangles } from '../surface/anyDiagonal.ts';
import { energy } from './distortion.ts';
import {
  type Minimised,
  type NewtonOptions,
  projectedNewton,
  RECENT,
  takenLately,
} from './projectedNewton.ts';
import { withOutside } from './withOutside.ts';

/** Steps before the outside is filled anew. */
const STEPS_A_ROUND = 5;

/**
 * `projectedNewton` that never lets the map lie on itself: what is empty round it is filled with triangles that hardly count but must not flip
 * either, anew every few steps (Jiang, Schaefer, Panozzo 2017).
 *
 * @param loops  borders of the map, each in the direction of the triangles beside it
 * @param start  flip-free and not on itself, `2 × vertexCount`
 */
export function newtonOverlapFree(
  whole: WeightedTriangles,
  loops: readonly Uint32Array[],
  start: Float64Array,
  options: NewtonOptions,
  context: Context,
): Minimised {
  const { term, steps, tolerance, unchanging = 0 } = options;
  const energyOf = (uv: Float64Array) => energy(whole.triangles, whole.rest, uv, term) + unchanging;
  let [uv, current, step] = [start, energyOf(start), 0];
  const rounds = [current];
  const result = (converged: boolean): Minimised => ({
    uv,
    energy: current,
    steps: step,
    converged,
    lately: takenLately(rounds.slice(-1 - RECENT / STEPS_A_ROUND)),
  });
  while (step < steps && !context.signal.aborted) {
    const filled = withOutside(whole, loops, uv, options.fixed);
    if (!filled) break;
    const found = projectedNewton(
      filled.whole,
      filled.uv,
      { ...options, fixed: filled.fixed, steps: Math.min(STEPS_A_ROUND, steps - step) },
      {
        signal: context.signal,
        report: (progress) => {
          const inner = progress.uv?.subarray(0, start.length);
          context.report({
            fraction: (step + STEPS_A_ROUND * (progress.fraction ?? 0)) / steps,
            // Of the map alone: what fills the outside has an energy too.
            figure: inner ? energyOf(inner) : current,
            uv: inner,
          });
        },
      },
    );
    const before = current;
    uv = found.uv.slice(0, start.length);
    current = energyOf(uv);
    rounds.push(current);
    step += found.steps;
    // With the shape it has, the outside is at its least: a round that brings little is the last.
    if (found.steps === 0 || before - current < tolerance * current) return result(true);
  }
  return result(false);
}
