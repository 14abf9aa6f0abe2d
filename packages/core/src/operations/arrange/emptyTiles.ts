import type { PackShell } from '../../pack/packShell.ts';
import { asItLies, type Placement } from '../../pack/placement.ts';
import { frameOf } from '../../surface/tiles.ts';
import { boxOf } from '../../surface/uvBox.ts';
import type { OperationContext } from '../operation.ts';
import type { Filled } from './fillTiles.ts';
import { type Effort, placeOptions } from './layTile.ts';

/** Rounds in which one shell is tried in one tile, at most. */
const MOST_ROUNDS = 400;

/**
 * Takes away tiles, the last one first, as long as all that lies there finds room in those before it.
 *
 * @param around  what lies in tiles already and stays
 * @param kept  so many tiles stay, whatever lies there
 * @param density  texels a unit of the model
 */
export async function emptyTiles<S extends PackShell>(
  filled: Filled<S>,
  around: readonly PackShell[],
  kept: number,
  density: number,
  effort: Effort,
  context: OperationContext,
): Promise<Filled<S>> {
  let best = filled;
  while (best.tiles.length > kept && !context.signal.aborted) {
    const fewer = await emptyLast(best, around, density, effort, context);
    if (!fewer) break;
    best = fewer;
  }
  return best;
}

/** @returns undefined where one shell of the last tile finds no room */
async function emptyLast<S extends PackShell>(
  { tiles, shells, shrunk, ...filled }: Filled<S>,
  around: readonly PackShell[],
  density: number,
  { steps, seed }: Effort,
  { jobs, signal, report }: OperationContext,
): Promise<Filled<S> | undefined> {
  const placements = [...filled.placements];
  const tileOf = [...filled.tileOf];
  const last = tiles.length - 1;
  const lies = around.map(({ uv }) => asItLies(uv));
  const size = shells.map(({ uv }) => extentOf(uv));
  const homeless = shells.flatMap((_, i) => (tileOf[i] === last ? [i] : []));
  homeless.sort((a, b) => size[b] - size[a]);
  let rounds = 0;
  for (const i of homeless) {
    let placed: readonly Placement[] | undefined;
    for (let t = 0; t < last && !placed && !signal.aborted; t++) {
      const there = shells.flatMap((_, k) => (tileOf[k] === t ? [k] : []));
      const options = {
        ...placeOptions({ tile: tiles[t], frame: frameOf(tiles[t]) }),
        most: density / tiles[t].height,
        rounds: Math.min(steps, MOST_ROUNDS),
        seed: seed + t,
      };
      placed = await jobs.run(
        'pack-into',
        {
          shells: [...around, ...there.map((k) => shells[k]), shells[i]],
          start: [...lies, ...there.map((k) => placements[k])],
          options,
        },
        { signal, report() {} },
      );
      rounds += options.rounds;
      report({ rounds });
      if (!placed) continue;
      tileOf[i] = t;
      [...there, i].forEach((k, n) => {
        placements[k] = (placed as readonly Placement[])[around.length + n];
      });
    }
    if (!placed) return undefined;
  }
  return { shells, placements, tileOf, shrunk, tiles: tiles.slice(0, last) };
}

/** The longer side of a shell. */
function extentOf(uv: Float64Array): number {
  const [minU, minV, maxU, maxV] = boxOf(uv);
  return Math.max(maxU - minU, maxV - minV);
}
