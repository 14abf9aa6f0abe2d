import type { Change, ValueChange } from '../../document/delta.ts';
import { current, type HemDocument } from '../../document/document.ts';
import { shellBoxes } from '../../document/layout.ts';
import { uvDifference } from '../../document/uvChange.ts';
import { about, choice, otherwise, type Param, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { acrossTimes, aspectOf, isOutside, type Tile, tilesShape } from '../../surface/tiles.ts';
import { operation } from '../operation.ts';
import { moveShell } from './layAfresh.ts';

/**
 * Says which tiles the current UV set has, how large their textures are and how far apart shells should be on them. Where the shape of the
 * textures changes, either shells keep their shapes, and where they begin in their tile; or the UVs keep their places, as a file has them
 * that was made for such a texture.
 */
export const setTiles = operation({
  name: 'set-tiles',
  stage: 'arrange',
  params: record({
    tiles: about(
      'all tiles of the UV set: UDIM number, texture size and padding of each',
      tilesShape as Param<readonly Tile[]>,
    ),
    keeping: about(
      'what stays where textures get another shape: the shapes of shells, or their places in files',
      otherwise(choice('shapes', 'places'), 'shapes'),
    ),
  }),
  label: ({ tiles }, document) =>
    tiles.length === document.tiles.length
      ? 'Set the texture of the tiles'
      : `Set ${plural(tiles.length, 'tile')}`,
  doing: 'Setting tiles',
  run(document, { tiles, keeping }) {
    const value: ValueChange = { kind: 'value', field: 'tiles', before: document.tiles, after: tiles };
    const changes: Change[] = [value];
    const [before, after] = [aspectOf(document.tiles), aspectOf(tiles)];
    const { uv } = current(document);
    if (before === after) return { changes, notes: outsideNote(document, tiles, uv) };
    const next = keeping === 'places' ? acrossTimes(uv, after / before) : uv.slice();
    if (keeping === 'shapes') {
      // What fitted a wider tile fits the narrower one when it is as much smaller.
      const scale = Math.min(1, after / before);
      shellBoxes(document).forEach((box, s) => {
        if (!box) return;
        const column = Math.floor((box[0] + box[2]) / 2 / before);
        const row = Math.floor((box[1] + box[3]) / 2);
        moveShell(document, next, s, scale, [column * (after - scale * before), row * (1 - scale)]);
      });
    }
    return { changes: [...changes, uvDifference(document, next)], notes: outsideNote(document, tiles, next) };
  },
});

/** Said where shells that lay in the tiles lie outside of them now. */
function outsideNote(document: HemDocument, tiles: readonly Tile[], uv: Float64Array): string[] {
  const before = shellBoxes(document);
  const count = shellBoxes(document, uv).filter((box, s) => {
    const old = before[s];
    return box && old && isOutside(tiles, box) && !isOutside(document.tiles, old);
  }).length;
  return count === 0
    ? []
    : [`${plural(count, 'shell')} ${count === 1 ? 'lies' : 'lie'} outside the tiles now.`];
}
