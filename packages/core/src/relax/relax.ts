import { HemError, StoppedError } from '../errors.ts';
import type { Factor } from '../linear/cholesky.ts';
import { factoriseTriangles, solveTriangles, triangleSystem } from '../linear/triangleSystem.ts';
import { signedArea } from '../measure/flatArea.ts';
import type { Context } from '../progress.ts';
import type { Shell } from '../seams/shell.ts';
import { restTriangles } from '../unfold/restTriangles.ts';
import { stepToCollapse } from './flipBarrier.ts';
import { energy, quadratic } from './symmetricDirichlet.ts';

export interface RelaxOptions {
  /** 1 for each shell vertex that must stay; none when absent. */
  readonly fixed?: Uint8Array;
  /** Stop after so many steps. */
  readonly steps?: number;
  /** Stop when a step promises to lower the energy by less than this part of it. */
  readonly tolerance?: number;
}

export interface Relaxed {
  /** `2 × vertexCount`, at the scale of the map that came in. */
  readonly uv: Float64Array;
  /** Mean symmetric Dirichlet energy before and after; 4 is a map without stretch. */
  readonly energyBefore: number;
  readonly energyAfter: number;
  readonly steps: number;
  readonly converged: boolean;
}

/** Relax was handed a map that has flipped or collapsed faces. */
export class FlippedStartError extends HemError {
  constructor() {
    super('flipped-start', 'This shell has flipped faces: unfold it anew before relaxing it.');
    this.name = 'FlippedStartError';
  }
}

/**
 * Evens out the stretch of one shell: projected Newton on the symmetric Dirichlet energy with a step that
 * never reaches a collapse (Smith and Schaefer 2015). Every map on the way is flip-free and no worse than the
 * one before; when stopped, the last one is the answer.
 *
 * @param start  flip-free UV per shell vertex, `2 × vertexCount`, any scale
 * @throws FlippedStartError
 */
export function relax(shell: Shell, start: Float64Array, options: RelaxOptions, context: Context): Relaxed {
  const { fixed = new Uint8Array(start.length / 2), steps = 100, tolerance = 1e-6 } = options;
  const anyFixed = fixed.includes(1);
  const { triangles } = shell;
  const rest = restTriangles(shell.positions, triangles);

  // Uniform scale is not stretch: relax at the scale where the energy is least, and scale back after.
  const scale = bestScale(triangles, rest, start);
  let uv: Float64Array = start.map((x) => x * scale);
  let current = energy(triangles, rest, uv);
  const energyBefore = current;
  if (!Number.isFinite(current)) throw new FlippedStartError();
  const result = (step: number, converged: boolean): Relaxed => {
    const back = anyFixed ? 1 / scale : scaleToArea(triangles, uv, start);
    return {
      uv: uv.map((x) => x * back),
      energyBefore,
      energyAfter: current,
      steps: step,
      converged,
    };
  };
  if (fixed.every((f) => f === 1)) return result(0, true);

  const system = triangleSystem(triangles, start.length / 2, fixed);
  let factor: Factor | undefined;
  for (let step = 0; step < steps; step++) {
    context.report({ fraction: step / steps, figure: current, uv: uv.map((x) => x / scale) });
    if (context.signal.aborted) return result(step, false);
    const { gradient, hessian } = quadratic(triangles, rest, uv);
    let direction: Float64Array;
    try {
      const downhill = gradient.map((x) => -x);
      factor = factoriseTriangles(system, hessian, 1e-9, context.signal, factor);
      direction = solveTriangles(system, factor, downhill);
    } catch (error) {
      if (error instanceof StoppedError) return result(step, false);
      throw error;
    }
    let slope = 0;
    for (let i = 0; i < gradient.length; i++) slope += gradient[i] * direction[i];
    if (-slope < tolerance * current) return result(step, true);

    const reach = 0.95 * stepToCollapse(triangles, uv, direction);
    const found = lineSearch(Math.min(1, reach), slope, current, (length) => {
      const trial = uv.map((x, i) => x + length * direction[i]);
      return { trial, value: energy(triangles, rest, trial) };
    });
    if (!found) return result(step, true);
    uv = found.trial;
    current = found.value;
  }
  return result(steps, false);
}

/** Halves the step until the energy falls by a fair part of what the slope promises (Armijo 1966). */
function lineSearch(
  first: number,
  slope: number,
  current: number,
  attempt: (length: number) => { trial: Float64Array; value: number },
) {
  for (let length = first, tries = 0; tries < 40; tries++, length *= 0.5) {
    const { trial, value } = attempt(length);
    if (value <= current + 1e-4 * length * slope && value < current) return { trial, value };
  }
  return undefined;
}

/** The uniform scale of least energy: s² A + s⁻² B is least at (B / A)^¼. */
function bestScale(triangles: Uint32Array, rest: ReturnType<typeof restTriangles>, uv: Float64Array): number {
  // Energies at two scales give A + B and 4A + B/4; normalise first, so that any input scale is safe.
  const normal = Math.sqrt(rest.totalArea / Math.max(signedArea(triangles, uv), Number.MIN_VALUE));
  if (!Number.isFinite(normal)) return 1;
  const at1 = energy(
    triangles,
    rest,
    uv.map((x) => normal * x),
  );
  const at2 = energy(
    triangles,
    rest,
    uv.map((x) => 2 * normal * x),
  );
  if (!Number.isFinite(at1) || !Number.isFinite(at2)) return normal;
  const a = (4 * at2 - at1) / 15;
  const b = at1 - a;
  return a > 0 && b > 0 ? normal * (b / a) ** 0.25 : normal;
}

const scaleToArea = (triangles: Uint32Array, uv: Float64Array, target: Float64Array): number =>
  Math.sqrt(signedArea(triangles, target) / signedArea(triangles, uv));
