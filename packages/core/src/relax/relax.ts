import { type Context, within } from '../progress.ts';
import type { Shell } from '../surface/shell.ts';
import { type Loosened, type LooseningOptions, loosen, scaleToArea } from './loosen.ts';
import { liesOnItself, relaxOverlapFree, unfoldOverlapFree } from './overlapFree.ts';
import { projectedNewton } from './projectedNewton.ts';

export interface RelaxOptions extends LooseningOptions {
  /** Stop after so long. */
  readonly seconds?: number;
  /** Keeps the shell from lying on itself: where it does not yet, or begun anew where it does. */
  readonly clear?: 'kept' | 'anew';
}

export interface Relaxed extends Loosened {
  /** Whether it lies on itself, where it was to be kept from it: it would not have, was kept from it, or could not be. */
  readonly onItself?: 'no' | 'kept from it' | 'yes';
}

/** How much more energy a map may have for not lying on itself; of what needs more, a cut makes more. */
export const MOST_WORSE = 1.1;

/**
 * Evens out the stretch of one shell by `projectedNewton`. Every map on the way is flip-free and no worse than the one before; when
 * stopped, the last one is the answer. Polygons that are folded at the start are unfolded first; what cannot be stays as it is. A shell
 * that is to be kept from lying on itself, and would, is relaxed once more by `newtonOverlapFree`: from the start where that is clear of
 * itself, else, where nothing is held and it may be begun anew, from a disc.
 *
 * @param start  flip-free UV per shell vertex, `2 × vertexCount`, any scale
 * @throws FlippedStartError
 */
export function relax(shell: Shell, start: Float64Array, options: RelaxOptions, context: Context): Relaxed {
  const { seconds, clear } = options;
  const signal = seconds === undefined ? context.signal : within(context.signal, seconds);
  const found = loosen(projectedNewton, shell, start, options, { ...context, signal });
  if (!clear) return found;
  if (!liesOnItself(shell, found.uv)) return { ...found, onItself: 'no' };
  const other = signal.aborted ? undefined : keptClear(shell, start, options, { ...context, signal });
  return other && other.energyAfter <= MOST_WORSE * found.energyAfter
    ? { ...other, energyBefore: found.energyBefore, onItself: 'kept from it' }
    : { ...found, onItself: 'yes' };
}

/** @returns undefined where there is no map to begin with, or none was found */
function keptClear(
  shell: Shell,
  start: Float64Array,
  options: RelaxOptions,
  context: Context,
): Loosened | undefined {
  const isAnew = options.clear === 'anew';
  // Where it may begin anew it also may take the steps that this takes.
  if (!liesOnItself(shell, start))
    return relaxOverlapFree(shell, start, isAnew ? { ...options, steps: undefined } : options, context);
  const isHeld = options.fixed?.includes(1) || (options.rigid ?? []).length > 0;
  const found = isHeld || !isAnew ? undefined : unfoldOverlapFree(shell, options, context);
  if (!found) return undefined;
  const scale = scaleToArea(shell.triangles, found.uv, start);
  return { ...found, uv: found.uv.map((x) => x * scale) };
}
