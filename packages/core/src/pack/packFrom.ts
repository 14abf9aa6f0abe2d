import { type Context, heedStop } from '../progress.ts';
import { clearingOf } from './clearing.ts';
import { LEAST_PART } from './fineness.ts';
import type { PackShell } from './packShell.ts';
import { type Placement, placementsOf, placesOf } from './placement.ts';
import { clearingOptions, piecesOf, type SearchOptions } from './searchShells.ts';
import { movedInside } from './separate.ts';

/** Where shells cannot be moved clear they are made smaller by this factor, down to about a quarter. */
const SMALLER = 0.94;
const TIMES = 4;

/**
 * Lays shells clear of one another from where they are, moved no farther than they must be and not turned.
 *
 * @param start  where they lie, at one scale, which may be on each other and out of the frame
 * @returns undefined where they come clear at no scale that is of use
 * @throws StoppedError
 */
export function packFrom(
  shells: readonly PackShell[],
  start: readonly Placement[],
  options: Omit<SearchOptions, 'rounds'>,
  { signal }: Pick<Context, 'signal'>,
): Placement[] | undefined {
  const free = shells.flatMap(({ locked }, i) => (locked ? [] : [i]));
  if (free.length === 0) return [...start];
  let { scale } = start[free[0]];
  let laid: readonly Placement[] = start;
  for (let smaller = 0; smaller < TIMES; smaller++) {
    const { pieces, shapes } = piecesOf(shells, options, scale);
    const places = placesOf(laid);
    const clearing = clearingOptions(shells, shapes, { ...options, stay: true, rounds: Infinity });
    const { search, clear } = clearingOf(pieces, places, clearing, signal);
    // Fields reach the gaps of scales down to a part of the one that they are made for.
    for (const least = LEAST_PART * scale; scale >= least; scale *= SMALLER) {
      for (const i of free) places.scale[i] = scale;
      if (free.every((i) => movedInside(search, i)) && clear()) return placementsOf(places);
      heedStop(signal);
    }
    laid = placementsOf(places);
  }
  return undefined;
}
