import type { HemDocument } from '../document/document.ts';
import { type Remesh, remeshed } from '../document/remesh.ts';
import { HemError } from '../errors.ts';
import { withoutFaces } from '../mesh/edit.ts';
import type { Job } from './job.ts';

/** The change that takes faces out of a model, and the points that only they used. */
export const removeFaces: Job<
  'remove-faces',
  { readonly document: HemDocument; readonly faces: readonly number[] },
  Remesh
> = {
  name: 'remove-faces',
  run({ document, faces }) {
    const edit = withoutFaces(document.model.mesh, faces);
    if (edit.faceSource.length === 0) {
      throw new HemError('nothing-left', 'Nothing would be left of the model, so nothing was deleted.');
    }
    return remeshed(document, edit);
  },
};
