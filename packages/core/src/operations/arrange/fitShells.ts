import { shellsLabel } from '../../document/shellChoice.ts';
import { HemError } from '../../errors.ts';
import { about, indices, optional, record, tuple } from '../../params.ts';
import { frameOf, gapOf, tileOf } from '../../surface/tiles.ts';
import { operation } from '../operation.ts';
import { regionIn } from './homes.ts';
import { boxAround, placedShells, placeShells } from './placeShells.ts';

/** Scales shells together, as they lie to one another, until they fill their tile or a region of it but for the padding. */
export const fitShells = operation({
  name: 'fit-shells',
  stage: 'arrange',
  params: record({
    shells: about('shells, each by one of its faces', indices),
    region: about(
      'what is filled instead of the tile: left, low, right and high of a box in one, in heights of a tile',
      optional(tuple(4)),
    ),
  }),
  label: ({ shells, region }, document) =>
    `Fit ${shellsLabel(document, shells)} into ${region ? 'a region' : 'the tile'}`,
  doing: 'Fitting',
  run(document, { shells, region }) {
    const placed = placedShells(document, shells);
    const box = boxAround(placed.map((shell) => shell.box));
    const own = tileOf(document.tiles, box) ?? document.tiles[0];
    const { tile, frame } = region ? regionIn(document.tiles, region) : { tile: own, frame: frameOf(own) };
    const gap = gapOf(tile);
    const [wide, tall] = [frame[2] - frame[0] - 2 * gap, frame[3] - frame[1] - 2 * gap];
    const [width, height] = [box[2] - box[0], box[3] - box[1]];
    if (wide <= 0 || tall <= 0 || Math.max(width, height) <= 0)
      throw new HemError('no-room', 'The padding leaves no room there, or the shells have no size.');
    const scale = Math.min(wide / width, tall / height);
    const [u, v] = [(frame[0] + frame[2]) / 2, (frame[1] + frame[3]) / 2];
    return placeShells(document, placed, () => [
      scale,
      0,
      0,
      scale,
      u - (scale * (box[0] + box[2])) / 2,
      v - (scale * (box[1] + box[3])) / 2,
    ]);
  },
});
