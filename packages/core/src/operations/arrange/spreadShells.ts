import { shellsLabel } from '../../document/shellChoice.ts';
import { about, choice, indices, number, optional, record } from '../../params.ts';
import { texelsAt } from '../../surface/tiles.ts';
import { operation } from '../operation.ts';
import { moveBy, placedShells, placeShells } from './placeShells.ts';

/** Moves shells along u or v so that the gaps between their boxes are even: between the first and the last, or as wide as is said. */
export const spreadShells = operation({
  name: 'spread-shells',
  stage: 'arrange',
  params: record({
    shells: about('shells, each by one of its faces', indices),
    along: about('which way they are spread: across or up', choice('u', 'v')),
    gap: about(
      'how wide gaps are; even between the first and the last when absent',
      optional(number(0)),
      'texels',
    ),
  }),
  label: ({ shells, along }, document) =>
    `Spread ${shellsLabel(document, shells)} ${along === 'u' ? 'across' : 'up'}`,
  doing: 'Spreading',
  run(document, { shells, along, gap }) {
    const k = along === 'u' ? 0 : 1;
    const placed = [...placedShells(document, shells, gap === undefined ? 3 : 2)].sort(
      (a, b) => a.box[k] + a.box[k + 2] - b.box[k] - b.box[k + 2] || a.s - b.s,
    );
    const [first] = placed;
    const last = placed[placed.length - 1];
    const taken = placed.reduce((sum, { box }) => sum + box[k + 2] - box[k], 0);
    const even =
      gap === undefined
        ? (last.box[k + 2] - first.box[k] - taken) / (placed.length - 1)
        : gap / texelsAt(document.tiles, first.box);
    let next = first.box[k];
    return placeShells(document, placed, ({ box }) => {
      const by = next - box[k];
      next += box[k + 2] - box[k] + even;
      return k === 0 ? moveBy(by, 0) : moveBy(0, by);
    });
  },
});
