import { StoppedError } from '../errors.ts';
import { NotPositiveDefiniteError } from '../linear/cholesky.ts';
import { overlapsWithin } from '../measure/overlap.ts';
import type { Context } from '../progress.ts';
import { anyDiagonal } from '../surface/anyDiagonal.ts';
import { borders } from '../surface/borders.ts';
import type { Shell } from '../surface/shell.ts';
import { intoDisc } from '../unfold/intoDisc.ts';
import { isFlippedStart, type Loosened, type LooseningOptions, loosen } from './loosen.ts';
import { newtonClear } from './newtonClear.ts';
import { untangle } from './untangle.ts';
import { withOutside } from './withOutside.ts';

const CONVERGED = { steps: 150, tolerance: 1e-4 };

/**
 * Lays a shell flat as it would be unfolded and relaxed, but clear of itself: from a disc, in which every shell lies so.
 *
 * @param options  of which neither `fixed` nor `rigid` can be met
 * @returns at the scale of the model; undefined where no such map was found, or it was stopped
 */
export function layClear(shell: Shell, options: LooseningOptions, context: Context): Loosened | undefined {
  try {
    const disc = untangledClear(shell, intoDisc(shell, context.signal), context);
    return isFlippedStart(shell, disc) ? undefined : loosenClear(shell, disc, options, context);
  } catch (error) {
    if (error instanceof StoppedError || error instanceof NotPositiveDefiniteError) return undefined;
    throw error;
  }
}

/**
 * Evens out stretch from a start that is clear of itself, and keeps it so.
 *
 * @returns undefined where it lies on itself all the same: borders that touch cannot be told apart
 */
export function loosenClear(
  shell: Shell,
  start: Float64Array,
  options: LooseningOptions,
  context: Context,
): Loosened | undefined {
  const loops = loopsOf(shell);
  const newton: Parameters<typeof loosen>[0] = (whole, uv, given, heeding) =>
    newtonClear(whole, loops, uv, given, heeding);
  const found = loosen(newton, shell, start, { ...options, ...CONVERGED }, context);
  return liesOnItself(shell, found.uv) ? undefined : found;
}

export const liesOnItself = ({ triangles }: Shell, uv: Float64Array): boolean =>
  overlapsWithin(triangles, uv, 1).length > 0;

/** Unfolds polygons that are folded, as far as can be, with the map kept clear of itself. */
function untangledClear(shell: Shell, uv: Float64Array, context: Context): Float64Array {
  if (!shell.polygons) return uv;
  const filled = withOutside(anyDiagonal(shell), loopsOf(shell), uv);
  const found = filled && untangle(filled.whole, filled.uv, filled.fixed, context);
  return found?.slice(0, uv.length) ?? uv;
}

const loopsOf = ({ triangles, positions }: Shell) => borders(triangles, positions.length / 3).loops;
