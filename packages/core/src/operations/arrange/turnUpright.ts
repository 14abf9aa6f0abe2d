import { shellsOf } from '../../document/document.ts';
import { turnedAlongGrain } from '../../document/grain.ts';
import { chosenShells } from '../../document/shellChoice.ts';
import { about, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { operation } from '../operation.ts';
import { clearlyChanged } from './changedShells.ts';

/** Turns shells about their middles so that their grain, or what is up on the model, runs up on the texture. */
export const turnUpright = operation({
  name: 'turn-upright',
  stage: 'arrange',
  params: record({ shells: about('shells, each by one of its faces', indices) }),
  label: ({ shells }, document) => `Turn ${plural(chosenShells(document, shells).length, 'shell')} upright`,
  doing: 'Turning',
  run: (document, { shells }) =>
    clearlyChanged(document, shells, (shell, uv) =>
      turnedAlongGrain(document, shellsOf(document).faceShell[shell.triangleFace[0]], shell, uv),
    ),
});
