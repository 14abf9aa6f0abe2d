import { HemError } from '../../errors.ts';
import type { PackShell } from '../../pack/packShell.ts';
import type { Placement } from '../../pack/placement.ts';
import { MOST_TILES, nextNumber, type Tile } from '../../surface/tiles.ts';
import type { OperationContext } from '../operation.ts';
import { tileOptions } from './layTile.ts';

/** Where shells go, and the tiles there are then. */
export interface Filled {
  readonly placements: readonly Placement[];
  readonly tiles: readonly Tile[];
}

/**
 * Lays shells into tiles at a density, one tile after the other, and adds tiles like the last one where those there are do not do.
 *
 * @param shells  those that are packed, in units of the model
 * @param around  what lies in tiles already and stays
 * @param density  texels a unit of the model
 */
export async function fillTiles(
  shells: readonly PackShell[],
  around: readonly PackShell[],
  tiles: readonly Tile[],
  density: number,
  { jobs, signal, report }: OperationContext,
): Promise<Filled> {
  const placements = new Array<Placement>(shells.length);
  const all = [...tiles];
  let left = shells.map((_, i) => i);
  for (let t = 0; left.length > 0; t++) {
    if (t === all.length) all.push({ ...all[t - 1], number: nextNumber(all) });
    if (all.length > MOST_TILES) throw new TooDenseError(density);
    const tile = all[t];
    const found = await jobs.run(
      'pack-some',
      {
        shells: [...left.map((i) => shells[i]), ...around],
        options: { ...tileOptions(tile), most: density / tile.height },
      },
      { signal, report() {} },
    );
    const next: number[] = [];
    left.forEach((i, k) => {
      const place = found[k];
      if (place) placements[i] = place;
      else next.push(i);
    });
    // An empty tile that takes nothing shows that what is left is larger than a tile.
    if (next.length === left.length && t >= tiles.length) throw new TooDenseError(density);
    left = next;
    report({ fraction: 1 - left.length / shells.length });
  }
  return { placements, tiles: all.toSorted((a, b) => a.number - b.number) };
}

/** A shell is larger than a tile. */
export class TooDenseError extends HemError {
  constructor(density: number) {
    super(
      'too-dense',
      `At ${Number(density.toPrecision(3))} texels a unit a shell is larger than a tile, or there would be more than ${MOST_TILES} tiles: lower the density, raise the texture size or cut the shell.`,
    );
    this.name = 'TooDenseError';
  }
}
