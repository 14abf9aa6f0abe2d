import { withoutFaces } from '../mesh/edit.ts';
import { faceNormal } from '../mesh/normals.ts';
import { type Check, findingOf } from './check.ts';
import { piecesOf } from './pieces.ts';

/** A crumb has less than this part of the surface of the largest piece. */
const SMALL = 1e-4;

/** Loose pieces next to nothing in size, such as a scan leaves floating about. */
export const crumbs: Check = {
  kind: 'crumbs',
  when: 'loose pieces with less than a ten-thousandth of the surface of the largest',
  severity: 'hint',
  thing: ['crumb', 'crumbs'],
  effect:
    'A loose piece so small is seldom meant, and becomes a shell that takes room and padding on the tile.',
  find(patient) {
    const pieces = piecesOf(patient).map(({ faces }) => ({
      faces,
      area: faces.reduce((sum, f) => sum + Math.hypot(...faceNormal(patient.mesh, f)), 0),
    }));
    const largest = pieces.reduce((most, { area }) => Math.max(most, area), 0);
    const small = pieces.filter(({ area }) => area < SMALL * largest);
    return findingOf({ faces: small.flatMap(({ faces }) => faces) }, small.length);
  },
  repair: {
    label: 'Delete them',
    safe: false,
    ofFaces: true,
    run: ({ mesh }, { faces }) => withoutFaces(mesh, faces),
  },
};
