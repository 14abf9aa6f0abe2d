import { StoppedError } from '../errors.ts';
import { NotPositiveDefiniteError } from '../linear/cholesky.ts';
import { overlapsWithin } from '../measure/overlap.ts';
import type { Context } from '../progress.ts';
import { anyDiagonal } from '../surface/anyDiagonal.ts';
import { borders } from '../surface/borders.ts';
import type { Shell } from '../surface/shell.ts';
import { intoDisc } from './intoDisc.ts';
import { isFlippedStart, type Loosened, type LooseningOptions, loosen } from './loosen.ts';
import { newtonOverlapFree } from './newtonOverlapFree.ts';
import { invertedTriangles, removeInversions } from './removeInversions.ts';
import { withOutside } from './withOutside.ts';

const [MOST_STEPS, TOLERANCE] = [150, 1e-4];

/**
 * Lays a shell flat as it would be unfolded and relaxed, but clear of itself: from a disc, in which every shell lies so.
 *
 * @param options  of which neither `fixed` nor `rigid` can be met
 * @returns at the scale of the model; undefined where no such map was found, or it was stopped
 */
export function unfoldOverlapFree(
  shell: Shell,
  options: LooseningOptions,
  context: Context,
): Loosened | undefined {
  const disc = unlessHopeless(() => intoDisc(shell, context.signal));
  return disc && !isFlippedStart(shell, disc)
    ? relaxOverlapFree(shell, disc, { ...options, steps: undefined }, context)
    : undefined;
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
  const loops = loopsOf(shell);
  const newton: Parameters<typeof loosen>[0] = (whole, uv, given, heeding) =>
    newtonOverlapFree(whole, loops, uv, given, heeding);
  const from = (uv: Float64Array): Loosened | undefined => {
    const found = loosen(
      newton,
      shell,
      uv,
      { ...options, steps: options.steps ?? MOST_STEPS, tolerance: TOLERANCE, leaveFolds: true },
      context,
    );
    return liesOnItself(shell, found.uv) ? undefined : found;
  };
  const first = from(start);
  const unfolded =
    first && shell.polygons && unlessHopeless(() => withoutInversions(shell, first.uv, options, context));
  return (unfolded && unfolded !== first.uv && from(unfolded)) || first;
}

export const liesOnItself = ({ triangles }: Shell, uv: Float64Array): boolean =>
  overlapsWithin(triangles, uv, 1).length > 0;

/** Unfolds polygons that are folded, as far as can be near by, with the map kept clear of itself; the map itself where none are. */
function withoutInversions(
  shell: Shell,
  uv: Float64Array,
  { fixed, rigid = [] }: LooseningOptions,
  context: Context,
): Float64Array {
  const every = anyDiagonal(shell);
  if (invertedTriangles(every, uv, 0).length === 0) return uv;
  const held = fixed?.slice() ?? new Uint8Array(uv.length / 2);
  for (const group of rigid) for (const v of group) held[v] = 1;
  const filled = withOutside(every, loopsOf(shell), uv, held);
  const found = filled && removeInversions(filled.whole, filled.uv, filled.fixed, context, false);
  return found?.slice(0, uv.length) ?? uv;
}

/** What is found, unless it was stopped or numbers run out. */
function unlessHopeless<T>(work: () => T): T | undefined {
  try {
    return work();
  } catch (error) {
    if (error instanceof StoppedError || error instanceof NotPositiveDefiniteError) return undefined;
    throw error;
  }
}

const loopsOf = ({ triangles, positions }: Shell) => borders(triangles, positions.length / 3).loops;
