import { FILE_KINDS } from '../jobs/writeFile.ts';
import { choice, flag, optional, otherwise, record, whole } from '../params.ts';
import { question } from './question.ts';

/** Most pixels of a template along its height. */
const MOST_PIXELS = 16_384;

/** The model with its UVs, or the template to paint over, as a file. */
export const exportFile = question({
  name: 'export',
  params: record({
    kind: choice(...FILE_KINDS),
    /** Of the template: which tile, the first when absent; pixels of its height, those of its texture when absent; and what is drawn. */
    tile: optional(whole(1001, 9999)),
    size: optional(whole(16, MOST_PIXELS)),
    fills: otherwise(flag(), true),
    edges: otherwise(flag(), true),
    numbers: otherwise(flag(), true),
  }),
  several: true,
  async answer(document, { kind, ...chosen }, context) {
    const { tiles } = document;
    const tile = tiles.find(({ number }) => number === chosen.tile) ?? tiles[0];
    const template = {
      ...chosen,
      tile: tile.number,
      size: chosen.size ?? Math.min(tile.height, MOST_PIXELS),
    };
    const bytes = await context.jobs.run('write', { document, kind, template }, context);
    const { name } = document.model;
    const ofTile = tiles.length > 1 ? `.${tile.number}` : '';
    return { fileName: kind === 'svg' ? `${name}-template${ofTile}.svg` : `${name}.${kind}`, bytes };
  },
});
