import { chosenShells } from '../../document/shellChoice.ts';
import { about, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { transformUv } from '../../surface/similarity.ts';
import { boxOf } from '../../surface/uvBox.ts';
import { operation } from '../operation.ts';
import { changedShells } from './changedShells.ts';

/** Mirrors shells, each about its own middle from left to right. */
export const mirrorInPlace = operation({
  name: 'mirror-in-place',
  stage: 'arrange',
  params: record({ shells: about('shells, each by one of its faces', indices) }),
  label: ({ shells }, document) =>
    `Mirror ${plural(chosenShells(document, shells).length, 'shell')} in place`,
  doing: 'Mirroring',
  run: (document, { shells }) =>
    changedShells(document, shells, (_, uv) => {
      const [minU, , maxU] = boxOf(uv);
      return transformUv(uv, [-1, 0, 0, 1, minU + maxU, 0]);
    }),
});
