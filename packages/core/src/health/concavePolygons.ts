import { type Check, findingOf } from './check.ts';
import { facesWhere, isBridged, isConcave, splitThem } from './polygons.ts';

/** Polygons with a corner that points inward, bridged ones apart. */
export const concavePolygons: Check = {
  kind: 'concave-polygons',
  when: 'a corner that turns inward',
  severity: 'hint',
  thing: ['polygon with an inward corner', 'polygons with an inward corner'],
  effect:
    'Here it is split well; a program that splits it from its first corner makes triangles that overlap.',
  find: (patient) =>
    findingOf({
      faces: facesWhere(patient, (f) => isConcave(patient.mesh, f) && !isBridged(patient.mesh, f)),
    }),
  repair: splitThem(false),
};
