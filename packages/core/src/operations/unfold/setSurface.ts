import { markChange } from '../../document/delta.ts';
import { shellsOf } from '../../document/document.ts';
import { knownFaces } from '../../document/known.ts';
import { about, choice, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { reflatten } from '../cut/reflatten.ts';
import { operation } from '../operation.ts';
import { laidAnew } from './laidAnew.ts';

/** Which surface of some faces is meant: the mesh itself, or the smoothed one of which it is the cage. Stretch is told of it, too. */
export const setSurface = operation({
  name: 'set-surface',
  stage: 'unfold',
  params: record({
    faces: about('faces, by number', indices),
    surface: about(
      'the surface that is flattened: the model as it is, or as it renders when smoothed',
      choice('cage', 'smoothed'),
    ),
  }),
  label: ({ faces, surface }) =>
    surface === 'smoothed'
      ? `Flatten ${plural(faces.length, 'face')} as they look smoothed`
      : `Flatten ${plural(faces.length, 'face')} as they are`,
  doing: 'Smoothing',
  followUps: reflatten,
  run(document, { faces, surface }) {
    knownFaces(document.model.mesh, faces);
    const mark = markChange(document, 'smoothed', faces, surface === 'smoothed' ? 1 : 0);
    if (mark.index.length === 0) return { changes: [], notes: ['Nothing was changed: it is so already.'] };
    const shells = [...new Set(mark.index)].map((f) => shellsOf(document).faceShell[f]);
    return { changes: [mark, laidAnew(document, [...new Set(shells)])], notes: [] };
  },
});
