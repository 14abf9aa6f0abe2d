import { HemError, StoppedError } from '../errors.ts';
import { NO_SURFACE } from '../measure/stretch.ts';
import type { Context } from '../progress.ts';
import { anyDiagonal, type WeightedTriangles } from '../surface/anyDiagonal.ts';
import { areaOfTriangle } from '../surface/areas.ts';
import { signedArea } from '../surface/flatArea.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { areaTerm, dirichletParts, energy } from './distortion.ts';
import { freeTriangles, pickTriangles } from './freeTriangles.ts';
import type { projectedNewton } from './projectedNewton.ts';
import { invertedTriangles, removeInversions } from './removeInversions.ts';

export interface LooseningOptions {
  /** 1 for each shell vertex that must stay; none when absent. */
  readonly fixed?: Uint8Array;
  /** Sets of vertices that keep their shape and only move as a whole, such as stays; no vertex in two of them. */
  readonly rigid?: readonly Uint32Array[];
  /** From 0, angles alone, to 1, area above all; 0.5 is the symmetric Dirichlet energy. */
  readonly balance?: number;
  /** Model units to UV units, where something fixed or rigid says so; otherwise the scale of least energy. */
  readonly scale?: number;
  /** Stop after so many steps. */
  readonly steps?: number;
  /** Whether polygons that are folded at the start stay as they are. */
  readonly leaveFolds?: boolean;
  /** Stop when a step promises to lower the energy by less than this part of it. */
  readonly tolerance?: number;
}

export interface Loosened {
  /** `2 × vertexCount`, at the scale of the map that came in. */
  readonly uv: Float64Array;
  /** Mean energy before and after; 4 is a map without stretch, and a folded polygon makes it infinite. */
  readonly energyBefore: number;
  readonly energyAfter: number;
  readonly steps: number;
  readonly converged: boolean;
  /** Part of the energy that the last ten steps took off. */
  readonly lately: number;
}

/** Relax was handed a map that has flipped or collapsed faces. */
export class FlippedStartError extends HemError {
  constructor() {
    super('flipped-start', 'This shell has flipped or collapsed faces: unfold it anew before relaxing it.');
    this.name = 'FlippedStartError';
  }
}

/** Ends of the slider: at 0 nothing would hold the scale, at 1 nothing the angles. */
const LEAST = 0.02;
const MOST = 0.85;

/** The exponent θ of `energy` for a balance of angles and area from 0 to 1. */
export function exponentOf(balance: number): number {
  const b = Math.min(Math.max(balance, LEAST), MOST);
  return b / (1 - b);
}

/** Whether a triangle that may change lies upside down, or has collapsed; one without surface on the model, as `measureStretch` has it, counts for nothing. */
export function isFlippedStart(
  shell: Shell,
  start: Float64Array,
  fixed: Uint8Array = new Uint8Array(start.length / 2),
): boolean {
  const { positions, triangles } = shell;
  const own = { triangles, rest: restTriangles(positions, triangles) };
  const free = freeTriangles(own, fixed);
  return invertedTriangles(free, start, 0).some((t) => {
    const [a, b, c] = free.triangles.subarray(3 * t, 3 * t + 3);
    return areaOfTriangle(positions, a, b, c) > NO_SURFACE * own.rest.totalArea;
  });
}

/**
 * Evens out the stretch of one shell by a descent that leaves no triangle flipped: at the scale where the energy is least, with folded
 * polygons unfolded first as far as can be.
 *
 * @param newton  the descent
 * @param start  flip-free UV per shell vertex, `2 × vertexCount`, any scale
 * @throws FlippedStartError
 */
export function loosen(
  newton: typeof projectedNewton,
  shell: Shell,
  start: Float64Array,
  options: LooseningOptions,
  context: Context,
): Loosened {
  const { rigid = [], balance = 0.5, steps = 100, tolerance = 1e-6 } = options;
  const term = areaTerm(exponentOf(balance));
  const fixed = options.fixed ?? new Uint8Array(start.length / 2);
  const unfree = fixed.slice();
  for (const group of rigid) for (const v of group) unfree[v] = 1;
  const every = anyDiagonal(shell);
  const valid = validStart(shell, every, start, unfree, options.leaveFolds ?? false, context);
  if (!valid)
    return {
      uv: start,
      energyBefore: Infinity,
      energyAfter: Infinity,
      steps: 0,
      converged: false,
      lately: 0,
    };
  const inverted = new Set(invertedTriangles(every, valid, 0));
  const whole = pickTriangles(every, (t) => !inverted.has(t));

  // Uniform scale is not stretch: relax at the scale where the energy is least, and scale back after.
  const scale = options.scale ?? bestScale(whole, valid);
  const anchored = options.scale !== undefined || rigid.length > 0 || fixed.includes(1);
  const uv = valid.map((x) => x * scale);

  // Triangles that cannot change count once.
  const free = freeTriangles(whole, fixed);
  const all = energy(whole.triangles, whole.rest, uv, term);
  const unchanging = free === whole ? 0 : all - energy(free.triangles, free.rest, uv, term);
  const found = newton(
    free,
    uv,
    { term, fixed, rigid, steps: free.triangles.length > 0 ? steps : 0, tolerance, unchanging },
    {
      signal: context.signal,
      report: (progress) => context.report({ ...progress, uv: progress.uv?.map((x) => x / scale) }),
    },
  );
  const back = anchored ? 1 / scale : scaleToArea(shell.triangles, found.uv, start);
  return {
    uv: found.uv.map((x, i) => (fixed[i >> 1] ? start[i] : x * back)),
    energyBefore: valid === start ? all : Infinity,
    energyAfter: found.energy,
    steps: found.steps,
    converged: found.converged || free.triangles.length === 0,
    lately: found.lately,
  };
}

/**
 * The map itself, or with its folded polygons unfolded as far as can be.
 *
 * @returns undefined when stopped on the way
 * @throws FlippedStartError
 */
function validStart(
  shell: Shell,
  whole: WeightedTriangles,
  start: Float64Array,
  fixed: Uint8Array,
  leaveFolds: boolean,
  context: Context,
): Float64Array | undefined {
  if (isFlippedStart(shell, start, fixed)) throw new FlippedStartError();
  if (!shell.polygons || leaveFolds) return start;
  try {
    return removeInversions(whole, start, fixed, context) ?? start;
  } catch (error) {
    if (error instanceof StoppedError) return undefined;
    throw error;
  }
}

/** The uniform scale of least symmetric Dirichlet energy: s² A + s⁻² B is least at (B / A)^¼. */
function bestScale({ triangles, rest }: WeightedTriangles, uv: Float64Array): number {
  const { stretch, shrink } = dirichletParts(triangles, rest, uv);
  const scale = (shrink / stretch) ** 0.25;
  return scale > 0 && Number.isFinite(scale) ? scale : 1;
}

export const scaleToArea = (triangles: Uint32Array, uv: Float64Array, target: Float64Array): number =>
  Math.sqrt(signedArea(triangles, target) / signedArea(triangles, uv));
