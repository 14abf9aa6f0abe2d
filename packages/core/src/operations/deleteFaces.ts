import Joi from 'joi';
import { type Patch, remeshChange } from '../document/patch.ts';
import { remeshed } from '../document/remesh.ts';
import { HemError } from '../errors.ts';
import { withoutFaces } from '../mesh/edit.ts';
import { knownFaces } from './known.ts';
import { type Operation, plural } from './operation.ts';
import { losses } from './repair.ts';
import { indices } from './schemas.ts';

export interface DeleteFacesParams {
  readonly faces: readonly number[];
}

/** Takes faces out of the model, and the points that only they used. */
export const deleteFaces: Operation<DeleteFacesParams> = {
  name: 'delete-faces',
  schema: Joi.object({ faces: indices }),
  label: ({ faces }) => `Delete ${plural(faces.length, 'face')}`,
  run(document, { faces }): Patch {
    const edit = withoutFaces(document.model.mesh, knownFaces(document.model.mesh, faces));
    if (edit.faceSource.length === 0) {
      throw new HemError('nothing-left', 'Nothing would be left of the model, so nothing was deleted.');
    }
    return { changes: [remeshChange(document, remeshed(document, edit))], notes: losses(document) };
  },
};
