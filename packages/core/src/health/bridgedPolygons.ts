import { type Check, findingOf } from './check.ts';
import { facesWhere, isBridged, splitThem } from './polygons.ts';

/** Polygons with a bridge from their rim to a hole. */
export const bridgedPolygons: Check = {
  kind: 'bridged-polygons',
  when: 'an outline that touches itself',
  severity: 'spoils',
  thing: ['polygon with a bridge to a hole', 'polygons with a bridge to a hole'],
  effect: 'Other programs may cover the hole with triangles that overlap in the flat.',
  find: (patient) => findingOf({ faces: facesWhere(patient, (f) => isBridged(patient.mesh, f)) }),
  repair: splitThem(true),
};
