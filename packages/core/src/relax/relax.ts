import { HemError, StoppedError } from '../errors.ts';
import { NotPositiveDefiniteError } from '../linear/cholesky.ts';
import { overlapsWithin } from '../measure/overlap.ts';
import { type Context, within } from '../progress.ts';
import { anyDiagonal, type WeightedTriangles } from '../surface/anyDiagonal.ts';
import { borders } from '../surface/borders.ts';
import { signedArea } from '../surface/flatArea.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { intoDisc } from '../unfold/intoDisc.ts';
import { areaTerm, dirichletParts, energy } from './distortion.ts';
import { freeTriangles, pickTriangles } from './freeTriangles.ts';
import { newtonClear } from './newtonClear.ts';
import { projectedNewton } from './projectedNewton.ts';
import { facingDown, untangle } from './untangle.ts';
import { withOutside } from './withOutside.ts';

export interface RelaxOptions {
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
  /** Stop after so long. */
  readonly seconds?: number;
  /** Stop when a step promises to lower the energy by less than this part of it. */
  readonly tolerance?: number;
  /** Whether the shell is to be kept from lying on itself. */
  readonly clear?: boolean;
}

export interface Relaxed {
  /** `2 × vertexCount`, at the scale of the map that came in. */
  readonly uv: Float64Array;
  /** Mean energy before and after; 4 is a map without stretch, and a folded polygon makes it infinite. */
  readonly energyBefore: number;
  readonly energyAfter: number;
  readonly steps: number;
  readonly converged: boolean;
  /** Whether it lies on itself, where it was to be kept from it: it would not have, was kept from it, or could not be. */
  readonly onItself?: 'no' | 'kept from it' | 'yes';
}

/** Relax was handed a map that has flipped or collapsed faces. */
export class FlippedStartError extends HemError {
  constructor() {
    super('flipped-start', 'This shell has flipped faces: unfold it anew before relaxing it.');
    this.name = 'FlippedStartError';
  }
}

/** How much more energy a map may have for not lying on itself; of what needs more, a cut makes more. */
const MOST_WORSE = 1.1;
const CLEAR = { steps: 150, tolerance: 1e-4 };

/** Ends of the slider: at 0 nothing would hold the scale, at 1 nothing the angles. */
const LEAST = 0.02;
const MOST = 0.85;

/** The exponent θ of `energy` for a balance of angles and area from 0 to 1. */
export function exponentOf(balance: number): number {
  const b = Math.min(Math.max(balance, LEAST), MOST);
  return b / (1 - b);
}

/**
 * Evens out the stretch of one shell by `projectedNewton`. Every map on the way is flip-free and no worse than the one before; when
 * stopped, the last one is the answer. Polygons that are folded at the start are unfolded first; what cannot be stays as it is. A shell
 * that is to be kept from lying on itself, and would, is relaxed once more by `newtonClear`: from the start where that is clear of
 * itself, else, where nothing is held, from a disc.
 *
 * @param start  flip-free UV per shell vertex, `2 × vertexCount`, any scale
 * @throws FlippedStartError
 */
export function relax(shell: Shell, start: Float64Array, options: RelaxOptions, context: Context): Relaxed {
  const signal = options.seconds === undefined ? context.signal : within(context.signal, options.seconds);
  const heeding = { ...context, signal };
  const found = relaxedBy(projectedNewton, shell, start, options, heeding);
  if (!options.clear) return found;
  if (!liesOnItself(shell, found.uv)) return { ...found, onItself: 'no' };
  const clear = signal.aborted ? undefined : relaxedClear(shell, start, options, heeding);
  return clear && clear.energyAfter <= MOST_WORSE * found.energyAfter
    ? { ...clear, energyBefore: found.energyBefore, onItself: 'kept from it' }
    : { ...found, onItself: 'yes' };
}

/** @returns undefined where there is no map to begin with, or none was found */
function relaxedClear(
  shell: Shell,
  start: Float64Array,
  options: RelaxOptions,
  context: Context,
): Relaxed | undefined {
  const { triangles, positions } = shell;
  const { loops } = borders(triangles, positions.length / 3);
  const isHeld = options.fixed?.includes(1) || (options.rigid ?? []).length > 0;
  let from = start;
  if (liesOnItself(shell, start)) {
    if (isHeld) return undefined;
    try {
      const disc = intoDisc(shell, context.signal);
      const scale = scaleToArea(triangles, disc, start);
      from = unfoldedClear(
        shell,
        loops,
        disc.map((x) => x * scale),
        context,
      );
    } catch (error) {
      if (error instanceof StoppedError || error instanceof NotPositiveDefiniteError) return undefined;
      throw error;
    }
    if (isFlippedStart(shell, from, new Uint8Array(positions.length / 3))) return undefined;
  }
  const newton: typeof projectedNewton = (whole, uv, given, heeding) =>
    newtonClear(whole, loops, uv, given, heeding);
  const found = relaxedBy(newton, shell, from, { ...options, ...CLEAR }, context);
  return liesOnItself(shell, found.uv) ? undefined : found;
}

/** Polygons that are folded unfolded, as far as can be, with the map kept clear of itself. */
function unfoldedClear(
  shell: Shell,
  loops: readonly Uint32Array[],
  uv: Float64Array,
  context: Context,
): Float64Array {
  if (!shell.polygons) return uv;
  const filled = withOutside(anyDiagonal(shell), loops, uv);
  const found = filled && untangle(filled.whole, filled.uv, filled.fixed, context);
  return found?.slice(0, uv.length) ?? uv;
}

const liesOnItself = ({ triangles }: Shell, uv: Float64Array): boolean =>
  overlapsWithin(triangles, uv, 1).length > 0;

function relaxedBy(
  newton: typeof projectedNewton,
  shell: Shell,
  start: Float64Array,
  options: RelaxOptions,
  context: Context,
): Relaxed {
  const { rigid = [], balance = 0.5, steps = 100, tolerance = 1e-6 } = options;
  const term = areaTerm(exponentOf(balance));
  const fixed = options.fixed ?? new Uint8Array(start.length / 2);
  const unfree = fixed.slice();
  for (const group of rigid) for (const v of group) unfree[v] = 1;
  const every = anyDiagonal(shell);
  const valid = validStart(shell, every, start, unfree, context);
  if (!valid) return { uv: start, energyBefore: Infinity, energyAfter: Infinity, steps: 0, converged: false };
  const tangled = new Set(facingDown(every, valid, 0));
  const whole = pickTriangles(every, (t) => !tangled.has(t));

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
  };
}

/** Whether a triangle that may change lies upside down, or has collapsed. */
export function isFlippedStart(shell: Shell, start: Float64Array, fixed: Uint8Array): boolean {
  const { positions, triangles } = shell;
  const own = { triangles, rest: restTriangles(positions, triangles) };
  return facingDown(freeTriangles(own, fixed), start, 0).length > 0;
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
  context: Context,
): Float64Array | undefined {
  if (isFlippedStart(shell, start, fixed)) throw new FlippedStartError();
  if (!shell.polygons) return start;
  try {
    return untangle(whole, start, fixed, context) ?? start;
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

const scaleToArea = (triangles: Uint32Array, uv: Float64Array, target: Float64Array): number =>
  Math.sqrt(signedArea(triangles, target) / signedArea(triangles, uv));
