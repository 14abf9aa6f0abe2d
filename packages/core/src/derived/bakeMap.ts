import { type BakeMapName, bakeMapOf } from '../bake/maps.ts';
import { type HemDocument, plainDocument } from '../document/document.ts';
import { HemError } from '../errors.ts';
import type { Jobs } from '../jobs/index.ts';
import type { Context } from '../progress.ts';
import { frameOf, type Tile } from '../surface/tiles.ts';
import { wholeTree } from './trees.ts';

export interface BakeSettings {
  readonly map: BakeMapName;
  readonly tile: Tile;
  /** Texels along the height of the tile. */
  readonly height: number;
  /** Samples along a side of a texel. */
  readonly samples: number;
  /** Rays from each texel. */
  readonly rays: number;
  /** What is farther off does not count, as a part of the size of the model; as the map has it when absent. */
  readonly reach?: number;
  /** How far shells are carried outward, texels. */
  readonly bleed: number;
  /** Another model from which the map is made, and how far the two lie apart at most, as a part of the size of this one. */
  readonly from?: { readonly document: HemDocument; readonly distance: number };
}

export interface Baked {
  readonly width: number;
  readonly height: number;
  /** The picture as a PNG file. */
  readonly bytes: Uint8Array;
  /** Texels of which a shell covers some. */
  readonly covered: number;
  /** Places at which the other model was not met. */
  readonly missed: number;
}

/** Rows of a stretch: a stop and the picture of progress wait no longer. */
const STRETCH = 32;

/**
 * Makes a map of a tile, in stretches of rows that are worked at beside each other.
 *
 * @throws HemError when nothing lies in the tile
 * @throws StoppedError
 */
export async function bakeMap(
  document: HemDocument,
  settings: BakeSettings,
  context: Context & { readonly jobs: Jobs },
): Promise<Baked> {
  const { map: name, tile, height, from } = settings;
  const map = bakeMapOf(name);
  const frame = frameOf(tile);
  const width = Math.round(((frame[2] - frame[0]) / (frame[3] - frame[1])) * height);
  const surfaceOf = (of: HemDocument) =>
    context.jobs.run('bake-surface', { document: plainDocument(of), need: map.needs }, context);
  const surface = await surfaceOf(document);
  const other = from && (await surfaceOf(from.document));
  const { tree } = await wholeTree(from?.document ?? document, context.jobs);
  const task = {
    surface,
    map: name,
    samples: settings.samples,
    rays: settings.rays,
    reach: settings.reach ?? map.reach ?? 1,
    tree,
    ...(other && { from: { surface: other, distance: from.distance * surface.size } }),
  };
  const values = new Uint16Array(map.channels * width * height);
  const covered = new Uint8Array(width * height);
  let [done, missed] = [0, 0];
  const stretch = async (start: number): Promise<void> => {
    const to = Math.min(height, start + STRETCH);
    const rows = { frame, width, height, from: start, to };
    const part = await context.jobs.run('bake', { ...task, rows }, context);
    values.set(part.values, map.channels * width * start);
    covered.set(part.covered, width * start);
    missed += part.missed;
    done += to - start;
    context.report({ fraction: done / height });
  };
  const starts = Array.from({ length: Math.ceil(height / STRETCH) }, (_, i) => STRETCH * i);
  // As many at a time as there are threads: what waits holds no memory.
  const worker = async (): Promise<void> => {
    for (let start = starts.shift(); start !== undefined; start = starts.shift()) await stretch(start);
  };
  await Promise.all(Array.from({ length: Math.max(1, context.jobs.width) }, worker));
  const count = covered.reduce((sum, yes) => sum + yes, 0);
  if (count === 0 && missed === 0)
    throw new HemError(
      'nothing-there',
      `No shell covers the middle of a pixel of tile ${tile.number}: unfold and pack first, or make the map larger.`,
    );
  const { channels, depth, ground } = map;
  const picture = { width, height, channels, depth, values, covered, reach: settings.bleed, ground };
  const bytes = await context.jobs.run('write-map', picture, context);
  return { width, height, bytes, covered: count, missed };
}
