import type { StopSignal } from '../progress.ts';
import { type Collider, collider, pairKey } from './collider.ts';
import { exactDeficits } from './exactGaps.ts';
import type { Frame } from './frame.ts';
import type { Piece } from './pieces.ts';
import type { Places } from './places.ts';
import { randomFrom } from './random.ts';
import { type Search, separate } from './separate.ts';
import type { Turning } from './turning.ts';

export interface ClearingOptions {
  readonly frame: Frame;
  readonly gap: number;
  readonly turning: readonly Turning[];
  /** Pieces that keep place and scale. */
  readonly locked: readonly boolean[];
  /** Pieces of one number are laid near each other. */
  readonly near?: readonly (number | undefined)[];
  /** Whether pieces are moved no farther than they must be. */
  readonly stay?: boolean;
  readonly seed: number;
  /** Rounds of moves after which it ends. */
  readonly rounds: number;
  /** What a gap may lack while it is searched. */
  readonly slack: number;
}

/** Rounds without a better layout after which it is given up. */
const PATIENCE = 20;
/** How often gaps are made wider where exact distances fall short. */
const CORRECTIONS = 4;

/** Moves pieces until all gaps are kept, by exact distances too; rounds are counted over all calls. */
export interface Clearing {
  readonly search: Search;
  readonly collider: Collider;
  /** Counts a round; false once there are no more, or it was stopped. */
  round(): boolean;
  /** @returns whether all are clear in the end */
  clear(): boolean;
}

/** @param places  of the pieces, written over */
export function clearingOf(
  pieces: readonly Piece[],
  places: Places,
  { frame, gap, turning, locked, near, stay = false, seed, slack, ...options }: ClearingOptions,
  signal: StopSignal,
): Clearing {
  const extra = new Map<number, number>();
  const weights = new Map<number, number>();
  const pairs = collider(pieces, places, { frame, gap: gap + slack, extra, weights });
  const search: Search = {
    pieces,
    places,
    collider: pairs,
    weights,
    locked,
    turning,
    mates: matesOf(near ?? [], pieces.length),
    stay,
    slack,
    random: randomFrom(seed),
    signal,
  };
  let rounds = 0;
  const round = () => ++rounds <= options.rounds && !signal.aborted;
  const clear = (): boolean => {
    weights.clear();
    for (let k = 0; k < CORRECTIONS && separate(search, PATIENCE, round); k++) {
      const deficits = exactDeficits(pieces, places, gap, locked);
      if (deficits.length === 0) return true;
      for (const { i, j, by } of deficits) {
        const key = pairKey(i, j);
        extra.set(key, (extra.get(key) ?? 0) + by + 0.1 * slack);
      }
    }
    return false;
  };
  return { search, collider: pairs, round, clear };
}

/** Of each piece the others that it lies near to; undefined where it may lie anywhere. */
function matesOf(
  near: readonly (number | undefined)[],
  count: number,
): readonly (readonly number[] | undefined)[] {
  const byNumber = new Map<number, number[]>();
  near.forEach((number, i) => {
    if (number !== undefined) byNumber.set(number, [...(byNumber.get(number) ?? []), i]);
  });
  return Array.from({ length: count }, (_, i) => {
    const number = near[i];
    return number === undefined ? undefined : byNumber.get(number);
  });
}
