import { shellsLabel } from '../../document/shellChoice.ts';
import { about, choice, indices, otherwise, record } from '../../params.ts';
import { frameOf, gapOf, tileOf } from '../../surface/tiles.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import { operation } from '../operation.ts';
import { boxAround, moveBy, placedShells, placeShells } from './placeShells.ts';

const SIDES = {
  left: ['the left', 0, 0],
  right: ['the right', 0, 2],
  bottom: ['below', 1, 1],
  top: ['the top', 1, 3],
  'middle-u': ['the middle across', 0, undefined],
  'middle-v': ['the middle up', 1, undefined],
} as const satisfies Record<string, readonly [words: string, axis: 0 | 1, side: 0 | 1 | 2 | 3 | undefined]>;

type Side = keyof typeof SIDES;

/** Moves shells so that a side of their boxes, or their middles, come to one line. */
export const alignShells = operation({
  name: 'align-shells',
  stage: 'arrange',
  params: record({
    shells: about('shells, each by one of its faces', indices),
    to: about('which side of their boxes, or which middle', choice(...(Object.keys(SIDES) as Side[]))),
    within: about(
      'what that is the side of: the box round them all, or the tile with its padding',
      otherwise(choice('selection', 'tile'), 'selection'),
    ),
  }),
  label: ({ shells, to }, document) => `Align ${shellsLabel(document, shells)} to ${SIDES[to][0]}`,
  doing: 'Aligning',
  run(document, { shells, to, within }) {
    const placed = placedShells(document, shells, within === 'tile' ? 1 : 2);
    const all = boxAround(placed.map(({ box }) => box));
    const tile = tileOf(document.tiles, all) ?? document.tiles[0];
    const gap = gapOf(tile);
    const [left, low, right, high] = frameOf(tile);
    const round: UvBox = within === 'tile' ? [left + gap, low + gap, right - gap, high - gap] : all;
    const [, axis, side] = SIDES[to];
    const lineOf = (box: UvBox): number => (side === undefined ? (box[axis] + box[axis + 2]) / 2 : box[side]);
    return placeShells(document, placed, ({ box }) => {
      const by = lineOf(round) - lineOf(box);
      return axis === 0 ? moveBy(by, 0) : moveBy(0, by);
    });
  },
});
