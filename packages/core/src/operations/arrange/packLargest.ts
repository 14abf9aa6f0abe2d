import type { Delta } from '../../document/delta.ts';
import { type HemDocument, shellOf, shellUv } from '../../document/document.ts';
import { uvChange } from '../../document/uvChange.ts';
import { asItLies } from '../../pack/placement.ts';
import { plural } from '../../plural.ts';
import { type StopSignal, unattended, within } from '../../progress.ts';
import type { Tile } from '../../surface/tiles.ts';
import type { OperationContext } from '../operation.ts';
import { type Home, homesOf, regionIn } from './homes.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';
import { layTile } from './layTile.ts';
import type { PackSettings } from './packSettings.ts';
import { densityOf, type Packed, placedMembers, placesNow } from './packWork.ts';

/** Packs each tile with the shells that go there, as large as they go. Where several tiles have one density, what the fullest allows goes for all. */
export async function packLargest(settings: PackSettings, context: OperationContext): Promise<Delta> {
  const { seconds } = settings;
  const signal = seconds === undefined ? context.signal : within(context.signal, seconds);
  const { document, work, equalDensity, density, spread, region, start } = settings;
  const { packed, around, boxes } = work;
  const homes = region
    ? [{ ...regionIn(document.tiles, region), shells: packed }]
    : homesOf(document, packed, boxes, spread);
  /** The scale that is wished for in a tile: the one given, or that of what stays. */
  const wished = (tile: Tile): number =>
    density !== undefined
      ? density / tile.height
      : around.length === 0
        ? Infinity
        : equalDensity
          ? densityOf(around)
          : 1;
  const shown = new Map<number, Float64Array>();
  const lay = (home: Home<Packed>, limit: number, untilLaid: StopSignal) => {
    const { shells } = home;
    const from =
      start === 'here'
        ? [
            ...placesNow(shells).map((place) => ({
              ...place,
              scale: density !== undefined ? limit : Math.min(place.scale, limit),
            })),
            ...around.map(({ uv }) => asItLies(uv)),
          ]
        : undefined;
    return layTile(
      [...shells, ...around],
      from,
      home,
      limit,
      settings,
      { ...context, signal },
      untilLaid,
      (placements) => {
        for (const [i, shell] of shells.entries())
          for (const [s, uv] of placedMembers(shell, placements[i])) shown.set(s, uv);
        context.show?.(shown);
      },
    );
  };
  let layouts = await Promise.all(homes.map((home) => lay(home, wished(home.tile), context.signal)));
  const densityAt = (i: number) => layouts[i][0].scale * homes[i].tile.height;
  for (let round = 0; equalDensity && homes.length > 1 && round < ROUNDS; round++) {
    const least = Math.min(...homes.map((_, i) => densityAt(i)));
    if (homes.every((_, i) => densityAt(i) <= least * EVEN)) break;
    layouts = await Promise.all(
      homes.map((home, i) =>
        // What was stopped is made even all the same.
        densityAt(i) > least ? lay(home, least / home.tile.height, unattended.signal) : layouts[i],
      ),
    );
  }
  const uvOf = new Map(
    homes.flatMap(({ shells }, i) => shells.flatMap((shell, k) => [...placedMembers(shell, layouts[i][k])])),
  );
  if (start === 'here' && isAsBefore(document, uvOf))
    return { changes: [], notes: ['All lies clear and at one density already.'] };
  const count = packed.reduce((sum, { members }) => sum + members.length, 0);
  const shrunk = Math.min(
    ...homes.map(({ tile }, i) => (wished(tile) < Infinity ? layouts[i][0].scale / wished(tile) : 1)),
  );
  return {
    changes: [uvChange(document, uvOf), placedChange(document, 1)],
    notes: [
      ...(shrunk < SMALLER
        ? [
            `${plural(count, 'shell')} had to be laid at ${Math.round(100 * shrunk)} % of ${
              density === undefined ? 'their size to fit beside what stays' : 'that density to fit'
            }.`,
          ]
        : []),
      ...placingNotes(document),
    ],
  };
}

/** Whether shells lie where they did, but for rounding. */
const isAsBefore = (document: HemDocument, uvOf: ReadonlyMap<number, Float64Array>): boolean =>
  [...uvOf].every(([s, uv]) => {
    const was = shellUv(document, shellOf(document, s));
    return was?.every((x, i) => Math.abs(x - uv[i]) < ROUNDING);
  });

const ROUNDING = 1e-9;

/** Tiles are laid anew so often at most until all have one density, and it is one where they differ by no more. */
const [ROUNDS, EVEN] = [3, 1 + 1e-9];
/** What is laid at less of its size is told. */
const SMALLER = 0.99;
