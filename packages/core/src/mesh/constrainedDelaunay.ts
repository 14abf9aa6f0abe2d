import Constrainautor from '@kninnug/constrainautor';
import Delaunator from 'delaunator';

/**
 * The Delaunay triangulation of points in the plane with some sides in it.
 *
 * @param places  `2 × pointCount`, about the origin and of size 1: points closer than a fixed, tiny length are taken for one
 * @param sides  pairs of points
 * @returns undefined where a side crosses another, runs over a point, or ends in one that was left out since it lies on another
 */
export function constrainedDelaunay(
  places: Float64Array,
  sides: readonly [number, number][],
): Delaunator<Float64Array> | undefined {
  const all = new Delaunator(places);
  try {
    new Constrainautor(all).constrainAll(sides).delaunify(true);
  } catch {
    return undefined;
  }
  return all;
}
