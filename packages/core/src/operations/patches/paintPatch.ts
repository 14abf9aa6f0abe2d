import Joi from 'joi';
import { markChange } from '../../document/delta.ts';
import { freePatches, knownPatch, namedPatches } from '../../document/facePatches.ts';
import { knownFaces } from '../../document/known.ts';
import { about, indices, optional, type Param, record, words } from '../../params.ts';
import { plural } from '../../plural.ts';
import { operation } from '../operation.ts';

/** Which patch: one that is there, a new one, or none. */
const which: Param<number | 'new' | 'none'> = Joi.alternatives(
  Joi.string().valid('new', 'none'),
  Joi.number().integer().min(1),
).required();

/** Faces come to a patch, or to a new one, or are taken out of theirs. A face is of one patch at most. */
export const paintPatch = operation({
  name: 'paint-patch',
  stage: 'cut',
  params: record({
    faces: about('faces, by number', indices),
    patch: about('the patch by number from 1, a new one, or none', which),
    name: about('what a new one is called; its number when absent', optional(words(60))),
  }),
  label: ({ faces, patch, name }, { patchNames }) => {
    const what = plural(faces.length, 'face');
    if (patch === 'none') return `Take ${what} out of patches`;
    if (patch === 'new') return `Make ${what} a patch${name ? `, “${name}”` : ''}`;
    return `Put ${what} in patch “${patchNames[patch - 1] ?? patch}”`;
  },
  doing: 'Painting a patch',
  nonBlocking: true,
  run(document, { faces, patch, name }) {
    knownFaces(document.model.mesh, faces);
    if (patch === 'none')
      return {
        changes: [markChange(document, 'patches', faces, 0)],
        notes: faces.some((f) => document.patches[f]) ? [] : ['None of these faces was in a patch.'],
      };
    if (patch !== 'new')
      return { changes: [markChange(document, 'patches', faces, knownPatch(document, patch))], notes: [] };
    const [next] = freePatches(document, 1);
    return {
      changes: [
        namedPatches(document, [[next, name || `Patch ${next}`]]),
        markChange(document, 'patches', faces, next),
      ],
      notes: [],
    };
  },
});
