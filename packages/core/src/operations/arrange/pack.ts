import type { Delta } from '../../document/delta.ts';
import { type HemDocument, shellOf, shellUv } from '../../document/document.ts';
import { uvChange } from '../../document/uvChange.ts';
import { asItLies } from '../../pack/placement.ts';
import {
  about,
  choice,
  flag,
  optional,
  otherwise,
  positive,
  record,
  type Taken,
  tuple,
  whichShells,
  whole,
} from '../../params.ts';
import { plural } from '../../plural.ts';
import { type StopSignal, unattended, within } from '../../progress.ts';
import { sizeInWords, type Tile } from '../../surface/tiles.ts';
import { type OperationContext, operation } from '../operation.ts';
import { emptyTiles } from './emptyTiles.ts';
import { fillTiles } from './fillTiles.ts';
import { type Home, homesOf, regionIn, SPREADS } from './homes.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';
import { KINDS } from './kinds.ts';
import { layTile } from './layTile.ts';
import { densityOf, type Packed, type PackWork, packWork, placedMembers, placesNow } from './packWork.ts';

/** Rounds that take about as long as an artist waits without being asked. */
const STEPS = 24;

const params = record({
  shells: about('which shells are packed; the others stay, and are gone round', whichShells),
  turning: about(
    'how shells may be turned: not at all, by a half, a quarter or an eighth of a turn, freely, or along their grain',
    otherwise(choice('none', 'half', 'quarter', 'eighth', 'free', 'grain'), 'quarter'),
  ),
  equalDensity: about('whether all shells come to one texture scale, in all tiles', otherwise(flag(), true)),
  start: about(
    'whether the layout begins afresh, or here: from where shells lie, not turned and moved no farther than they must be',
    otherwise(choice('afresh', 'here'), 'afresh'),
  ),
  near: about(
    'which shells are laid near each other: those of a part, of a material or of a patch',
    otherwise(choice('none', ...KINDS), 'none'),
  ),
  region: about(
    'what is filled instead of the tiles: left, low, right and high of a box in one of them, in heights of a tile',
    optional(tuple(4)),
  ),
  density: about(
    'texture scale that all come to, in as many tiles as that needs; as large as they go when absent',
    optional(positive()),
    'texels a unit',
  ),
  spread: about(
    'to which tile each shell goes: where it lies, or evenly over all, one by one or by part, material or patch',
    otherwise(choice(...SPREADS), 'stay'),
  ),
  steps: about('rounds in which the layout is made better', otherwise(whole(0, 1_000_000), STEPS)),
  seconds: about('when it stops and keeps the best so far', optional(positive()), 's'),
  seed: about('where the search begins: another number, another layout', otherwise(whole(0, 1_000_000), 1)),
});

/**
 * Lays unfolded shells into tiles, as large as they go or at a density, without overlap; what lies in no tile goes into the first. Texture
 * sizes and padding are those of the tiles.
 */
export const pack = operation({
  name: 'pack',
  stage: 'arrange',
  params,
  label: ({ start, region }, { tiles }) =>
    start === 'here'
      ? `Tidy ${region ? 'a region' : plural(tiles.length, 'tile')}`
      : region
        ? 'Pack into a region'
        : tiles.length > 1
          ? `Pack ${tiles.length} tiles`
          : `Pack with ${tiles[0].padding} px padding at ${sizeInWords(tiles[0])} px`,
  doing: 'Packing',
  figure: (used) => `${Math.round(1000 * used) / 10} % of the tile used`,
  async run(document, given, context) {
    const work = packWork(document, given);
    const settings = { ...given, document, work };
    const mayAddTiles = given.start === 'afresh' && given.region === undefined;
    return given.density !== undefined && mayAddTiles
      ? atDensity(settings, given.density, context)
      : asLargeAsTheyGo(settings, context);
  },
});

interface Settings extends Taken<typeof params> {
  readonly document: HemDocument;
  readonly work: PackWork;
}

/** Each tile with the shells that lie there. Where several tiles have one density, what the fullest allows goes for all. */
async function asLargeAsTheyGo(settings: Settings, context: OperationContext): Promise<Delta> {
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

async function atDensity(settings: Settings, density: number, context: OperationContext): Promise<Delta> {
  const { document, work, seconds } = settings;
  const { packed, around } = work;
  const filled = await fillTiles(packed, around, document.tiles, density, context);
  const signal = seconds === undefined ? context.signal : within(context.signal, seconds);
  const { shells, placements, tiles, shrunk } = await emptyTiles(
    filled,
    around,
    document.tiles.length,
    density,
    settings,
    { ...context, signal },
  );
  const uvOf = new Map(shells.flatMap((shell, i) => [...placedMembers(shell, placements[i])]));
  const added = tiles.length - document.tiles.length;
  return {
    changes: [
      ...(added > 0
        ? [
            {
              kind: 'value',
              field: 'tiles',
              before: document.tiles,
              after: tiles.toSorted((a, b) => a.number - b.number),
            } as const,
          ]
        : []),
      uvChange(document, uvOf),
      placedChange(document, 1),
    ],
    notes: [
      ...(added > 0 ? [`${plural(added, 'tile')} added: ${tiles.length} hold all at this density.`] : []),
      ...shrunkNotes([...shrunk].map(([i, part]) => [shells[i].s, part])),
      ...placingNotes(document),
    ],
  };
}

/** So many shells are named; of more the number is told. */
const NAMED = 3;

/** What is said of shells that are larger than a tile. */
function shrunkNotes(shrunk: readonly (readonly [s: number, part: number])[]): string[] {
  const percent = (part: number): string => `${Math.round(100 * part)} %`;
  if (shrunk.length > NAMED) {
    const least = Math.min(...shrunk.map(([, part]) => part));
    return [
      `${shrunk.length} shells are larger than a tile at this density, and were laid smaller, down to ${percent(least)}.`,
    ];
  }
  return shrunk.map(
    ([s, part]) =>
      `Shell ${s + 1} is larger than a tile at this density, and was laid at ${percent(part)} of it.`,
  );
}
