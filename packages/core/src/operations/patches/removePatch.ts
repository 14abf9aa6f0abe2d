import { markChange } from '../../document/delta.ts';
import { knownPatch, namedPatches } from '../../document/facePatches.ts';
import { about, record, whole } from '../../params.ts';
import { operation } from '../operation.ts';

/** Takes a patch off the list; its faces, and whatever seams were made of it, stay. */
export const removePatch = operation({
  name: 'remove-patch',
  stage: 'cut',
  params: record({ patch: about('the patch, by number from 1', whole(1)) }),
  label: ({ patch }, { patchNames }) => `Remove patch “${patchNames[patch - 1] ?? patch}”`,
  doing: 'Removing a patch',
  nonBlocking: true,
  run(document, { patch }) {
    knownPatch(document, patch);
    const faces = Array.from(document.patches.keys()).filter((f) => document.patches[f] === patch);
    return {
      changes: [markChange(document, 'patches', faces, 0), namedPatches(document, [[patch, '']])],
      notes: [],
    };
  },
});
