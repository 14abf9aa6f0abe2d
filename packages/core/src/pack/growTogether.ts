import type { Context } from '../progress.ts';
import { type ClearingOptions, clearingOf } from './clearing.ts';
import { greatestScale } from './frame.ts';
import type { Piece } from './pieces.ts';
import { copyPlaces, type Places, placesFor } from './places.ts';
import { movedInside, type Search } from './separate.ts';

export interface GrowOptions extends ClearingOptions {
  /** Scale that is not exceeded. */
  readonly most: number;
}

/** Pieces grow by this part at most, and by no less than that. */
const [LARGE, SMALL] = [0.015, 0.0005];
/** After a growth that succeeds the next is larger by a factor, after one that fails smaller. */
const [MORE, LESS] = [1.2, 0.5];
/** Where even the smallest growth fails, two pieces of the best layout change places, and all grow by so much. */
const AGAIN = 0.004;

/**
 * Lets pieces that lie clear of one another grow together, a little at a time, and moves what then lies on others until all are clear again.
 *
 * @param places  clear; becomes the best that was found
 * @param context  hears of every better scale, while `places` has the layout
 * @returns whether they are as large as any layout lets them be
 */
export function growTogether(
  pieces: readonly Piece[],
  places: Places,
  options: GrowOptions,
  context: Context,
): boolean {
  const { frame, gap, turning, locked, slack, stay } = options;
  const free = pieces.flatMap((_, i) => (locked[i] ? [] : [i]));
  const most = Math.min(
    options.most,
    greatestScale(
      free.map((i) => [pieces[i], turning[i]]),
      frame,
      gap + slack,
    ),
  );
  const trial = placesFor(pieces.length);
  copyPlaces(places, trial);
  const { search, collider, round, clear } = clearingOf(pieces, trial, options, context.signal);
  let best = places.scale[free[0]];
  let grow = LARGE;
  while (best < most && round()) {
    const scale = Math.min(most, best * (1 + grow));
    for (const i of free) trial.scale[i] = scale;
    if (free.every((i) => movedInside(search, i)) && clear()) {
      copyPlaces(trial, places);
      best = scale;
      grow = Math.min(LARGE, grow * MORE);
      context.report({ figure: best });
      continue;
    }
    // What was moved so far goes on from where it is, at a smaller scale: it is nearer to being clear than the best is.
    grow *= LESS;
    if (grow >= SMALL) continue;
    if (stay) break;
    copyPlaces(places, trial);
    swapTwo(search, free);
    for (let i = 0; i < pieces.length; i++) collider.settled(i);
    grow = AGAIN;
  }
  return best >= most;
}

/** Two pieces of the larger half change places, so that the search does not end where it did before. */
function swapTwo({ places, random, pieces, mates }: Search, free: readonly number[]): void {
  const larger = (some: readonly number[]): readonly number[] =>
    some
      .toSorted((a, b) => pieces[b].area - pieces[a].area)
      .slice(0, Math.max(2, Math.ceil(some.length / 2)));
  const oneOf = (some: readonly number[]): number => some[Math.floor(random() * some.length)];
  const a = oneOf(larger(free));
  const b = oneOf(mates[a] ?? larger(free));
  [places.u[a], places.u[b]] = [places.u[b], places.u[a]];
  [places.v[a], places.v[b]] = [places.v[b], places.v[a]];
}
