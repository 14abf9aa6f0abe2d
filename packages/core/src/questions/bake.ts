import { BAKE_MAP_NAMES, BAKE_MAPS, type BakeMapName } from '../bake/maps.ts';
import { type BakeSettings, bakeMap } from '../derived/bakeMap.ts';
import type { HemDocument } from '../document/document.ts';
import { about, choice, number, optional, otherwise, record, type Taken, whole } from '../params.ts';
import { question } from './question.ts';

/** Most texels of a map along its height. */
export const MOST_BAKED = 8192;

const params = record({
  map: about(
    `what it shows: ${BAKE_MAPS.map(({ name, summary }) => `\`${name}\`, ${summary}`).join('; ')}`,
    choice(...(BAKE_MAP_NAMES as [BakeMapName, ...BakeMapName[]])),
  ),
  tile: about('its UDIM number; the first when absent', optional(whole(1001, 9999))),
  size: about('its height; that of the texture when absent', optional(whole(16, MOST_BAKED)), 'pixels'),
  samples: about(
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
});

export type BakeAsked = Taken<typeof params>;

/** A map for painters, made from the model, as PNG. */
export const bake = question({
  name: 'bake',
  params,
  async answer(document, asked, context) {
    const settings = tileAsked(document, asked);
    const ofTile = document.tiles.length > 1 ? `.${settings.tile.number}` : '';
    return {
      fileName: `${document.model.name}-${asked.map}${ofTile}.png`,
      ...(await bakeMap(document, settings, context)),
    };
  },
});

/** What is asked, with the tile, size and bleed that are usual. */
export function tileAsked(document: HemDocument, { size, bleed, ...asked }: BakeAsked): BakeSettings {
  const { tiles } = document;
  const tile = tiles.find(({ number: each }) => each === asked.tile) ?? tiles[0];
  const height = size ?? Math.min(tile.height, MOST_BAKED);
  const padding = Math.ceil((tile.padding * height) / tile.height / 2);
  return { ...asked, tile, height, bleed: bleed ?? padding };
}
