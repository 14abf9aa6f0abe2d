import { knownPatch, namedPatches } from '../../document/facePatches.ts';
import { HemError } from '../../errors.ts';
import { about, record, whole, words } from '../../params.ts';
import { operation } from '../operation.ts';

/** Gives a patch another name. */
export const namePatch = operation({
  name: 'name-patch',
  stage: 'cut',
  params: record({
    patch: about('the patch, by number from 1', whole(1)),
    name: about('its new name', words(60)),
  }),
  label: ({ name }) => `Rename a patch to “${name}”`,
  doing: 'Renaming a patch',
  nonBlocking: true,
  run(document, { patch, name }) {
    knownPatch(document, patch);
    if (document.patchNames.some((other, i) => other === name && i !== patch - 1))
      throw new HemError('name-taken', `There is a patch “${name}” already.`, [patch]);
    return { changes: [namedPatches(document, [[patch, name]])], notes: [] };
  },
});
