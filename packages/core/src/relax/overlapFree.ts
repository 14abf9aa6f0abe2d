import { StoppedError } from '../errors.ts';
import { NotPositiveDefiniteError } from '../linear/cholesky.ts';
import { overlapsWithin } from '../measure/overlap.ts';
import type { Context } from '../progress.ts';
import { anyDiagonal } from '../surface/anyDiagonal.ts';
import { borders } from '../surface/borders.ts';
import { signedArea } from '../surface/flatArea.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { areaTerm } from './distortion.ts';
import { heldFarFrom } from './heldFarFrom.ts';
import { intoDisc } from './intoDisc.ts';
import { exponentOf, isFlippedStart, type Loosened, type LooseningOptions, loosen } from './loosen.ts';
import { newtonOverlapFree } from './newtonOverlapFree.ts';
import { isWorthCoarsening, progressiveOverlapFree } from './progressiveOverlapFree.ts';
import { invertedTriangles, removeInversions } from './removeInversions.ts';
import { withOutside } from './withOutside.ts';

const [MOST_STEPS, TOLERANCE] = [150, 1e-4];

/**
 * Lays a shell flat as it would be unfolded and relaxed, but clear of itself: from a disc, in which every shell lies so.
 *
 * @param options  of which neither `fixed` nor `rigid` can be met
 * @returns at the scale of the model; undefined where no such map was found, it was stopped, or the shell cannot lie flat as it is cut
 */
export function unfoldOverlapFree(
  shell: Shell,
  options: LooseningOptions,
  context: Context,
): Loosened | undefined {
  if (!shellTopology(shell).canUnfold) return undefined;
  const { signal } = context;
  const term = areaTerm(exponentOf(options.balance ?? 0.5));
  const starts = [
    () => (isWorthCoarsening(shell) ? progressiveOverlapFree(shell, term, context) : undefined),
    () => intoDisc(shell, signal),
  ];
  const anew = { ...options, steps: undefined };
  for (const begin of starts) {
    const start = unlessHopeless(begin);
    if (!start || isFlippedStart(shell, start)) continue;
    const found = shell.polygons
      ? relaxPolygonsLast(shell, start, anew, context)
      : descents(shell, anew, context).relaxed(start);
    if (found) return found;
  }
  return undefined;
}

/** First by the triangles alone: near the least of those, polygons that are folded are few, and unfolding them is gentle. */
function relaxPolygonsLast(
  shell: Shell,
  start: Float64Array,
  options: LooseningOptions,
  context: Context,
): Loosened | undefined {
  const plain = descents({ ...shell, polygons: undefined }, options, context).relaxed(start);
  if (!plain) return undefined;
  const { relaxed, unfolded } = descents(shell, options, context);
  // Where that fails, with those counted that are not folded, fewer are.
  const counted = () => {
    const first = relaxed(plain.uv);
    return first && (unfolded(first.uv) ?? first);
  };
  const found = unfolded(plain.uv) ?? counted();
  return found && { ...found, steps: plain.steps + found.steps };
}

/**
 * Evens out stretch from a start that is clear of itself, and keeps it so. Polygons that are folded are unfolded once the map is at its least,
 * near which that is gentle.
 *
 * @returns undefined where it lies on itself all the same: borders that touch cannot be told apart
 */
export function relaxOverlapFree(
  shell: Shell,
  start: Float64Array,
  options: LooseningOptions,
  context: Context,
): Loosened | undefined {
  const { relaxed, unfolded } = descents(shell, options, context);
  const found = relaxed(start);
  return found && shell.polygons && hasFolds(shell, found.uv) ? (unfolded(found.uv) ?? found) : found;
}

/** The two ways down from a map that is clear of itself, both undefined where one leads to a map that is not; steps are counted over both. */
function descents(shell: Shell, options: LooseningOptions, context: Context) {
  const loops = loopsOf(shell);
  const newton: Parameters<typeof loosen>[0] = (whole, uv, given, heeding) =>
    newtonOverlapFree(whole, loops, uv, given, heeding);
  let taken = 0;
  const relaxed = (uv: Float64Array, more: LooseningOptions = {}): Loosened | undefined => {
    const steps = options.steps === undefined ? MOST_STEPS : Math.max(0, options.steps - taken);
    const given = { ...options, tolerance: TOLERANCE, leaveFolds: true, steps, ...more };
    const found = loosen(newton, shell, uv, given, context);
    taken += found.steps;
    return liesOnItself(shell, found.uv) ? undefined : { ...found, steps: taken };
  };
  return {
    relaxed: (uv: Float64Array) => relaxed(uv),
    /** With polygons unfolded first that are folded, and evened out where they were: narrow at first, but few; undefined also where some stay so. */
    unfolded(uv: Float64Array): Loosened | undefined {
      const valid = unlessHopeless(() => withoutInversions(shell, uv, options, context));
      if (!valid || valid === uv) return valid && relaxed(uv);
      const eased = relaxed(valid, {
        fixed: heldFarFrom(shell.triangles, uv, valid, heldOf(shell, options)),
        rigid: [],
        scale: options.scale ?? Math.sqrt(surfaceOf(shell) / signedArea(shell.triangles, uv)),
      });
      return eased && relaxed(eased.uv);
    },
  };
}

const hasFolds = (shell: Shell, uv: Float64Array): boolean =>
  invertedTriangles(anyDiagonal(shell), uv, 0).length > 0;

export const liesOnItself = ({ triangles }: Shell, uv: Float64Array): boolean =>
  overlapsWithin(triangles, uv, 1).length > 0;

/** Unfolds polygons that are folded, near by, with the map kept clear of itself; the map itself where none are, undefined where some stay folded. */
function withoutInversions(
  shell: Shell,
  uv: Float64Array,
  options: LooseningOptions,
  context: Context,
): Float64Array | undefined {
  const every = anyDiagonal(shell);
  if (invertedTriangles(every, uv, 0).length === 0) return uv;
  const filled = withOutside(every, loopsOf(shell), uv, heldOf(shell, options));
  const found = filled && removeInversions(filled.whole, filled.uv, filled.fixed, context, false);
  return found?.slice(0, uv.length);
}

/** 1 for every vertex that is fixed, or of a rigid set. */
function heldOf({ positions }: Shell, { fixed, rigid = [] }: LooseningOptions): Uint8Array {
  const held = fixed?.slice() ?? new Uint8Array(positions.length / 3);
  for (const group of rigid) for (const v of group) held[v] = 1;
  return held;
}

const surfaceOf = ({ positions, triangles }: Shell): number => restTriangles(positions, triangles).totalArea;

/** What is found, unless it was stopped or numbers run out. */
function unlessHopeless<T>(work: () => T | undefined): T | undefined {
  try {
    return work();
  } catch (error) {
    if (error instanceof StoppedError || error instanceof NotPositiveDefiniteError) return undefined;
    throw error;
  }
}

const loopsOf = ({ triangles, positions }: Shell) => borders(triangles, positions.length / 3).loops;
