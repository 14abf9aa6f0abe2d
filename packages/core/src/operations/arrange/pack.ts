import { isLocked } from '../../document/constraints.ts';
import type { Delta } from '../../document/delta.ts';
import { type HemDocument, shellOf, shellUv } from '../../document/document.ts';
import { turnedAlongGrain } from '../../document/grain.ts';
import { groupOf } from '../../document/groups.ts';
import { shellBoxes } from '../../document/layout.ts';
import { LockedError } from '../../document/locks.ts';
import { chosenShells, nameOfShell } from '../../document/shellChoice.ts';
import { uvChange } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
import { joinFlats } from '../../pack/freePlaces.ts';
import type { PackShell } from '../../pack/packFlat.ts';
import { type Placement, placedUv } from '../../pack/placement.ts';
import {
  about,
  choice,
  flag,
  optional,
  otherwise,
  positive,
  record,
  type Taken,
  whichShells,
  whole,
} from '../../params.ts';
import { plural } from '../../plural.ts';
import { type StopSignal, unattended, within } from '../../progress.ts';
import { surfaceArea } from '../../surface/areas.ts';
import { triangleArea } from '../../surface/flatArea.ts';
import { sizeInWords } from '../../surface/tiles.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import { type OperationContext, operation } from '../operation.ts';
import { fillTiles } from './fillTiles.ts';
import { type Guest, type Home, homesOf, SPREADS } from './homes.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';
import { layTile } from './layTile.ts';

/** Angles by which shells may be turned, radians; those of a grain line were turned along it before. */
const TURNINGS = {
  none: [0],
  half: turns(2),
  quarter: turns(4),
  eighth: turns(8),
  free: 'free',
  grain: [0],
} as const satisfies Record<string, PackShell['turning']>;

function turns(count: number): readonly number[] {
  return Array.from({ length: count }, (_, i) => (2 * Math.PI * i) / count);
}

/** Rounds that take about as long as an artist waits without being asked. */
const STEPS = 24;

const params = record({
  shells: about('which shells are packed; the others stay, and are gone round', whichShells),
  turning: about(
    'how shells may be turned: not at all, by a half, a quarter or an eighth of a turn, freely, or along their grain',
    otherwise(choice('none', 'half', 'quarter', 'eighth', 'free', 'grain'), 'quarter'),
  ),
  equalDensity: about('whether all shells come to one texture scale, in all tiles', otherwise(flag(), true)),
  density: about(
    'texture scale that all come to, in as many tiles as that needs; as large as they go when absent',
    optional(positive()),
    'texels a unit',
  ),
  spread: about(
    'to which tile each shell goes: where it lies, or evenly over all, one by one or by part or material',
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
  label: (_, { tiles }) =>
    tiles.length > 1
      ? `Pack ${tiles.length} tiles`
      : `Pack with ${tiles[0].padding} px padding at ${sizeInWords(tiles[0])} px`,
  doing: 'Packing',
  figure: (used) => `${Math.round(1000 * used) / 10} % of the tile used`,
  async run(document, given, context) {
    const work = workOf(document, given);
    const settings = { ...given, document, work };
    return given.density === undefined
      ? asLargeAsTheyGo(settings, context)
      : atDensity(settings, given.density, context);
  },
});

/** One shell, or several that are kept together, at the scale it has to the others. */
interface Packed extends PackShell, Guest {
  /** Each shell of it, and how many of its vertices are that one's. */
  readonly members: readonly { readonly s: number; readonly vertices: number }[];
}

interface Work {
  readonly packed: readonly Packed[];
  /** What stays where it is. */
  readonly around: readonly Packed[];
  readonly boxes: readonly (UvBox | undefined)[];
}

function workOf(document: HemDocument, given: Taken<typeof params>): Work {
  const boxes = shellBoxes(document);
  const chosen = new Set(chosenShells(document, given.shells));
  const flat = [...boxes.keys()].filter((s) => boxes[s]);
  const locked = new Set(flat.filter((s) => isLocked(document, s)));
  const blocks = blocksOf(document, flat);
  // What is kept together stays where one of it does.
  const packed = blocks.filter((block) => block.every((s) => chosen.has(s) && !locked.has(s)));
  if (packed.length === 0 && locked.size > 0)
    throw new LockedError([...locked].map((s) => nameOfShell(document, s)));
  if (packed.length === 0) throw new HemError('nothing-unfolded', 'Nothing to pack: unfold a shell first.');
  const isPacked = new Set(packed.flat());
  return {
    packed: packed.map((block) => scaled(document, laid(document, block), given)),
    around: flat.filter((s) => !isPacked.has(s)).map((s) => ({ ...laid(document, [s]), locked: true })),
    boxes,
  };
}

/** Shells that are kept together, each group a list; others by themselves. */
function blocksOf(document: HemDocument, shells: readonly number[]): number[][] {
  const groups = new Map<number, number[]>();
  for (const s of shells) {
    const key = groupOf(document, s) || -1 - s;
    const group = groups.get(key);
    if (group) group.push(s);
    else groups.set(key, [s]);
  }
  return [...groups.values()];
}

/** Shells as they lie. */
function laid(document: HemDocument, block: readonly number[]): Packed {
  const shells = block.map((s) => shellOf(document, s));
  const uvs = shells.map((shell) => shellUv(document, shell) as Float64Array);
  const members = block.map((s, i) => ({ s, vertices: uvs[i].length / 2 }));
  let first = 0;
  const triangles = shells.flatMap((shell, i) => {
    const own = Array.from(shell.triangles, (v) => v + first);
    first += members[i].vertices;
    return own;
  });
  return {
    s: block[0],
    members,
    triangles: Uint32Array.from(triangles),
    uv: joinFlats(uvs),
    area: shells.reduce((sum, { positions, triangles }) => sum + surfaceArea(positions, triangles), 0),
    turning: [0],
  };
}

/** What is packed, as it may be turned, at its size on the model where all come to one scale. */
function scaled(document: HemDocument, packed: Packed, given: Taken<typeof params>): Packed {
  const { s, members, triangles, uv, area } = packed;
  const isAlone = members.length === 1;
  const turned =
    given.turning === 'grain' && isAlone ? turnedAlongGrain(document, s, shellOf(document, s), uv) : uv;
  const isScaled = given.equalDensity || given.density !== undefined;
  const size = sizeOf(packed);
  const factor = isScaled && size > 0 && area > 0 ? Math.sqrt(area / size) : 1;
  return { ...packed, triangles, uv: turned.map((x) => x * factor), turning: TURNINGS[given.turning] };
}

/** New UVs of each shell of what was packed. */
function* placedMembers(
  { members, uv }: Packed,
  placement: Placement,
): Generator<[s: number, uv: Float64Array]> {
  const all = placedUv(uv, placement);
  let first = 0;
  for (const { s, vertices } of members) {
    yield [s, all.slice(first, first + 2 * vertices)];
    first += 2 * vertices;
  }
}

interface Settings extends Taken<typeof params> {
  readonly document: HemDocument;
  readonly work: Work;
}

/** Each tile with the shells that lie there. Where several tiles have one density, what the fullest allows goes for all. */
async function asLargeAsTheyGo(settings: Settings, context: OperationContext): Promise<Delta> {
  const { seconds } = settings;
  const signal = seconds === undefined ? context.signal : within(context.signal, seconds);
  const { document, work, equalDensity, spread } = settings;
  const { packed, around, boxes } = work;
  const homes = homesOf(document, packed, boxes, spread);
  /** Scale of what stays, which the others come to. */
  const most = around.length === 0 ? Infinity : equalDensity ? densityOf(around) : 1;
  const shown = new Map<number, Float64Array>();
  const lay = ({ tile, shells }: Home<Packed>, limit: number, untilLaid: StopSignal) =>
    layTile(
      [...shells, ...around],
      tile,
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
  let layouts = await Promise.all(homes.map((home) => lay(home, most, context.signal)));
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
  const count = packed.reduce((sum, { members }) => sum + members.length, 0);
  const shrunk = around.length > 0 ? Math.min(...homes.map((_, i) => layouts[i][0].scale)) / most : 1;
  return {
    changes: [uvChange(document, uvOf), placedChange(document, 1)],
    notes: [
      ...(shrunk < SMALLER
        ? [
            `${plural(count, 'shell')} had to be laid at ${Math.round(100 * shrunk)} % of their size to fit beside what stays.`,
          ]
        : []),
      ...placingNotes(document),
    ],
  };
}

/** Tiles are laid anew so often at most until all have one density, and it is one where they differ by no more. */
const [ROUNDS, EVEN] = [3, 1 + 1e-9];
/** What is laid at less of its size is told. */
const SMALLER = 0.99;

/** Area in the flat, on whichever side it lies. */
function sizeOf({ triangles, uv }: Packed): number {
  let sum = 0;
  for (let t = 0; t < triangles.length / 3; t++) sum += Math.abs(triangleArea(triangles, uv, t));
  return sum;
}

/** Flat length per length on the model of shells together. */
function densityOf(shells: readonly Packed[]): number {
  const [area, flat] = shells.reduce(
    ([area, flat], shell) => [area + shell.area, flat + sizeOf(shell)],
    [0, 0],
  );
  return area > 0 && flat > 0 ? Math.sqrt(flat / area) : 1;
}

async function atDensity(
  { document, work: { packed, around } }: Settings,
  density: number,
  context: OperationContext,
): Promise<Delta> {
  const { placements, tiles } = await fillTiles(packed, around, document.tiles, density, context);
  const uvOf = new Map(packed.flatMap((shell, i) => [...placedMembers(shell, placements[i])]));
  const added = tiles.length - document.tiles.length;
  return {
    changes: [
      ...(added > 0
        ? [{ kind: 'value', field: 'tiles', before: document.tiles, after: tiles } as const]
        : []),
      uvChange(document, uvOf),
      placedChange(document, 1),
    ],
    notes: [
      ...(added > 0 ? [`${plural(added, 'tile')} added: ${tiles.length} hold all at this density.`] : []),
      ...placingNotes(document),
    ],
  };
}
