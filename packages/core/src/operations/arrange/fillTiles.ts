import { HemError } from '../../errors.ts';
import { largestScale, type PackShell } from '../../pack/packShell.ts';
import type { Placement } from '../../pack/placement.ts';
import { coveredArea } from '../../surface/flatArea.ts';
import { aspectOf, frameOf, MOST_TILES, nextNumber, type Tile } from '../../surface/tiles.ts';
import type { OperationContext } from '../operation.ts';
import { placeOptions } from './layTile.ts';

/** Where shells go, and the tiles there are then. */
export interface Filled<S extends PackShell> {
  /** The shells: smaller than they came where they are larger than a tile. */
  readonly shells: readonly S[];
  readonly placements: readonly Placement[];
  /** The tile of each, by its place in the list of them. */
  readonly tileOf: readonly number[];
  /** Those that are smaller, by number, and by how much. */
  readonly shrunk: ReadonlyMap<number, number>;
  readonly tiles: readonly Tile[];
}

/** A shell that is larger than a tile is made to fit it but for the first of these, then less by the second, so often at most. */
const [FITS, SMALLER, TRIES] = [0.99, 0.97, 8];

/**
 * Lays shells into tiles at a density, one tile after the other, and adds tiles like the last one where those there are do not do.
 *
 * @param shells  those that are packed, in units of the model
 * @param around  what lies in tiles already and stays
 * @param density  texels a unit of the model
 */
export async function fillTiles<S extends PackShell>(
  shells: readonly S[],
  around: readonly PackShell[],
  tiles: readonly Tile[],
  density: number,
  { jobs, signal, report }: OperationContext,
): Promise<Filled<S>> {
  const room = MOST_TILES * aspectOf(tiles) * (tiles[0].height / density) ** 2;
  if (shells.reduce((sum, shell) => sum + coveredArea(shell.triangles, shell.uv), 0) > room)
    throw new TooDenseError(density);
  const sized = [...shells];
  const placements = new Array<Placement>(shells.length);
  const tileOf = new Array<number>(shells.length);
  const shrunk = new Map<number, number>();
  const all = [...tiles];
  let left = shells.map((_, i) => i);
  let tries = 0;
  for (let t = 0; left.length > 0; ) {
    if (t === all.length) all.push({ ...all[t - 1], number: nextNumber(all) });
    if (all.length > MOST_TILES) throw new TooDenseError(density);
    const tile = all[t];
    const options = { ...placeOptions({ tile, frame: frameOf(tile) }), most: density / tile.height };
    const found = await jobs.run(
      'pack-some',
      { shells: [...left.map((i) => sized[i]), ...around], options },
      { signal, report() {} },
    );
    const next: number[] = [];
    left.forEach((i, k) => {
      const place = found[k];
      if (place) [placements[i], tileOf[i]] = [place, t];
      else next.push(i);
    });
    // An empty tile that takes nothing shows that each of what is left is larger than a tile.
    if (next.length === left.length && t >= tiles.length) {
      if (++tries > TRIES) throw new TooDenseError(density);
      for (const i of left) {
        const part = shrunk.get(i);
        const next = part
          ? part * SMALLER
          : Math.min(1, (FITS * largestScale(shells[i], options)) / options.most);
        shrunk.set(i, next);
        sized[i] = { ...shells[i], uv: shells[i].uv.map((x) => x * next) };
      }
      continue;
    }
    left = next;
    t++;
    report({ fraction: 1 - left.length / shells.length });
  }
  return { shells: sized, placements, tileOf, shrunk, tiles: all };
}

/** There would be more tiles than a UV set has, or a shell fits none. */
export class TooDenseError extends HemError {
  constructor(density: number) {
    super(
      'too-dense',
      `At ${Number(density.toPrecision(3))} texels a unit there would be more than ${MOST_TILES} tiles: lower the density, raise the texture size or cut what is large.`,
    );
    this.name = 'TooDenseError';
  }
}
