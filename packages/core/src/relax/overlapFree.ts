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
  for (const begin of starts) {
    const start = unlessHopeless(begin);
    if (!start || isFlippedStart(shell, start)) continue;
    const found = relaxOverlapFree(shell, start, { ...options, steps: undefined }, context);
    if (found) return found;
  }
  return undefined;
}

/**
 * Evens out stretch from a start that is clear of itself, and keeps it so. Polygons count only once the map of their triangles is at its least, near
 * which unfolding those that are folded is gentle.
 *
 * @returns undefined where it lies on itself all the same: borders that touch cannot be told apart
 */
export function relaxOverlapFree(
  shell: Shell,
  start: Float64Array,
  options: LooseningOptions,
  context: Context,
): Loosened | undefined {
  const loops = loopsOf(shell);
  const newton: Parameters<typeof loosen>[0] = (whole, uv, given, heeding) =>
    newtonOverlapFree(whole, loops, uv, given, heeding);
  const { steps: mostSteps = MOST_STEPS } = options;
  let taken = 0;
  const relaxed = (own: Shell, uv: Float64Array, more: LooseningOptions = {}): Loosened | undefined => {
    const found = loosen(
      newton,
      own,
      uv,
      { ...options, tolerance: TOLERANCE, leaveFolds: true, steps: mostSteps, ...more },
      context,
    );
    taken += found.steps;
    return liesOnItself(shell, found.uv) ? undefined : { ...found, steps: taken };
  };
  if (!shell.polygons) return relaxed(shell, start);
  /** The map with its folded polygons unfolded, and evened out where they were: narrow at first, but few. */
  const unfold = (uv: Float64Array): Loosened | undefined => {
    const unfolded = unlessHopeless(() => withoutInversions(shell, uv, options, context));
    if (!unfolded || unfolded === uv) return unfolded && relaxed(shell, uv);
    const eased = relaxed(shell, unfolded, {
      fixed: heldFarFrom(shell.triangles, uv, unfolded, heldOf(shell, options)),
      rigid: [],
      scale: options.scale ?? Math.sqrt(surfaceOf(shell) / signedArea(shell.triangles, uv)),
    });
    return eased && relaxed(shell, eased.uv);
  };
  const plain = relaxed({ ...shell, polygons: undefined }, start);
  const found = plain && unfold(plain.uv);
  if (found) return found;
  // With those counted that are not folded, fewer are.
  const counted = relaxed(shell, plain?.uv ?? start);
  return counted && (unfold(counted.uv) ?? counted);
}

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
