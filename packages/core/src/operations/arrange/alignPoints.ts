import { HemError } from '../../errors.ts';
import { about, choice, list, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { operation } from '../operation.ts';
import { placeInFace } from '../unfold/handles.ts';
import { inside, movedPoints, pointsAt } from './movedPoints.ts';

const LINES = {
  'least-u': 'the least u',
  'greatest-u': 'the greatest u',
  'mean-u': 'their mean u',
  'least-v': 'the least v',
  'greatest-v': 'the greatest v',
  'mean-v': 'their mean v',
  ends: 'the line through the two farthest apart',
} as const;
type LineName = keyof typeof LINES;

/** Moves points of the flat onto one line: to one u or v, or square onto the line through the two that lie farthest apart. */
export const alignPoints = operation({
  name: 'align-points',
  stage: 'arrange',
  params: record({
    places: about('places of the flat, each by a vertex and a face at it', list(placeInFace, { min: 2 })),
    to: about(
      'the line: the least, greatest or mean u or v of them, or the one through the two that lie farthest apart',
      choice(...(Object.keys(LINES) as LineName[])),
    ),
    inside,
  }),
  label: ({ places, to }) => `Align ${plural(places.length, 'point')} to ${LINES[to]}`,
  doing: 'Aligning',
  run(document, { places, to, inside: how }, context) {
    const points = pointsAt(document, places);
    const uvs = points.map(({ uv }) => uv);
    const ontoLine = to === 'ends' ? ontoEnds(uvs) : ontoOne(uvs, to);
    return movedPoints(
      document,
      points.map((point) => ({ ...point, uv: ontoLine(point.uv) })),
      how,
      context,
    );
  },
});

type Point = readonly [number, number];

function ontoOne(points: readonly Point[], to: Exclude<LineName, 'ends'>): (point: Point) => Point {
  const [which, name] = to.split('-');
  const axis = name === 'u' ? 0 : 1;
  const values = points.map((point) => point[axis]);
  const value =
    which === 'least'
      ? Math.min(...values)
      : which === 'greatest'
        ? Math.max(...values)
        : values.reduce((sum, x) => sum + x, 0) / values.length;
  return ([u, v]) => (axis === 0 ? [value, v] : [u, value]);
}

function ontoEnds(points: readonly Point[]): (point: Point) => Point {
  let [a, b, most] = [points[0], points[0], -1];
  for (const p of points)
    for (const q of points) {
      const far = Math.hypot(q[0] - p[0], q[1] - p[1]);
      if (far > most) [a, b, most] = [p, q, far];
    }
  if (!(most > 0))
    throw new HemError('one-place', 'These points all lie in one place: there is no line through them.');
  const [du, dv] = [(b[0] - a[0]) / most, (b[1] - a[1]) / most];
  return (point) => {
    // The ends are on it to the last bit.
    if (point === a || point === b) return point;
    const along = (point[0] - a[0]) * du + (point[1] - a[1]) * dv;
    return [a[0] + along * du, a[1] + along * dv];
  };
}
