import { withoutFaces } from '../mesh/edit.ts';
import { type Check, findingOf } from './check.ts';
import { reachable, UNSEEN } from './reachable.ts';

/** Faces that cannot be seen from anywhere outside, from either side. */
export const hiddenFaces: Check = {
  kind: 'hidden-faces',
  when: 'no ray from either side of the face leaves the model (64 directions from four places of each triangle)',
  severity: 'hint',
  thing: ['face that is never seen', 'faces that are never seen'],
  effect: 'Texture is spent on it that nobody will see.',
  find(patient, _, context) {
    const seen = reachable(patient, 'either', context);
    return findingOf({ faces: Array.from(seen.keys()).filter((f) => seen[f] === UNSEEN) });
  },
  repair: {
    label: 'Delete them',
    safe: false,
    ofFaces: true,
    run: ({ mesh }, { faces }) => withoutFaces(mesh, faces),
  },
};
