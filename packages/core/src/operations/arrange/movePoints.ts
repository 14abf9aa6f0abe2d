import { about, list, record, tuple } from '../../params.ts';
import { plural } from '../../plural.ts';
import { operation } from '../operation.ts';
import { placeInFace } from '../unfold/handles.ts';
import { mappedPoints, takenAlong } from './mappedPoints.ts';
import { inside } from './movedPoints.ts';

/** Moves points of the flat, and what lies near them less and less. */
export const movePoints = operation({
  name: 'move-points',
  stage: 'arrange',
  params: record({
    places: about('places of the flat, each by a vertex and a face at it', list(placeInFace, { min: 1 })),
    by: about('how far they are moved, u and v', tuple(2), 'heights of a tile'),
    ...takenAlong,
    inside,
  }),
  label: ({ places }) => `Move ${plural(places.length, 'point')}`,
  doing: 'Moving points',
  run: (document, { by: [u, v], ...given }, context) =>
    mappedPoints(document, { ...given, matrix: [1, 0, 0, 1, u, v] }, context),
});
