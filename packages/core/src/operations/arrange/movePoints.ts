import { FALLOFFS, pulledShells, pulledUv } from '../../document/pulledShells.ts';
import { cornerUv } from '../../document/uvChange.ts';
import { about, choice, list, number, otherwise, record, tuple } from '../../params.ts';
import { plural } from '../../plural.ts';
import { operation } from '../operation.ts';
import { cornerOf, placeInFace } from '../unfold/handles.ts';
import { inside, laidAs, movedPoints, pointsAt } from './movedPoints.ts';

/** Moves points of the flat, and what lies near them less and less. */
export const movePoints = operation({
  name: 'move-points',
  stage: 'arrange',
  params: record({
    places: about('places of the flat, each by a vertex and a face at it', list(placeInFace, { min: 1 })),
    by: about('how far they are moved, u and v', tuple(2), 'heights of a tile'),
    radius: about(
      'distance along the surface within which others go along, less the farther they are; 0 for none',
      otherwise(number(0), 0),
      'heights of a tile',
    ),
    falloff: about('how that lessens', otherwise(choice(...FALLOFFS), 'smooth')),
    inside,
  }),
  label: ({ places }) => `Move ${plural(places.length, 'point')}`,
  doing: 'Moving points',
  run(document, { places, by: [u, v], radius, falloff, inside: how }, context) {
    const points = pointsAt(document, places);
    if (how === 'follows')
      return movedPoints(
        document,
        points.map((point) => ({ ...point, uv: [point.uv[0] + u, point.uv[1] + v] as const })),
        how,
        context,
      );
    const corners = points.map(({ vertex, face }) => cornerOf(document.model.mesh, vertex, face));
    const uvOf = new Map(
      pulledShells(document, corners, radius, falloff).map((shell) => [shell.s, pulledUv(shell, [u, v])]),
    );
    return laidAs(document, cornerUv(document, uvOf));
  },
});
