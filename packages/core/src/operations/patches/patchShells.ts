import { applyDelta, type Change, markChange } from '../../document/delta.ts';
import { shellsOf } from '../../document/document.ts';
import { freePatches, namedPatches } from '../../document/facePatches.ts';
import { chosenShells, shellsLabel } from '../../document/shellChoice.ts';
import { record, whichShells } from '../../params.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { operation } from '../operation.ts';

/** Each of some shells becomes a patch of its own: it is remembered, however it is cut and sewn later. */
export const patchShells = operation({
  name: 'patch-shells',
  stage: 'cut',
  params: record({ shells: whichShells }),
  label: ({ shells }, document) => `Make ${shellsLabel(document, shells)} patches`,
  doing: 'Making patches of shells',
  nonBlocking: true,
  run(document, { shells: which }) {
    const chosen = chosenShells(document, which);
    const numbers = freePatches(document, chosen.length);
    const changes: Change[] = [
      namedPatches(
        document,
        numbers.map((patch) => [patch, `Patch ${patch}`]),
      ),
    ];
    let now = document;
    chosen.forEach((s, i) => {
      const change = markChange(now, 'patches', facesOfShell(shellsOf(document), s), numbers[i]);
      changes.push(change);
      now = applyDelta(now, { changes: [change], notes: [] });
    });
    return { changes, notes: [] };
  },
});
