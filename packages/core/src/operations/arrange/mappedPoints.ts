import type { Delta } from '../../document/delta.ts';
import type { HemDocument } from '../../document/document.ts';
import { FALLOFFS, type Falloff, pulledShells, pulledUv } from '../../document/pulledShells.ts';
import { cornerUv } from '../../document/uvChange.ts';
import { about, choice, number, otherwise } from '../../params.ts';
import type { UvMatrix } from '../../surface/similarity.ts';
import type { OperationContext } from '../operation.ts';
import { cornerOf } from '../unfold/handles.ts';
import { laidAs, movedPoints, type PlaceOfPoint, pointsAt } from './movedPoints.ts';

/** How far what lies near points goes along. */
export const takenAlong = {
  radius: about(
    'distance along the surface within which others go along, less the farther they are; 0 for none',
    otherwise(number(0), 0),
    'heights of a tile',
  ),
  falloff: about('how that lessens', otherwise(choice(...FALLOFFS), 'smooth')),
};

export interface PointMap {
  readonly places: readonly PlaceOfPoint[];
  readonly matrix: UvMatrix;
  readonly radius: number;
  readonly falloff: Falloff;
  readonly inside: 'stays' | 'follows';
}

/** Lays points of the flat by a map of it, and what lies near them less and less so. */
export function mappedPoints(
  document: HemDocument,
  { places, matrix, radius, falloff, inside }: PointMap,
  context: OperationContext,
): Delta | Promise<Delta> {
  const points = pointsAt(document, places);
  if (inside === 'follows') {
    const [a, b, c, d, e, f] = matrix;
    return movedPoints(
      document,
      points.map((point) => {
        const [u, v] = point.uv;
        return { ...point, uv: [a * u + c * v + e, b * u + d * v + f] as const };
      }),
      inside,
      context,
    );
  }
  const corners = points.map(({ vertex, face }) => cornerOf(document.model.mesh, vertex, face));
  const pulled = pulledShells(document, corners, radius, falloff);
  return laidAs(
    document,
    cornerUv(document, new Map(pulled.map((shell) => [shell.s, pulledUv(shell, matrix)]))),
  );
}
