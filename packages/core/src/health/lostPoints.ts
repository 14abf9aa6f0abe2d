import { withoutFaces } from '../mesh/edit.ts';
import { type Check, findingOf } from './check.ts';

/** Faces with a corner to which the file gave no place: the number was not a number. */
export const lostPoints: Check = {
  kind: 'lost-points',
  when: 'the file gives a position that is not a number',
  severity: 'spoils',
  thing: ['face with a lost corner', 'faces with a lost corner'],
  effect:
    'The file gives no place for the corner; it was put in the middle of the model, and the face pulls there.',
  find: ({ model }) => {
    const lost = model.faceLost;
    return findingOf({ faces: lost ? Array.from(lost.keys()).filter((f) => lost[f]) : [] });
  },
  repair: {
    label: 'Delete them',
    safe: false,
    ofFaces: true,
    run: ({ mesh }, { faces }) => withoutFaces(mesh, faces),
  },
};
