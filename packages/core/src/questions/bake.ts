import { BAKE_MAP_NAMES, BAKE_MAPS, type BakeMapName } from '../bake/maps.ts';
import { bakeMap } from '../derived/bakeMap.ts';
import { about, choice, number, optional, otherwise, record, whole } from '../params.ts';
import { question } from './question.ts';

/** Most texels of a map along its height. */
export const MOST_BAKED = 8192;

/** A map for painters, made from the model, as PNG. */
export const bake = question({
  name: 'bake',
  params: record({
    map: about(
      `what it shows: ${BAKE_MAPS.map(({ name, summary }) => `\`${name}\`, ${summary}`).join('; ')}`,
      choice(...(BAKE_MAP_NAMES as [BakeMapName, ...BakeMapName[]])),
    ),
    tile: about('its UDIM number; the first when absent', optional(whole(1001, 9999))),
    size: about('its height; that of the texture when absent', optional(whole(16, MOST_BAKED)), 'pixels'),
    side: about(
      'samples along a side of each pixel, which smooth edges; labels have one',
      otherwise(whole(1, 4), 1),
    ),
    rays: about('rays from each pixel, where rays are cast', otherwise(whole(1, 4096), 64)),
    reach: about(
      'what is farther off than this does not hide anything, as a part of the size of the model; 1, and 0.25 for thickness, when absent',
      optional(number(0.001, 1)),
    ),
    bleed: about(
      'how far shells are carried outward; half of the padding when absent, and all of it at most where the next shell lies',
      optional(whole(0, 512)),
      'pixels',
    ),
  }),
  several: true,
  async answer(document, { size, bleed, ...chosen }, context) {
    const { tiles } = document;
    const tile = tiles.find(({ number: each }) => each === chosen.tile) ?? tiles[0];
    const height = size ?? Math.min(tile.height, MOST_BAKED);
    const padding = Math.ceil((tile.padding * height) / tile.height / 2);
    const baked = await bakeMap(document, { ...chosen, tile, height, bleed: bleed ?? padding }, context);
    const ofTile = tiles.length > 1 ? `.${tile.number}` : '';
    return { fileName: `${document.model.name}-${chosen.map}${ofTile}.png`, ...baked };
  },
});
