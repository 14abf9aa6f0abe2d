import { about, list, record, tuple } from '../../params.ts';
import { plural } from '../../plural.ts';
import { operation } from '../operation.ts';
import { placeInFace } from '../unfold/handles.ts';
import { mappedPoints, takenAlong } from './mappedPoints.ts';
import { inside } from './movedPoints.ts';
import { verbOf } from './transformShells.ts';

/** Moves, turns, scales or mirrors points of the flat, and what lies near them less and less. */
export const transformPoints = operation({
  name: 'transform-points',
  stage: 'arrange',
  params: record({
    places: about('places of the flat, each by a vertex and a face at it', list(placeInFace, { min: 1 })),
    matrix: about(
      "a, b, c, d, e, f, with u' = a u + c v + e and v' = b u + d v + f",
      tuple(6),
      'heights of a tile',
    ),
    ...takenAlong,
    inside,
  }),
  label: ({ places, matrix }) => `${verbOf(matrix)} ${plural(places.length, 'point')}`,
  doing: 'Moving points',
  run: mappedPoints,
});
