import type { BorderSnap } from '@blunt-hem/core/measure/snapToBorders';
import type { Hold, Snap } from './snap.ts';

const holdOf = (found: BorderSnap | undefined, what: string): Hold | undefined =>
  found && { by: found.by, far: found.far, guide: found.at, what };

/** A point of the border on a point of another. */
export const points: Snap = {
  name: 'points',
  label: 'Points',
  place: ({ near }) => holdOf(near.point, 'point'),
};

/** Points and middles of edges on middles of others. */
export const middles: Snap = {
  name: 'middles',
  label: 'Middles of edges',
  place: ({ near }) => holdOf(near.middle, 'middle of an edge'),
};

/** Points of the border on edges of another. */
export const edges: Snap = {
  name: 'edges',
  label: 'Edges',
  place: ({ near }) => holdOf(near.edge, 'edge'),
};

/** The outline beside another, the padding apart. */
export const outlines: Snap = {
  name: 'outlines',
  label: 'Padding of outlines',
  place: ({ near }) => holdOf(near.outline, 'padding of an outline'),
};
