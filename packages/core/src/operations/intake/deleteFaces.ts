import { plainDocument } from '../../document/document.ts';
import { knownFaces } from '../../document/known.ts';
import { about, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { operation } from '../operation.ts';
import { losses } from './losses.ts';

/** Takes faces out of the model, and the points that only they used. */
export const deleteFaces = operation({
  name: 'delete-faces',
  stage: 'intake',
  params: record({ faces: about('faces that go, by number', indices) }),
  label: ({ faces }) => `Delete ${plural(faces.length, 'face')}`,
  doing: 'Deleting faces',
  async run(document, { faces }, context) {
    knownFaces(document.model.mesh, faces);
    const change = await context.jobs.run(
      'remove-faces',
      { document: plainDocument(document), faces },
      context,
    );
    return { changes: [change], notes: losses(document) };
  },
});
