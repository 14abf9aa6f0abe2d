import { shellsLabel } from '../../document/shellChoice.ts';
import { HemError } from '../../errors.ts';
import { about, indices, optional, record, whole } from '../../params.ts';
import { aspectOf, placeOfTile } from '../../surface/tiles.ts';
import { operation } from '../operation.ts';
import { middleOf, moveBy, placedShells, placeShells } from './placeShells.ts';

/** Moves shells by whole tiles until their middles lie in one: where they lie in it is as it was in theirs. */
export const gatherShells = operation({
  name: 'gather-shells',
  stage: 'arrange',
  params: record({
    shells: about('shells, each by one of its faces', indices),
    tile: about('the number of the tile; the first when absent', optional(whole(1001, 9999))),
  }),
  label: ({ shells, tile }, document) =>
    `Gather ${shellsLabel(document, shells)} in tile ${tile ?? document.tiles[0].number}`,
  doing: 'Gathering',
  run(document, { shells, tile: number }) {
    const { tiles } = document;
    const tile = number === undefined ? tiles[0] : tiles.find((each) => each.number === number);
    if (!tile) throw new HemError('no-such-tile', `There is no tile ${number}: add it first.`);
    const placed = placedShells(document, shells);
    const [column, row] = placeOfTile(tile);
    const wide = aspectOf(tiles);
    return placeShells(document, placed, ({ box }) => {
      const [u, v] = middleOf(box);
      return moveBy((column - Math.floor(u / wide)) * wide, row - Math.floor(v));
    });
  },
});
