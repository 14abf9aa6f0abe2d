import type { Context } from '../progress.ts';
import { collider, pairKey } from './collider.ts';
import { exactDeficits } from './exactGaps.ts';
import { type Frame, greatestScale } from './frame.ts';
import type { Piece } from './pieces.ts';
import { copyPlaces, type Places, placesFor } from './places.ts';
import { randomFrom } from './random.ts';
import { movedInside, type Search, separate } from './separate.ts';
import type { Turning } from './turning.ts';

export interface GrowOptions {
  readonly frame: Frame;
  readonly gap: number;
  readonly turning: readonly Turning[];
  /** Pieces that keep place and scale. */
  readonly locked: readonly boolean[];
  /** Scale that is not exceeded. */
  readonly most: number;
  readonly seed: number;
  /** Rounds of moves after which it ends. */
  readonly rounds: number;
  /** What a gap may lack while it is searched. */
  readonly slack: number;
}

/** Pieces grow by this part at most, and by no less than that. */
const [LARGE, SMALL] = [0.015, 0.0005];
/** After a growth that succeeds the next is larger by a factor, after one that fails smaller. */
const [MORE, LESS] = [1.2, 0.5];
/** Where even the smallest growth fails, two pieces of the best layout change places, and all grow by so much. */
const AGAIN = 0.004;
/** Rounds without a better layout after which a growth has failed. */
const PATIENCE = 20;
/** How often gaps are made wider where exact distances fall short, until a growth has failed. */
const CORRECTIONS = 4;

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
  { frame, gap, turning, locked, seed, slack, ...options }: GrowOptions,
  context: Context,
): boolean {
  const random = randomFrom(seed);
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
  const extra = new Map<number, number>();
  const weights = new Map<number, number>();
  const pairs = collider(pieces, trial, { frame, gap: gap + slack, extra, weights });
  const search: Search = {
    pieces,
    places: trial,
    collider: pairs,
    weights,
    locked,
    turning,
    slack,
    random,
    signal: context.signal,
  };
  let rounds = 0;
  const round = () => ++rounds <= options.rounds && !context.signal.aborted;
  /** Whether all are clear in the end, by exact distances too. */
  const isCleared = (): boolean => {
    for (let k = 0; k < CORRECTIONS && separate(search, PATIENCE, round); k++) {
      const deficits = exactDeficits(pieces, trial, gap, locked);
      if (deficits.length === 0) return true;
      for (const { i, j, by } of deficits) {
        const key = pairKey(i, j);
        extra.set(key, (extra.get(key) ?? 0) + by + 0.1 * slack);
      }
    }
    return false;
  };
  let best = places.scale[free[0]];
  let grow = LARGE;
  while (best < most && round()) {
    const scale = Math.min(most, best * (1 + grow));
    for (const i of free) trial.scale[i] = scale;
    weights.clear();
    if (free.every((i) => movedInside(search, i)) && isCleared()) {
      copyPlaces(trial, places);
      best = scale;
      grow = Math.min(LARGE, grow * MORE);
      context.report({ figure: best });
      continue;
    }
    // What was moved so far goes on from where it is, at a smaller scale: it is nearer to being clear than the best is.
    grow *= LESS;
    if (grow >= SMALL) continue;
    copyPlaces(places, trial);
    swapTwo(search, free);
    for (let i = 0; i < pieces.length; i++) pairs.settled(i);
    grow = AGAIN;
  }
  return best >= most;
}

/** Two pieces of the larger half change places, so that the search does not end where it did before. */
function swapTwo({ places, random, pieces }: Search, free: readonly number[]): void {
  const large = free
    .toSorted((a, b) => pieces[b].area - pieces[a].area)
    .slice(0, Math.max(2, Math.ceil(free.length / 2)));
  const a = large[Math.floor(random() * large.length)];
  const b = large[Math.floor(random() * large.length)];
  [places.u[a], places.u[b]] = [places.u[b], places.u[a]];
  [places.v[a], places.v[b]] = [places.v[b], places.v[a]];
}
