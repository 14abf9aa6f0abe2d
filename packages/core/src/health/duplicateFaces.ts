import { withoutFaces } from '../mesh/edit.ts';
import { type Check, findingOf, type Patient } from './check.ts';

/** Faces on the very same points as another face before them. */
export const duplicateFaces: Check = {
  kind: 'duplicate-faces',
  when: 'the same points as an earlier face',
  severity: 'spoils',
  thing: ['doubled face', 'doubled faces'],
  effect: 'Its edges have more than two faces, so shells are cut there, and the texture is paid for twice.',
  find: (patient) => findingOf({ faces: doubles(patient) }),
  repair: {
    label: 'Delete the doubles',
    safe: true,
    ofFaces: true,
    run: (patient, { faces }) => withoutFaces(patient.mesh, faces),
  },
};

function doubles({ mesh }: Patient): number[] {
  const seen = new Set<string>();
  const found: number[] = [];
  for (let f = 0; f + 1 < mesh.faceStart.length; f++) {
    const key = mesh.cornerVertex
      .slice(mesh.faceStart[f], mesh.faceStart[f + 1])
      .sort()
      .join(' ');
    if (seen.has(key)) found.push(f);
    else seen.add(key);
  }
  return found;
}
