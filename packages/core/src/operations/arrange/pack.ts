import type { PackOptions, Placement } from '../../arrange/packShells.ts';
import { isLocked } from '../../document/constraints.ts';
import type { Delta } from '../../document/delta.ts';
import { type HemDocument, shellOf, shellUv } from '../../document/document.ts';
import { shellBoxes } from '../../document/layout.ts';
import { LockedError, leftLocked } from '../../document/locks.ts';
import { nameOfShell } from '../../document/shellChoice.ts';
import { cornerUv, uvChange, uvDifference } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
import { about, choice, flag, otherwise, record } from '../../params.ts';
import { share } from '../../progress.ts';
import { surfaceArea } from '../../surface/areas.ts';
import { signedArea } from '../../surface/flatArea.ts';
import { sizeInWords, type Tile, tileOf } from '../../surface/tiles.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import { type OperationContext, operation } from '../operation.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';
import { layRound } from './layAfresh.ts';
import { applyPlacement, flatShell } from './placement.ts';

/**
 * Lays all unfolded shells into the tiles they lie in, as large as they go, without overlap; what lies in none goes into the first. Texture sizes
 * and padding are those of the tiles.
 */
export const pack = operation({
  name: 'pack',
  stage: 'arrange',
  params: record({
    turning: about(
      'how shells may be turned: by quarters, or not at all',
      otherwise(choice('quarter', 'none'), 'quarter'),
    ),
    equalDensity: about(
      'whether all shells come to one texture scale, in all tiles',
      otherwise(flag(), true),
    ),
  }),
  label: (_, { tiles }) =>
    tiles.length > 1
      ? `Pack ${tiles.length} tiles`
      : `Pack with ${tiles[0].padding} px padding at ${sizeInWords(tiles[0])} px`,
  doing: 'Packing',
  figure: (used) => `trying to cover ${Math.round(100 * used)} % of the tile`,
  async run(document, { equalDensity, turning }, context) {
    const boxes = shellBoxes(document);
    const locked = [...boxes.keys()].filter((s) => boxes[s] && isLocked(document, s));
    const work = [...boxes.keys()].flatMap((s): Packed[] => {
      const shell = shellOf(document, s);
      const uv = shellUv(document, shell);
      if (!uv || isLocked(document, s)) return [];
      const area = surfaceArea(shell.positions, shell.triangles);
      const flat = Math.abs(signedArea(shell.triangles, uv));
      const factor = equalDensity && flat > 0 && area > 0 ? Math.sqrt(area / flat) : 1;
      return [{ s, triangles: shell.triangles, uv: uv.map((x) => x * factor) }];
    });
    if (work.length === 0) throw nothingToPack(document, locked);
    const homeOf = (s: number): Tile => tileOf(document.tiles, boxes[s] as UvBox) ?? document.tiles[0];
    const homes = document.tiles.flatMap((tile): Home[] => {
      const shells = work.filter(({ s }) => homeOf(s) === tile);
      return shells.length > 0 ? [{ tile, shells }] : [];
    });
    if (locked.length > 0) return packRound(document, homes, locked, equalDensity);
    const uvOf = await packAll(homes, { equalDensity, turning }, context);
    return {
      changes: [uvChange(document, uvOf), placedChange(document, 1)],
      notes: placingNotes(document),
    };
  },
});

/** One shell, at the scale it has to the others. */
interface Packed {
  readonly s: number;
  readonly triangles: Uint32Array;
  readonly uv: Float64Array;
}

/** A tile and what goes there. */
interface Home {
  readonly tile: Tile;
  readonly shells: readonly Packed[];
}

/** New UVs of shells by number. Where several tiles have one density, what the fullest allows goes for all. */
async function packAll(
  homes: readonly Home[],
  { equalDensity, turning }: { readonly equalDensity: boolean; readonly turning: PackOptions['turning'] },
  context: OperationContext,
): Promise<Map<number, Float64Array>> {
  const packHome = ({ tile, shells }: Home, i: number, most?: number): Promise<readonly Placement[]> =>
    context.jobs.run(
      'pack',
      {
        shells: shells.map(({ triangles, uv }) => flatShell(triangles, uv)),
        options: { tile, turning, most },
      },
      share(context, i / homes.length, (i + 1) / homes.length),
    );
  let placements = await Promise.all(homes.map((home, i) => packHome(home, i)));
  if (equalDensity && homes.length > 1) {
    const densities = placements.map(([{ scale }], i) => scale * homes[i].tile.height);
    const least = Math.min(...densities);
    placements = await Promise.all(
      homes.map((home, i) =>
        densities[i] > least ? packHome(home, i, least / home.tile.height) : placements[i],
      ),
    );
  }
  return new Map(
    homes.flatMap(({ shells }, i) =>
      shells.map(({ s, uv }, k) => [s, applyPlacement(uv, placements[i][k])] as const),
    ),
  );
}

/** Packs round what is locked, which has a scale already. */
function packRound(
  document: HemDocument,
  homes: readonly Home[],
  locked: readonly number[],
  equalDensity: boolean,
): Delta {
  const scale = equalDensity ? lockedDensity(document, locked) : 1;
  const uvOf = new Map(
    homes.flatMap(({ shells }) => shells.map(({ s, uv }) => [s, uv.map((x) => scale * x)] as const)),
  );
  const next = cornerUv(document, uvOf);
  const notes = homes.flatMap(({ tile, shells }, i) => {
    const others = homes.slice(0, i).flatMap((home) => home.shells);
    const staying = [...locked, ...others.map(({ s }) => s)];
    return layRound(
      document,
      next,
      shells.map(({ s }) => s),
      staying,
      [tile],
    );
  });
  return {
    changes: [uvDifference(document, next), placedChange(document, 1)],
    notes: [...notes, ...leftLocked(locked.length), ...placingNotes(document)],
  };
}

const nothingToPack = (document: HemDocument, locked: readonly number[]): HemError =>
  locked.length > 0
    ? new LockedError(locked.map((s) => nameOfShell(document, s)))
    : new HemError('nothing-unfolded', 'Nothing to pack: unfold a shell first.');

/** Flat length per length on the model of locked shells together. */
function lockedDensity(document: HemDocument, locked: readonly number[]): number {
  const [area, flat] = locked.reduce(
    ([area, flat], s) => {
      const shell = shellOf(document, s);
      const uv = shellUv(document, shell) as Float64Array;
      return [
        area + surfaceArea(shell.positions, shell.triangles),
        flat + Math.abs(signedArea(shell.triangles, uv)),
      ];
    },
    [0, 0],
  );
  return area > 0 && flat > 0 ? Math.sqrt(flat / area) : 1;
}
