import type { Context } from '../progress.ts';
import { clearingOf } from './clearing.ts';
import type { PackShell } from './packShell.ts';
import { type Placement, placementsOf, placesOf } from './placement.ts';
import { clearingOptions, piecesOf, type SearchOptions } from './searchShells.ts';
import { movedInside } from './separate.ts';

/**
 * Finds room for one more shell among some that lie clear of one another, at the scale they have: it is put in their midst, and all are moved until they are clear.
 *
 * @param start  of all shells but the last, which is the one that comes in
 * @returns undefined where there was none within the rounds, or it was stopped
 */
export function packInto(
  shells: readonly PackShell[],
  start: readonly Placement[],
  options: SearchOptions & { readonly most: number },
  { signal }: Pick<Context, 'signal'>,
): Placement[] | undefined {
  const { frame, most: scale } = options;
  const { pieces, shapes } = piecesOf(shells, options, scale);
  const midst = { u: (frame[0] + frame[2]) / 2, v: (frame[1] + frame[3]) / 2, angle: 0, scale };
  const places = placesOf([...start, midst]);
  const { search, clear } = clearingOf(pieces, places, clearingOptions(shells, shapes, options), signal);
  return movedInside(search, shells.length - 1) && clear() ? placementsOf(places) : undefined;
}
