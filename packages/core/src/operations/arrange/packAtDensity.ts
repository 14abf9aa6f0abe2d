import type { Delta } from '../../document/delta.ts';
import { uvChange } from '../../document/uvChange.ts';
import { plural } from '../../plural.ts';
import { within } from '../../progress.ts';
import type { OperationContext } from '../operation.ts';
import { emptyTiles } from './emptyTiles.ts';
import { fillTiles } from './fillTiles.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';
import type { PackSettings } from './packSettings.ts';
import { placedMembers } from './packWork.ts';

/** Packs shells at a density, in as many tiles as that needs: those there are, and more like the last of them. */
export async function packAtDensity(
  settings: PackSettings,
  density: number,
  context: OperationContext,
): Promise<Delta> {
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
