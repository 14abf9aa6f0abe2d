import { HemError } from '../../errors.ts';
import { about, indices, record } from '../../params.ts';
import { operation } from '../operation.ts';
import { middleOf, moveBy, placedShells, placeShells } from './placeShells.ts';

/** Two shells change places: each comes to lie with its middle where that of the other was. */
export const swapShells = operation({
  name: 'swap-shells',
  stage: 'arrange',
  params: record({ shells: about('two shells, each by one of its faces', indices) }),
  label: () => 'Swap two shells',
  doing: 'Swapping',
  run(document, { shells }) {
    const placed = placedShells(document, shells, 2);
    if (placed.length > 2)
      throw new HemError('too-many-shells', `Only two shells change places, not ${placed.length}.`);
    return placeShells(document, placed, ({ box }, i) => {
      const [from, to] = [middleOf(box), middleOf(placed[1 - i].box)];
      return moveBy(to[0] - from[0], to[1] - from[1]);
    });
  },
});
