import { type Check, findingOf } from './check.ts';
import { facesWhere, splitThem } from './polygons.ts';

/** Polygons with more than four corners. */
export const manyCorners: Check = {
  kind: 'many-corners',
  when: 'more than four corners',
  severity: 'hint',
  thing: ['polygon with more than four corners', 'polygons with more than four corners'],
  effect: 'It unfolds well, but loops end there, and subdivision pinches.',
  find: (patient) =>
    findingOf({
      faces: facesWhere(patient, (f) => patient.mesh.faceStart[f + 1] - patient.mesh.faceStart[f] > 4),
    }),
  repair: splitThem(false),
};
