import type { HemDocument } from '../../document/document.ts';
import { HemError } from '../../errors.ts';
import { frameOf, type Tile, tileOf } from '../../surface/tiles.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import { KINDS, kindOf } from './kinds.ts';

/** How shells are told to tiles: each stays where it lies, or they are spread evenly, one by one or those of a part, material or patch together. */
export const SPREADS = ['stay', 'even', ...KINDS] as const;
export type Spread = (typeof SPREADS)[number];

/** A shell that goes to some tile. */
export interface Guest {
  readonly s: number;
  /** Surface on the model. */
  readonly area: number;
}

/** What is filled: a tile, or a region of it. */
export interface Place {
  readonly tile: Tile;
  readonly frame: UvBox;
}

/** A place and what goes there. */
export interface Home<G extends Guest> extends Place {
  readonly shells: readonly G[];
}

/**
 * The part of a region that lies in the tile in which its middle lies.
 *
 * @throws HemError when it lies in none, or is none
 */
export function regionIn(tiles: readonly Tile[], region: UvBox): Place {
  const [left, low, right, high] = region;
  const tile = left < right && low < high ? tileOf(tiles, region) : undefined;
  if (!tile)
    throw new HemError(
      'no-region',
      'That region has no width or height, or its middle lies in no tile: draw it inside a tile.',
    );
  const [minU, minV, maxU, maxV] = frameOf(tile);
  const frame = [
    Math.max(left, minU),
    Math.max(low, minV),
    Math.min(right, maxU),
    Math.min(high, maxV),
  ] as const;
  return { tile, frame };
}

/**
 * Tells shells to the tiles of a document; tiles that get none are left out. Where they are spread, what has the most surface goes first, always to the tile that
 * has the least so far for its texels (longest processing time first, Graham 1969).
 *
 * @param boxes  where each shell lies, by number
 */
export function homesOf<G extends Guest>(
  document: HemDocument,
  guests: readonly G[],
  boxes: readonly (UvBox | undefined)[],
  spread: Spread,
): Home<G>[] {
  const { tiles } = document;
  const byTile = new Map<Tile, G[]>(tiles.map((tile) => [tile, []]));
  if (spread === 'stay')
    for (const guest of guests) byTile.get(tileOf(tiles, boxes[guest.s] as UvBox) ?? tiles[0])?.push(guest);
  else {
    const load = new Map(tiles.map((tile) => [tile, 0]));
    const groups = [...groupsOf(document, guests, spread)]
      .map((shells) => ({ shells, area: shells.reduce((sum, { area }) => sum + area, 0) }))
      .sort((a, b) => b.area - a.area || a.shells[0].s - b.shells[0].s);
    for (const { shells, area } of groups) {
      const [tile] = [...load].reduce((least, each) => (each[1] < least[1] ? each : least));
      byTile.get(tile)?.push(...shells);
      load.set(tile, (load.get(tile) ?? 0) + area / tile.height ** 2);
    }
  }
  return [...byTile].flatMap(([tile, shells]) =>
    shells.length > 0 ? [{ tile, frame: frameOf(tile), shells }] : [],
  );
}

function groupsOf<G extends Guest>(
  document: HemDocument,
  guests: readonly G[],
  spread: Exclude<Spread, 'stay'>,
): Iterable<G[]> {
  const groups = new Map<unknown, G[]>();
  for (const guest of guests) {
    const key = spread === 'even' ? guest : kindOf(document, guest.s, spread);
    const group = groups.get(key);
    if (group) group.push(guest);
    else groups.set(key, [guest]);
  }
  return groups.values();
}
