import { indices, record } from '../../params.ts';
import { transformUv } from '../../surface/similarity.ts';
import { boxOf } from '../../surface/uvBox.ts';
import { turnUpright as turnedUpright } from '../../unfold/upright.ts';
import { operation, plural } from '../operation.ts';
import { chosenShells } from '../shellChoice.ts';
import { changedShells } from './changedShells.ts';

/** Turns shells about their middles so that what is up on the model is up on the texture. */
export const turnUpright = operation({
  name: 'turn-upright',
  stage: 'arrange',
  params: record({ shells: indices }),
  label: ({ shells }, document) => `Turn ${plural(chosenShells(document, shells).length, 'shell')} upright`,
  doing: 'Turning',
  run: (document, { shells }) =>
    changedShells(document, shells, (shell, uv) => {
      const turned = turnedUpright(shell, uv, document.upAxis);
      const [was, is] = [middle(uv), middle(turned)];
      return transformUv(turned, [1, 0, 0, 1, was[0] - is[0], was[1] - is[1]]);
    }),
});

function middle(uv: Float64Array): [number, number] {
  const [minU, minV, maxU, maxV] = boxOf(uv);
  return [(minU + maxU) / 2, (minV + maxV) / 2];
}
