import { type HemDocument, topologyOf } from '../document/document.ts';
import { knownParts } from '../document/known.ts';
import { FILE_KINDS } from '../jobs/writeFile.ts';
import { mainKind, PART_KINDS, type PartKind, partsBy } from '../mesh/parts.ts';
import { about, choice, flag, indices, optional, otherwise, record, whole } from '../params.ts';
import { question } from './question.ts';

/** Most pixels of a template along its height. */
const MOST_PIXELS = 16_384;

/** The model with its UVs, or the template to paint over, as a file. */
export const exportFile = question({
  name: 'export',
  params: record({
    kind: about('the kind of file, by its ending', choice(...FILE_KINDS)),
    parts: about(
      'of a model, numbers of the parts that are written, by `partKind`; all when absent',
      optional(indices),
    ),
    partKind: about(
      'what parts are told apart by; what tells most of the model when absent',
      optional(choice(...PART_KINDS)),
    ),
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
  async answer(document, { kind, parts, partKind, ...chosen }, context) {
    const { model, tiles } = document;
    const { name } = model;
    if (kind !== 'svg') {
      const without = parts ? facesOfOthers(document, partKind ?? mainKind(model), parts) : [];
      const file = await context.jobs.run(
        'write',
        { document, fileName: `${name}.${kind}`, without },
        context,
      );
      return { fileName: file.name, bytes: file.bytes };
    }
    const tile = tiles.find(({ number }) => number === chosen.tile) ?? tiles[0];
    const template = {
      ...chosen,
      tile: tile.number,
      size: chosen.size ?? Math.min(tile.height, MOST_PIXELS),
    };
    const fileName = `${name}-template${tiles.length > 1 ? `.${tile.number}` : ''}.svg`;
    const { bytes } = await context.jobs.run('write', { document, fileName, template }, context);
    return { fileName, bytes };
  },
});

/** Faces of all parts but some. */
function facesOfOthers({ model }: HemDocument, kind: PartKind, parts: readonly number[]): number[] {
  const { facePart, names } = partsBy(kind, model, topologyOf(model).connectivity);
  const chosen = knownParts(kind, names, parts);
  return [...facePart.keys()].filter((f) => !chosen.has(facePart[f]));
}
