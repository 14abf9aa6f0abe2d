import { plural } from '../../plural.ts';
import { sizeInWords } from '../../surface/tiles.ts';
import { operation } from '../operation.ts';
import { packAtDensity } from './packAtDensity.ts';
import { packLargest } from './packLargest.ts';
import { packParams } from './packSettings.ts';
import { packWork } from './packWork.ts';

/**
 * Lays unfolded shells into tiles, as large as they go or at a density, without overlap; what lies in no tile goes into the first. Texture
 * sizes and padding are those of the tiles.
 */
export const pack = operation({
  name: 'pack',
  stage: 'arrange',
  params: packParams,
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
      ? packAtDensity(settings, given.density, context)
      : packLargest(settings, context);
  },
});
