import { FILE_KINDS } from '../jobs/writeFile.ts';
import { about, choice, flag, optional, otherwise, record, whole } from '../params.ts';
import { question } from './question.ts';

/** Most pixels of a template along its height. */
const MOST_PIXELS = 16_384;

/** The model with its UVs, or the template to paint over, as a file. */
export const exportFile = question({
  name: 'export',
  params: record({
    kind: about('the kind of file, by its ending', choice(...FILE_KINDS)),
    tile: about('of the template, its UDIM number; the first when absent', optional(whole(1001, 9999))),
    size: about(
      'of the template, its height; that of its texture when absent',
      optional(whole(16, MOST_PIXELS)),
      'pixels',
    ),
    fills: about('of the template, whether shells are filled', otherwise(flag(), true)),
    edges: about('of the template, whether edges are drawn', otherwise(flag(), true)),
    numbers: about('of the template, whether shells are numbered', otherwise(flag(), true)),
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
