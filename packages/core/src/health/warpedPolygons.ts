import { type Check, findingOf } from './check.ts';
import { facesWhere, splitThem, warp } from './polygons.ts';

/** A polygon whose corners lie farther from one plane than this part of its size counts as warped. */
const WARPED = 0.1;

/** Polygons far from flat. */
export const warpedPolygons: Check = {
  kind: 'warped-polygons',
  when: 'distance of corners from the best-fit plane',
  severity: 'hint',
  thing: ['polygon that is far from flat', 'polygons that are far from flat'],
  effect:
    'Where it is split decides its shape, and another program may split it otherwise than it was unfolded.',
  find: (patient) => findingOf({ faces: facesWhere(patient, (f) => warp(patient.mesh, f) > WARPED) }),
  repair: splitThem(false),
};
